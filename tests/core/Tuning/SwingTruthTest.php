<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Tuning;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Noise\Ridge;
use Ortholex\Core\Noise\RidgeKind;
use Ortholex\Core\Report\Finding\Finding;
use Ortholex\Core\Report\Finding\FindingCode;
use Ortholex\Core\Report\Finding\Findings;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Tuning\TermState;
use Ortholex\Tests\core\Truth\TruthCraft;
use Ortholex\Tests\core\Truth\TruthFlight;
use Ortholex\Tests\core\Truth\TruthMoves;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Loops of craft with known physics that swing of themselves, slowly or fast, and such that do not. */
#[Group('slow')]
final class SwingTruthTest extends TestCase
{
    /** @return iterable<string, array{TruthCraft, float}> craft, and where roll swings: the frequency of its own limit cycle, Hz */
    public static function swinging(): iterable
    {
        // Counted from the log: how often the rate crosses its command upwards, over 30 s.
        yield 'heavy on slow rotors, 2.9 Hz' => [TruthCraft::slow()->tuned(40, 10, 0), 2.9];
        yield 'the same with quicker filters, 3.7 Hz' => [TruthCraft::slow()->tuned(60, 20, 0), 3.67];
        yield 'at its ends nearly all the time, 8 Hz' => [TruthCraft::light()->tuned(100, 12, 0), 8.0];
        yield 'the same, 10 Hz' => [TruthCraft::light()->tuned(140, 20, 0), 9.9];
    }

    #[DataProvider('swinging')]
    public function testASlowSwingIsNeverClean(TruthCraft $craft, float $hz): void
    {
        $analysis = FlightAnalysis::of((new TruthFlight($craft, 41, withTerms: true))->fly(TruthMoves::Cruise, 30.0), false);
        foreach ([Axis::Roll, Axis::Pitch] as $axis) {
            $verdict = $analysis->verdicts[$axis->value];
            self::assertSame(TermState::Oscillation, $verdict->verdict, $axis->value);
            self::assertEqualsWithDelta($hz, $verdict->hz, 0.25);
            self::assertGreaterThan(0.9, $verdict->share);
        }
    }

    public function testSoundLoopsAreCleanAndWhatSitsAtItsEndsCannotBeTold(): void
    {
        foreach ([TruthCraft::light(), TruthCraft::slow(), TruthCraft::light()->tuned(160, 30, 0.5)] as $craft) {
            $analysis = FlightAnalysis::of((new TruthFlight($craft, 41, withTerms: true))->fly(TruthMoves::Cruise, 30.0), false);
            foreach ($analysis->verdicts as $axis => $verdict) {
                self::assertSame(TermState::Clean, $verdict->verdict, "$craft->name, $axis");
            }
        }
        $noisy = FlightAnalysis::of(
            (new TruthFlight(TruthCraft::light()->tuned(350, 60), 41, withTerms: true))->fly(TruthMoves::Cruise, 30.0),
            false,
        );
        self::assertSame(TermState::CannotTell, $noisy->verdicts['roll']->verdict, 'half of the time at its ends');
    }

    public function testWhatTheLoopSwingsAtIsNoLoosePart(): void
    {
        $log = (new TruthFlight(TruthCraft::light()->tuned(140, 20, 0), 41, withTerms: true))->fly(TruthMoves::Cruise, 30.0);
        $analysis = FlightAnalysis::of($log, false);
        $yaw = array_values(array_filter($analysis->ridges, static fn (Ridge $r): bool => Axis::Yaw === $r->axis && $r->hz < 60));
        self::assertNotSame([], $yaw);
        self::assertSame(RidgeKind::OwnSwing, $yaw[0]->kind);
        self::assertEqualsWithDelta(19.7, $yaw[0]->hz, 1.5);
        $said = array_map(static fn (Finding $f): mixed => $f->what->code, Findings::of($log, $analysis));
        self::assertContains(FindingCode::POscillates, $said);
        self::assertNotContains(FindingCode::StandingRidge, $said);
        // A frame that rings far above the loop stays the frame's.
        foreach (FlightAnalysis::of((new TruthFlight(TruthCraft::light(), 41))->fly(TruthMoves::Cruise, 30.0), false)->ridges as $ridge) {
            self::assertNotSame(RidgeKind::OwnSwing, $ridge->kind);
        }
    }
}
