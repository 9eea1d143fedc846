<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Arming;

use Ortholex\Core\Arming\Arming;
use Ortholex\Core\Arming\ArmingInput;
use Ortholex\Core\Arming\Bar;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** The board's machine of arming. */
final class ArmingTest extends TestCase
{
    private const LOW = 0.0;

    public function testItArmsWhenTheActionTurnsOnAndNothingForbids(): void
    {
        $off = Arming::atPowerUp()->next($this->sticks(), false, 0, 1.0);
        self::assertFalse($off->armed);
        $on = $off->next($this->sticks(), true, 0, 1.1);
        self::assertTrue($on->armed);
        self::assertFalse($on->next($this->sticks(0.8), false, 0, 1.2)->armed, 'disarming is immediate, at any throttle');
        self::assertTrue($on->next($this->sticks(0.8, lowOnly: true), false, 0, 1.2)->armed, 'unless it is set to ask for low throttle');
        self::assertFalse($on->next($this->sticks(self::LOW, lowOnly: true), false, 0, 1.2)->armed);
    }

    public function testOnAtPowerUpNeverCounts(): void
    {
        $machine = Arming::atPowerUp();
        for ($i = 0; $i < 50; ++$i) {
            $machine = $machine->next($this->sticks(), true, 0, $i / 10);
            self::assertFalse($machine->armed);
            self::assertTrue($machine->waitsForOff(true));
        }
        self::assertTrue($machine->next($this->sticks(), false, 0, 6.0)->next($this->sticks(), true, 0, 6.1)->armed);
    }

    public function testWhatForbidsForbidsUntilItIsTurnedOffAndOnAgain(): void
    {
        $machine = Arming::atPowerUp()->next($this->sticks(), false, 0, 0.0);
        $refused = $machine->next($this->sticks(), true, Bar::ThrottleHigh->value, 0.1);
        self::assertFalse($refused->armed);
        $later = $refused->next($this->sticks(), true, 0, 0.2);
        self::assertFalse($later->armed, 'lowering the throttle with the lever on does not arm by surprise');
        self::assertTrue($later->next($this->sticks(), false, 0, 0.3)->next($this->sticks(), true, 0, 0.4)->armed);
    }

    public function testALostLinkDisarmsAndItsReturnDoesNotArm(): void
    {
        $armed = Arming::atPowerUp()->next($this->sticks(), false, 0, 0.0)->next($this->sticks(), true, 0, 0.1);
        foreach ([Bar::NoFrames, Bar::Failsafe] as $bar) {
            $lost = $armed->next($this->sticks(), true, $bar->value, 0.2);
            self::assertFalse($lost->armed);
            self::assertFalse($lost->next($this->sticks(), true, 0, 0.3)->armed);
        }
    }

    public function testTheStickArmsAfterHalfASecondAndDisarmsTheOtherWay(): void
    {
        $machine = Arming::atPowerUp();
        foreach ([[0.0, false], [0.3, false], [0.49, false], [0.51, true]] as [$at, $armed]) {
            $machine = $machine->next($this->sticks(yaw: 1.0, byStick: true), false, 0, $at);
            self::assertSame($armed, $machine->armed, "after $at s");
        }
        $machine = $machine->next($this->sticks(0.5, yaw: -1.0, byStick: true), false, 0, 3.0);
        $machine = $machine->next($this->sticks(0.5, yaw: -1.0, byStick: true), false, 0, 4.0);
        self::assertTrue($machine->armed, 'a yaw to the left in flight is no disarming');
        $machine = $machine->next($this->sticks(yaw: -1.0, byStick: true), false, 0, 5.0);
        self::assertFalse($machine->next($this->sticks(yaw: -1.0, byStick: true), false, 0, 5.6)->armed);
    }

    /** Whatever comes: armed only after an off was seen, and never while anything forbids at that moment. */
    public function testNoSequenceArmsWithoutAnOffAndAnOn(): void
    {
        $dice = new Lcg(42);
        $arms = 0;
        for ($n = 0; $n < 500; ++$n) {
            $machine = Arming::atPowerUp();
            $seenOff = $before = false;
            for ($i = 0; $i < 60; ++$i) {
                $on = 1 === $dice->whole(0, 1);
                $bars = 0 === $dice->whole(0, 2) ? Bar::cases()[$dice->whole(0, 6)]->value : 0;
                $heard = 0 === ($bars & (Bar::NoFrames->value | Bar::Failsafe->value));
                $next = Arming::fromArray($machine->next($this->sticks(), $on, $bars, $i / 10)->toArray());
                if ($next->armed && !$machine->armed) {
                    self::assertTrue($on && $seenOff && !$before && 0 === $bars);
                    ++$arms;
                }
                if ($next->armed) {
                    self::assertTrue($on && $heard);
                }
                $seenOff = $heard ? $seenOff || !$on : $next->armed;
                $before = $heard ? $on : $before;
                $machine = $next;
            }
        }
        self::assertGreaterThan(500, $arms);
    }

    private function sticks(float $throttle = self::LOW, float $yaw = 0.0, bool $byStick = false, bool $lowOnly = false): ArmingInput
    {
        return new ArmingInput($yaw, $throttle, $byStick, $lowOnly);
    }
}
