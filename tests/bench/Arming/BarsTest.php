<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Arming;

use Ortholex\Bench\State\WorldState;
use Ortholex\Core\Arming\Bar;
use Ortholex\Core\Arming\GuardReading;
use Ortholex\Core\Arming\Stopped;
use Ortholex\Core\LinkLoss\Stage;
use Ortholex\Tests\bench\DeskCase;
use Ortholex\Tests\Cases;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;

/** Everything that forbids arming, forced by hand on the bench and told over the link; and arming against a table of truth. */
final class BarsTest extends DeskCase
{
    /** Of the board: what hands do for each to be unmet, and for it to be met again. */
    private const HANDS = [
        'throttle' => [Bar::ThrottleHigh, ['radio:sticks', 'throttle=0.2'], ['radio:sticks', 'throttle=-1']],
        'tilt' => [Bar::Tilted, ['tilt', 'right_down'], ['tilt', 'level']],
        'pack' => [Bar::PackLow, ['pack_used', '0.9'], ['pack_used', '0.05']],
    ];

    public function testASoundCraftWaitsForNothingButItsCable(): void
    {
        $this->onDesk();
        self::assertSame([Bar::Cable], $this->bars());
    }

    /** @return iterable<string, array{Bar, array{string, string}}> */
    public static function byHand(): iterable
    {
        foreach (self::HANDS as $name => [$bar, $do]) {
            yield $name => [$bar, $do];
        }
        yield 'pack off' => [Bar::PackLow, ['pack', '0']];
    }

    /** @param array{string, string} $do */
    #[DataProvider('byHand')]
    public function testEachIsForcedByHandAndNamed(Bar $bar, array $do): void
    {
        $this->onDesk();
        $this->world->move(...$do);
        $this->pace->wait(2.0);
        self::assertSame([$bar], array_values(array_diff_key($this->named(), ['Cable' => 0])), $bar->name);
    }

    public function testASilentTransmitterIsNamedByTheReceiversManner(): void
    {
        $this->onDesk();
        $this->world->move('radio:manner', 'flags');
        $this->world->move('transmitter', '0');
        $this->pace->wait(1.0);
        self::assertContains(Bar::Failsafe, $this->bars());
        $this->world->move('radio:manner', 'stops');
        $this->pace->wait(1.0);
        self::assertContains(Bar::NoFrames, $this->bars());
    }

    public function testARestartThatIsDueIsNamedUntilItIsDone(): void
    {
        $this->onDesk();
        $this->client()->writeSetting('telemetry.enabled', true);
        self::assertContains(Bar::RestartDue, $this->bars());
        $this->client()->writeSetting('gain.roll.p', 31.0);
        $this->client()->restart();
        $this->pace->wait(2.0);
        self::assertNotContains(Bar::RestartDue, $this->bars());
    }

    public function testAGyroThatTurnsIsNamedUntilItRests(): void
    {
        $this->onDesk(['interlock.most_tilt_deg' => 60.0]);
        $this->world->move('tilt', 'nose_up');
        $this->pace->wait(0.2);
        self::assertContains(Bar::GyroMoves, $this->bars());
        $this->pace->wait(2.0);
        self::assertNotContains(Bar::GyroMoves, $this->bars());
    }

    public function testALoopThatTakesTooLongIsNamed(): void
    {
        $this->onDesk();
        $this->world->store->change(static function (WorldState $s): void {
            $s->loadPct = 96.5;
        });
        self::assertContains(Bar::LoopOverload, $this->bars());
        $this->client()->writeSetting('interlock.if_overloaded', 'warn');
        $this->world->store->change(static function (WorldState $s): void {
            $s->loadPct = 96.5;
        });
        self::assertNotContains(Bar::LoopOverload, $this->bars());
        self::assertContains(Bar::LoopOverload, Bar::in($this->guard()->unmet), 'it warns');
    }

    public function testLevelFixAndMapAreNamed(): void
    {
        $this->onDesk(
            [
                'level.roll_deg' => 0.0,
                'level.pitch_deg' => 0.0,
                'location.enabled' => true,
                'action.arm.on_in' => '',
                'interlock.if_no_fix' => 'forbid',
            ],
        );
        $guard = $this->guard();
        self::assertSame([Bar::Cable, Bar::NothingArms, Bar::NoFix], Bar::in($guard->bars));
        self::assertSame([Bar::Cable, Bar::NothingArms, Bar::LevelUnknown, Bar::NoFix], Bar::in($guard->unmet), 'level only warns');
        $this->world->solder([['plumb-g2.v', '5V'], ['plumb-g2.gnd', 'GND-L2'], ['plumb-g2.tx', 'RX3']], []);
        $this->client()->writeSetting('uart.3.role', 'gps');
        $this->client()->writeSetting('uart.3.baud', '38400');
        $this->world->move('outdoors', '1');
        self::assertContains(Bar::NoFix, $this->bars(), 'the first fix takes its time');
        $this->pace->wait(60.0);
        self::assertNotContains(Bar::NoFix, $this->bars());
    }

    /** Two hundred combinations: exactly what hands forced is named, and all of it. */
    public function testAllCombinationsAreNamedWhole(): void
    {
        $this->onDesk();
        $dice = new Lcg(99);
        for ($n = 0, $all = Cases::many(200, 80); $n < $all; ++$n) {
            $expected = [Bar::Cable->name => Bar::Cable];
            foreach (self::HANDS as [$bar, $force, $mend]) {
                $forced = 1 === $dice->whole(0, 1);
                $this->world->move(...($forced ? $force : $mend));
                $expected += $forced ? [$bar->name => $bar] : [];
            }
            $this->pace->wait(2.0);
            $found = $this->named();
            ksort($expected);
            ksort($found);
            self::assertSame(array_keys($expected), array_keys($found), "combination $n");
        }
    }

    /**
     * Arming against a table: lever off first, then on, with each of four conditions met or not, rehearsed or not.
     * Armed exactly when all are met and somebody rehearses.
     */
    public function testItArmsByTheTable(): void
    {
        $this->onDesk();
        for ($n = 0; $n < 16; ++$n) {
            $unmet = [];
            foreach (array_values(self::HANDS) as $i => [, $force, $mend]) {
                $unmet[$i] = 0 !== ($n & (1 << $i));
                $this->world->move(...($unmet[$i] ? $force : $mend));
            }
            $rehearsed = 0 === ($n & 8);
            $this->world->move('radio:lever.A', '0');
            $this->pace->wait(2.0);
            $this->client()->rehearse($rehearsed);
            $this->world->move('radio:lever.A', '2');
            $this->pace->wait(0.3);
            self::assertSame($rehearsed && !\in_array(true, $unmet, true), $this->guard()->armed, "row $n");
            $this->client()->rehearse(false);
            self::assertFalse($this->guard()->armed, "row $n, stopped");
        }
    }

    public function testARehearsalEndsByItselfAndPropsBiteWhoLied(): void
    {
        $this->onDesk();
        $this->client()->rehearse(true);
        $this->flick();
        self::assertTrue($this->guard()->armed);
        self::assertCount(4, $this->world->drive->turning($this->world->store->peek()), 'all motors turn at idle');
        $this->pace->wait(10.5);
        self::assertFalse($this->guard()->armed, 'nobody went on with it');
        $this->world->move('radio:lever.A', '0');
        $this->pace->wait(0.3);
        $this->world->move('props', '1');
        $this->client()->rehearse(true);
        $this->flick();
        $this->world->move('outdoors', '1');
        $state = $this->world->store->peek();
        self::assertStringContainsString('A prop bit', $state->mishap);
        self::assertFalse($state->cable);
        self::assertFalse($state->arming['armed'] ?? true);
    }

    public function testItStopsByItselfUpsideDownAndTellsWhy(): void
    {
        $this->onDesk(['disarm.upside_down_s' => 1.0, 'disarm.still_s' => 0.0, 'disarm.unasked_turn_s' => 0.0]);
        $this->client()->rehearse(true);
        $this->flick();
        self::assertTrue($this->guard()->armed);
        $this->world->move('tilt', 'upside_down');
        for ($i = 0; $i < 15; ++$i) {
            $this->pace->wait(0.2);
            $guard = $this->guard();
        }
        self::assertFalse($guard->armed);
        self::assertSame(Stopped::UpsideDown, $guard->stopped);
    }

    /** A lost link is held first, and cut by the plan; only then it is disarmed, and it must be seen off before it arms again. */
    public function testALostLinkGoesByItsPlan(): void
    {
        $this->onDesk(['link_loss.hold_s' => 0.8, 'link_loss.then' => 'cut']);
        $this->client()->rehearse(true);
        $this->flick();
        $this->world->move('transmitter', '0');
        $this->pace->wait(0.5);
        self::assertSame(Stage::Hold, $this->guard()->stage);
        self::assertTrue($this->guard()->armed);
        $this->pace->wait(0.6);
        self::assertSame(Stage::Cut, $this->guard()->stage);
        self::assertFalse($this->guard()->armed);
        $this->world->move('transmitter', '1');
        $this->pace->wait(0.6);
        self::assertSame(Stage::Heard, $this->guard()->stage);
        self::assertContains(Bar::OnSincePowerUp, $this->bars());
    }

    /** On its back with self-righting on: the motors on the stick's side turn, and backward. */
    public function testSelfRightingTurnsTheMotorsOfTheSticksSideBackward(): void
    {
        $this->onDesk(['action.self_right.on_in' => '6:1750-', 'disarm.upside_down_s' => 0.0, 'interlock.if_tilted' => 'warn']);
        $this->world->move('radio:lever.B', '2');
        $this->world->move('tilt', 'upside_down');
        $this->pace->wait(3.0);
        $this->client()->rehearse(true);
        $this->flick();
        self::assertTrue($this->guard()->armed);
        self::assertSame([], $this->world->drive->turning($this->world->store->peek()), 'nothing turns before the stick is moved');
        $ordinary = [];
        foreach ($this->world->physics->wiredPads as $pad => $place) {
            $ordinary[$place] = $this->world->drive->turns($this->world->store->peek(), $pad);
        }
        $this->world->move('radio:sticks', 'roll=0.8');
        $this->pace->wait(0.2);
        $this->guard();
        $turning = array_column($this->world->drive->turning($this->world->store->peek()), 'direction', 'place');
        self::assertEqualsCanonicalizing(['front_right', 'rear_right'], array_keys($turning));
        foreach ($turning as $place => $direction) {
            self::assertSame(-$ordinary[$place], $direction, $place);
        }
    }

    private function flick(): void
    {
        $this->world->move('radio:lever.A', '2');
        $this->pace->wait(0.3);
    }

    private function guard(): GuardReading
    {
        return $this->client()->radio(0)->guard;
    }

    /** @return list<Bar> */
    private function bars(): array
    {
        return Bar::in($this->guard()->bars);
    }

    /** @return array<string, Bar> */
    private function named(): array
    {
        return array_column($this->bars(), null, 'name');
    }
}
