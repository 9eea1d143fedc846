<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Gains;

use Ortholex\Tests\app\AppCase;
use PHPUnit\Framework\Attributes\Group;

/** What is staged is judged whole, gains and filters, by one log, in the tray as on the sheet. */
#[Group('slow')]
final class JudgedWholeTest extends AppCase
{
    /** Low-passes so deep that the loop goes round: cleanly flown, and not to be flown again. */
    private const DEEP = [
        'rate_path.stage.1.kind' => 'second_order',
        'rate_path.stage.1.cutoff_hz' => 20,
        'd_path.stage.1.cutoff_hz' => 20,
    ];

    public function testAFilterChainThatWouldOscillateStandsInTheTrayAndIsAskedForOnceMore(): void
    {
        $log = $this->flown();
        $this->page("/craft/curlew/54?log=$log->id");
        self::assertStringNotContainsString('not yet flown', $this->page('/craft/curlew/61'), 'as flown is as flown');
        $this->post('/craft/curlew/stage', ['values' => self::DEEP]);
        $html = $this->page('/craft/curlew/61');
        self::assertMatchesRegularExpression('~id="gains-answer">As staged, [^<]*(roll|pitch) would oscillate~', $html);
        self::assertMatchesRegularExpression("~Before you fly:</b> By $log->code, (roll|pitch) would oscillate~", $html);
        self::assertStringContainsString('name="knowing"', $html);
        $refused = $this->post('/craft/curlew/commit', ['reason' => 'quieter'], 422);
        self::assertSame('knowing', $refused['field']);
        self::assertSame(0, $this->craft()->revision);
        $this->post('/craft/curlew/commit', ['reason' => 'quieter, on the desk only', 'knowing' => '1']);
        self::assertSame(1, $this->craft()->revision);
        $html = $this->page('/craft/curlew/61');
        self::assertStringNotContainsString('As staged', $html);
        self::assertStringContainsString('As the craft stands now, not yet flown,', $html);
        self::assertStringNotContainsString('answers cleanly.', $html);
    }

    public function testGainsThatRingAreAskedForAndThoseThatLessenItAreNot(): void
    {
        $log = $this->flown();
        $this->page("/craft/curlew/54?log=$log->id");
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 60, 'gain.roll.d' => 1]]);
        $html = $this->page('/craft/curlew/73');
        self::assertMatchesRegularExpression('~roll would (ring|oscillate)~', $html, 'on whatever sheet the tray is opened');
        self::assertSame('knowing', $this->post('/craft/curlew/commit', ['reason' => 'more'], 422)['field']);
        $this->post('/craft/curlew/discard');
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.d' => 2.6]]);
        self::assertStringNotContainsString('Before you fly', $this->page('/craft/curlew/61'));
        self::assertStringContainsString("peak of roll&#039;s step, by $log->code", $this->page('/craft/curlew/61'));
        $this->post('/craft/curlew/commit', ['reason' => 'calmer']);
    }

    public function testTheTrayJudgesByTheLogThatTheSheetIsAbout(): void
    {
        $first = $this->flown(seed: 5);
        $this->page("/craft/curlew/54?log=$first->id");
        $second = $this->flown(seed: 9);
        $this->page("/craft/curlew/54?log=$second->id");
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.d' => 2.6]]);
        foreach ([[$second->code, ''], [$first->code, "?log=$first->id"]] as [$code, $query]) {
            $html = $this->page("/craft/curlew/61$query");
            self::assertStringContainsString("Worked out from $code;", $html);
            self::assertStringContainsString("step, by $code:", $html);
        }
        // A log that was put away judges nothing more.
        $this->post("/craft/curlew/logs/$second->id/away");
        $html = $this->page('/craft/curlew/61');
        self::assertStringContainsString("Worked out from $first->code;", $html);
        self::assertStringContainsString("step, by $first->code:", $html);
    }
}
