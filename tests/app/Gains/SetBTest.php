<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Gains;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\Work\JobState;
use Ortholex\Tests\app\AppCase;
use PHPUnit\Framework\Attributes\Group;

/** The other set of gains: seen and set on 61, turned on by a lever, flown, and its log judged by what flew. */
final class SetBTest extends AppCase
{
    public function testItIsShownInShareOfSetAWithWhatComesOfIt(): void
    {
        $this->link();
        $page = $this->page('/craft/curlew/61');
        self::assertStringContainsString('Set B, as A', $page);
        self::assertStringNotContainsString('gain_b.roll.p_pct', $page);
        $page = $this->page('/craft/curlew/61?set=b');
        self::assertStringContainsString('data-setting="gain_b.roll.p_pct"', $page);
        self::assertStringNotContainsString('data-setting="gain.roll.p"', $page);
        self::assertStringContainsString('No switch turns set B on yet', $page);
        $this->post('/craft/curlew/stage', ['values' => ['gain_b.roll.p_pct' => '120']]);
        $p = $this->craft()->settings->number('gain.roll.p');
        $page = $this->page('/craft/curlew/61?set=b');
        self::assertMatchesRegularExpression('~data-set-b="p">\s*'.preg_quote((string) round(1.2 * $p, 2), '~').'\s*<~', $page);
        self::assertStringContainsString('Set B: what the switch turns on', $page);
        // From the search or the list of all settings it opens where it stands.
        self::assertStringContainsString('data-setting="gain_b.yaw.ff_pct"', $this->page('/craft/curlew/61?setting=gain_b.yaw.ff_pct'));
    }

    #[Group('slow')]
    public function testALogFlownWithItIsJudgedByItsGains(): void
    {
        $this->link();
        $this->ready();
        $this->post('/craft/curlew/stage', ['values' => ['gain_b.roll.p_pct' => '80', 'action.gain_set_b.on_in' => '8:1500-']]);
        $this->post('/craft/curlew/commit', ['reason' => 'a softer set']);
        $p = $this->craft()->settings->number('gain.roll.p');
        $ps = [];
        foreach (['0', '2'] as $i => $to) {
            $this->world()->move('radio:lever.D', $to);
            $job = $this->job('fly', ['card' => 'mixed_sticks', 'seed' => 5 + $i, 'seconds' => 20]);
            self::assertSame(JobState::Done, $job->state, $job->message);
            $log = $this->entities()->find(Log::class, $job->result['log']);
            self::assertNotNull($log);
            $ps[] = $log->settings->number('gain.roll.p');
        }
        sort($ps);
        self::assertEqualsWithDelta([0.8 * $p, $p], $ps, 1e-9);
        // Both are flights of one axis: what the log tells of it is the same, whichever set flew.
        $told = [];
        foreach ($this->entities()->getRepository(Log::class)->findBy(['craft' => $this->craft()]) as $log) {
            $one = $this->json("/craft/curlew/gains/predict/$log->id.json")['roll'] ?? [];
            self::assertIsArray($one);
            $told[] = $one['predicted_peak'] ?? 0.0;
        }
        self::assertCount(2, $told);
        self::assertEqualsWithDelta($told[0], $told[1], 0.08);
    }
}
