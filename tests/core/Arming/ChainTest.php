<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Arming;

use Ortholex\Core\Arming\Bar;
use Ortholex\Core\Arming\Chain;
use Ortholex\Core\Arming\ChainPlace;
use Ortholex\Core\Arming\Condition;
use Ortholex\Core\Arming\GuardReading;
use Ortholex\Core\Arming\Open;
use Ortholex\Core\Arming\OwnBar;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LinkLoss\Stage;
use Ortholex\Core\Proof\Proof;
use Ortholex\Core\Proof\Proved;
use Ortholex\Core\Proof\ReplacedPart;
use PHPUnit\Framework\TestCase;

/** The chain, what proofs rest on, and what a repair opens. */
final class ChainTest extends TestCase
{
    private const SET = [
        'mounting.yaw_deg' => 90.0,
        'pad.1.drives' => 'front_left',
        'props.direction' => 'props_in',
        'receiver.protocol' => 'crsf',
        'channel.throttle.low_us' => 1000.0,
        'link_loss.hold_s' => 0.5,
        'pack.cells' => 4,
    ];

    public function testABareCraftWaitsForAllThatIsNeeded(): void
    {
        $chain = Chain::of(self::guard([]), self::set(), self::set(), [], false, 2);
        $codes = array_map(static fn (Open $o): ?string => null === $o->own ? null : (string) $o->own->code->value, $chain->open);
        self::assertSame(
            [...array_fill(0, \count(Chain::NEEDED), OwnBar::NotProved->value), OwnBar::NoSnapshot->value, OwnBar::Staged->value],
            $codes,
        );
        self::assertTrue($chain->wouldArm(), 'what is ours forbids nothing to the board');
        self::assertCount(0, $chain->at(ChainPlace::Board));
    }

    public function testEachOfTheBoardsStandsAtItsLink(): void
    {
        foreach (Bar::cases() as $bar) {
            $chain = Chain::of(self::guard([$bar]), self::set(), self::set(), self::proofs(), true, 0);
            self::assertCount(1, $chain->open, $bar->name);
            self::assertSame($bar, $chain->at(ChainPlace::of($bar))[0]->bar ?? null);
            self::assertSame(Bar::Cable === $bar, $chain->wouldArm(), $bar->name);
        }
        $warns = new GuardReading(false, 0, Bar::LevelUnknown->value, Stage::Heard, 0.0, null);
        self::assertTrue(Chain::of($warns, self::set(), self::set(), self::proofs(), true, 0)->wouldArm());
        self::assertFalse(Chain::of(null, self::set(), self::set(), self::proofs(), true, 0)->wouldArm(), 'not heard, nothing is known');
    }

    public function testAProofHoldsWhileWhatItRestedOnIsTheSame(): void
    {
        $proof = self::proofs()[Proved::Mounting->value];
        self::assertTrue($proof->holds(self::set()));
        self::assertTrue($proof->holds(self::set()->with(['pack.cells' => 6])), 'what it did not rest on may change');
        self::assertSame(['mounting.yaw_deg'], $proof->changed(self::set()->with(['mounting.yaw_deg' => 0.0])));
        $kept = json_decode((string) json_encode($proof->toArray()), true);
        self::assertIsArray($kept);
        $again = Proof::fromArray(Proved::Mounting, $kept);
        self::assertTrue($again->holds(self::set()), 'kept as JSON, 90 is 90.0 still');
        $turned = self::set()->with(['mounting.yaw_deg' => 180.0]);
        $lapsed = Chain::wanting($turned, $turned, self::proofs());
        self::assertCount(1, $lapsed);
        self::assertTrue($lapsed[0]->own?->is(OwnBar::Lapsed));
        $staged = Chain::wanting($turned, self::set(), self::proofs());
        self::assertTrue($staged[0]->own?->is(OwnBar::Waits), 'proved with what waits in the tray');
    }

    public function testARepairOpensWhatRestsOnThePart(): void
    {
        foreach (ReplacedPart::cases() as $part) {
            self::assertNotEmpty($part->opens());
            $proofs = [];
            foreach (Proved::cases() as $what) {
                $proof = Proof::now($what, self::set(), 1.0);
                $proofs[$what->value] = \in_array($what, $part->opens(), true) ? $proof->undoneBy($part) : $proof;
            }
            $open = array_map(static fn (Open $o): ?Proved => $o->proof, Chain::wanting(self::set(), self::set(), $proofs));
            self::assertEqualsCanonicalizing($part->opens(), $open, $part->value);
        }
    }

    /** Each condition alone, and what only warns where it is told to. */
    public function testConditionsAreNamedOneByOne(): void
    {
        $set = SettingSet::of(['action.arm.on_in' => '5:1700-', 'location.enabled' => true]);
        $sound = ['frames' => true, 'failsafe' => false, 'throttle' => 0.0, 'tiltDeg' => 2.0, 'gyroDps' => 0.1, 'level' => true,
            'loadPct' => 60.0, 'cellV' => 4.1, 'fix' => true, 'restartDue' => false, 'cable' => false];
        self::assertSame([], (new Condition(...$sound))->unmet($set));
        foreach (
            [
                [['frames' => false], Bar::NoFrames],
                [['failsafe' => true], Bar::Failsafe],
                [['throttle' => 0.2], Bar::ThrottleHigh],
                [['tiltDeg' => 25.5], Bar::Tilted],
                [['cable' => true], Bar::Cable],
                [['gyroDps' => 3.5], Bar::GyroMoves],
                [['level' => false], Bar::LevelUnknown],
                [['loadPct' => 96.0], Bar::LoopOverload],
                [['cellV' => 3.55], Bar::PackLow],
                [['cellV' => null], Bar::PackLow],
                [['fix' => false], Bar::NoFix],
                [['restartDue' => true], Bar::RestartDue],
            ] as [$change, $bar]
        ) {
            $unmet = (new Condition(...array_replace($sound, $change)))->unmet($set);
            self::assertSame([$bar], $unmet);
            $usual = Bar::LevelUnknown === $bar ? [] : [$bar];
            self::assertSame($usual, Condition::forbidding($unmet, $set));
            $setting = $bar->setting();
            $warns = null === $setting ? $set : $set->with([$setting => 'warn']);
            self::assertSame(null === $setting ? [$bar] : [], Condition::forbidding($unmet, $warns), "$bar->name, told to warn");
        }
    }

    public function testAReadingComesBack(): void
    {
        $guard = new GuardReading(true, 5, 261, Stage::Descend, 3.25, \Ortholex\Core\Arming\Stopped::UnaskedTurn);
        self::assertSame(GuardReading::BYTES, \strlen($guard->pack()));
        self::assertEquals($guard, GuardReading::unpack($guard->pack()));
    }

    private static function set(): SettingSet
    {
        return SettingSet::of(self::SET);
    }

    /** @return array<string, Proof> */
    private static function proofs(): array
    {
        $proofs = [];
        foreach (Chain::NEEDED as $what) {
            $proofs[$what->value] = Proof::now($what, self::set(), 1.0);
        }

        return $proofs;
    }

    /** @param list<Bar> $bars */
    private static function guard(array $bars): GuardReading
    {
        return new GuardReading(false, Bar::mask($bars), Bar::mask($bars), Stage::Heard, 0.01, null);
    }
}
