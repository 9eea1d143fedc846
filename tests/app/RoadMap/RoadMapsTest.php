<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\RoadMap;

use Ortholex\App\Report\JudgedLog;
use Ortholex\App\RoadMap\RoadMaps;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\RoadMap\RoadMap;
use Ortholex\Core\RoadMap\TuneReason;
use Ortholex\Core\RoadMap\TuneStep;
use Ortholex\Tests\app\AppCase;
use PHPUnit\Framework\Attributes\Group;

/** The road of a tune as the book tells it: by the flight that can be believed most. */
#[Group('slow')]
final class RoadMapsTest extends AppCase
{
    public function testGoesFromNoiseToTheNextStepWithItsReason(): void
    {
        self::assertNull($this->road(), 'nothing is known before the first link');
        $firm = $this->flown();
        $road = $this->road();
        self::assertNotNull($road);
        self::assertTrue($road->why->is(TuneReason::Rings), (string) json_encode($road->why->code));
        self::assertSame(TuneStep::Damping, $road->at);
        self::assertArrayHasKey('gain.roll.d', $road->stage);
        self::assertStringContainsString('Roll rings: its step peaks at', html_entity_decode($this->page('/')));
        // A short flight tells less: what is said goes on resting on the one before.
        $short = $this->flown('mixed_sticks', 9, 5);
        self::assertSame($firm->code, self::getContainer()->get(JudgedLog::class)->best($this->craft())?->code);
        self::assertStringContainsString("Worked out from $firm->code;", $this->page('/craft/curlew/61'));
        self::assertStringContainsString($short->code, $this->page("/craft/curlew/61?log=$short->id"), 'unless another is asked for');
        // Staged, it is flown before anything else is judged.
        $this->post('/craft/curlew/stage', ['values' => $road->stage]);
        $this->post('/craft/curlew/commit', ['reason' => 'the next step']);
        $next = $this->road();
        self::assertSame([Card::MixedSticks, []], [$next?->card, $next?->stage]);
    }

    /** @phpstan-impure */
    private function road(): ?RoadMap
    {
        return self::getContainer()->get(RoadMaps::class)->of($this->craft());
    }
}
