<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Radio;

use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Radio\ChannelSpan;
use Ortholex\Core\Radio\Span\ChannelOrder;
use Ortholex\Core\Radio\Span\MovedStick;
use Ortholex\Core\Radio\Span\OrderCode;
use Ortholex\Core\Radio\Span\SpanCapture;
use Ortholex\Core\Radio\Span\StickHistory;
use Ortholex\Core\Radio\Span\TransmitterCure;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** Spans learned from sticks that are moved as hands move them: with spikes, brief touches, drift, and tremble. */
final class SpanCaptureTest extends TestCase
{
    public function testThreeHundredHistoriesAreLearnedWithinTwoMicroseconds(): void
    {
        $worst = 0.0;
        for ($seed = 1; $seed <= 300; ++$seed) {
            $dice = new Lcg(104_729 * $seed);
            $still = $dice->whole(1, 4);
            [$history, $truth] = $this->moved($dice, $still);
            $found = SpanCapture::of($history)->channels;
            foreach ($truth as $number => [$low, $middle, $high, $tremble]) {
                $one = $found[$number];
                if ($number === $still) {
                    self::assertFalse($one->moved, "case $seed: channel $number was not moved");
                    self::assertNull($one->lowUs);
                    continue;
                }
                self::assertTrue($one->moved, "case $seed, channel $number");
                foreach (['low' => [$low, $one->lowUs], 'high' => [$high, $one->highUs]] as $which => [$true, $learned]) {
                    self::assertNotNull($learned);
                    $worst = max($worst, abs($learned - $true));
                    self::assertEqualsWithDelta($true, $learned, 2.0, "case $seed, channel $number, $which, tremble $tremble");
                }
                if (3 === $number) {
                    self::assertNull($one->middleUs, "case $seed: a throttle rests nowhere in between");
                } else {
                    self::assertNotNull($one->middleUs);
                    $worst = max($worst, abs($one->middleUs - $middle));
                    self::assertEqualsWithDelta($middle, $one->middleUs, 2.0, "case $seed, channel $number, middle");
                    self::assertLessThan(4.5 * $tremble + 1.5, $one->jitterUs, "case $seed: a spike is no jitter");
                }
            }
        }
        self::assertGreaterThan(0.3, $worst, 'they are not all easy');
    }

    public function testASpikeIsNoEndAndABriefTouchIsOne(): void
    {
        $us = [];
        $at = static function (float $value, int $frames) use (&$us): void {
            array_push($us, ...array_fill(0, $frames, $value));
        };
        $at(1500, 60);
        $at(2300, 2);
        $at(1500, 60);
        $at(1080, 9);
        $at(1500, 60);
        $at(1920, 9);
        $at(1500, 60);
        $at(700, 1);
        $at(1500, 60);
        $times = array_map(static fn (int $i): float => $i / 100, array_keys($us));
        $one = SpanCapture::of(new StickHistory($times, [1 => $us]))->channels[1];
        self::assertSame([1080.0, 1500.0, 1920.0], [$one->lowUs, $one->middleUs, $one->highUs]);
        self::assertSame(0.0, $one->jitterUs);
    }

    public function testAllTwentyFourOrdersAreFoundWithTheirReversals(): void
    {
        $orders = 0;
        $dice = new Lcg(17);
        foreach (self::permutations([1, 2, 3, 4]) as $numbers) {
            $moved = [];
            $backwards = [];
            foreach (Channel::cases() as $i => $stick) {
                $backwards[$stick->value] = 1 === $dice->whole(0, 1);
                $moved[] = MovedStick::of($stick, $this->pushed($numbers[$i], $backwards[$stick->value], $dice));
            }
            $order = ChannelOrder::of($moved);
            self::assertNull($order->clash);
            self::assertSame(array_combine(array_column(Channel::cases(), 'value'), $numbers), $order->numbers);
            self::assertSame($backwards, $order->reversed);
            self::assertGreaterThan(3.0, $moved[0]->margin);
            ++$orders;
        }
        self::assertSame(24, $orders);
    }

    public function testWhatClashesIsNamed(): void
    {
        $dice = new Lcg(4);
        $roll = MovedStick::of(Channel::Roll, $this->pushed(2, false, $dice));
        $same = ChannelOrder::of([$roll, MovedStick::of(Channel::Pitch, $this->pushed(2, true, $dice))]);
        self::assertTrue($same->clash?->is(OrderCode::SameChannel));
        self::assertSame(['stick' => 'pitch', 'other' => 'roll', 'number' => 2], $same->clash->figures);
        self::assertSame([], $same->settings());
        $still = MovedStick::of(Channel::Yaw, $this->pushed(0, false, $dice));
        self::assertNull($still->number);
        self::assertTrue(ChannelOrder::of([$still])->clash?->is(OrderCode::NothingMoved));
        self::assertTrue(ChannelOrder::of([$roll])->clash?->is(OrderCode::NotShown));
        $both = $this->pushed(1, false, $dice);
        $two = new StickHistory($both->timesS, [1 => $both->channels[1], 2 => $both->channels[1]] + $both->channels);
        self::assertTrue(ChannelOrder::of([MovedStick::of(Channel::Roll, $two)])->clash?->is(OrderCode::TwoMoved));
    }

    public function testWhatIsDialledInTheTransmitterMakesTheSpanNominal(): void
    {
        $dice = new Lcg(21);
        for ($n = 0; $n < 100; ++$n) {
            [$trim, $low, $high] = [$dice->whole(-30, 30), $dice->whole(80, 110), $dice->whole(80, 110)];
            $us = static fn (float $stick, float $t, float $l, float $h): float => 1500 + $t + 5 * $stick * ($stick < 0 ? $l : $h);
            $seen = ChannelSpan::of($us(-1, $trim, $low, $high), 1500 + $trim, $us(1, $trim, $low, $high));
            $cure = TransmitterCure::of($seen);
            if (null === $cure) {
                self::assertTrue(abs($trim) < 3 && abs($low - 100) < 1 && abs($high - 100) < 1);
                continue;
            }
            $dialled = [$trim + $cure->trimUs, $low * $cure->lowFactor, $high * $cure->highFactor];
            self::assertEqualsWithDelta(1000, $us(-1, ...$dialled), 1e-6);
            self::assertEqualsWithDelta(2000, $us(1, ...$dialled), 1e-6);
            self::assertEqualsWithDelta(1500, $us(0, ...$dialled), 1e-6);
        }
    }

    /** @return array{StickHistory, array<int, array{float, float, float, float}>} history, and by channel low, middle, high and tremble */
    private function moved(Lcg $dice, int $still): array
    {
        $hz = [50, 71, 100, 150][$dice->whole(0, 3)];
        $truth = $channels = [];
        $seconds = 14.0;
        for ($number = 1; $number <= 4; ++$number) {
            $low = 1000.0 + $dice->whole(0, 160);
            $high = 1800.0 + $dice->whole(0, 220);
            $middle = 1470.0 + $dice->whole(0, 60);
            // A worn pot trembles; the least are as quiet as their steps.
            $tremble = 0.1 * $dice->whole(0, 28);
            $truth[$number] = [$low, $middle, $high, $tremble];
            $channels[$number] = $this->history($dice, $hz, $seconds, $truth[$number], 3 === $number, $number === $still);
        }
        $times = [];
        foreach ($channels[1] as $i => $ignored) {
            $times[] = $i / $hz;
        }

        return [new StickHistory($times, $channels), $truth];
    }

    /**
     * @param array{float, float, float, float} $truth low, middle, high and tremble
     *
     * @return list<float>
     */
    private function history(Lcg $d, float $hz, float $seconds, array $truth, bool $throttle, bool $still): array
    {
        [$low, $middle, $high, $tremble] = $truth;
        $rest = $throttle ? $low : $middle;
        $plan = [[0.0, $rest, 0.01]];
        $t = 0.8 + 0.5 * ($d->next() + 0.5);
        $first = $d->whole(0, 1);
        for ($k = 0; !$still && $t < $seconds - 2.5; ++$k) {
            $to = ($k + $first) % 2 ? $high : $low;
            // The last two moves reach the ends; others may stop short, or touch them only for a tenth of a second.
            $short = $k > 3 && 0 === $d->whole(0, 3) ? 0.7 : 1.0;
            $plan[] = [$t, $rest + ($to - $rest) * $short, 0.08 + 0.3 * ($d->next() + 0.5)];
            $stay = 0.1 + 0.5 * ($d->next() + 0.5) ** 2;
            $t += $plan[\count($plan) - 1][2] + $stay;
            $plan[] = [$t, $rest, 0.1];
            $t += 0.1 + 0.35 + 0.4 * ($d->next() + 0.5);
        }
        $us = [];
        $drift = 1.2 * $d->next();
        $from = $at = $rest;
        $move = $plan[0];
        for ($i = 0, $next = 1, $n = (int) ($seconds * $hz); $i < $n; ++$i) {
            $now = $i / $hz;
            while (isset($plan[$next]) && $now >= $plan[$next][0]) {
                $from = $at;
                $move = $plan[$next++];
            }
            $s = max(0.0, min(1.0, ($now - $move[0]) / $move[2]));
            $at = $from + ($move[1] - $from) * $s ** 3 * (10 + $s * (6 * $s - 15));
            $value = $at + $drift * ($now / $seconds - 0.5) * 2 + $tremble * $d->normal();
            if (0 === $d->whole(0, 400)) {
                $value += 600 * $d->next();
            }
            $us[] = round($value / 0.625) * 0.625;
        }

        return $us;
    }

    /** One channel pushed up, right or forward and let go, the others at rest but for what a hand moves with it. */
    private function pushed(int $number, bool $backwards, Lcg $dice): StickHistory
    {
        $channels = $times = [];
        for ($i = 0; $i < 300; ++$i) {
            $times[] = $i / 150;
            $push = $i > 60 && $i < 200 ? sin(\M_PI * ($i - 60) / 140) : 0.0;
            foreach ([1, 2, 3, 4] as $one) {
                $share = $one === $number ? 430 * ($backwards ? -1 : 1) : ($number > 0 ? 25 : 0);
                $channels[$one][] = 1500 + 2 * $dice->normal() + $share * $push;
            }
        }

        return new StickHistory($times, $channels);
    }

    /**
     * @param list<int> $of
     *
     * @return iterable<list<int>>
     */
    private static function permutations(array $of): iterable
    {
        if ([] === $of) {
            yield [];
        }
        foreach ($of as $i => $first) {
            $rest = $of;
            unset($rest[$i]);
            foreach (self::permutations(array_values($rest)) as $others) {
                yield [$first, ...$others];
            }
        }
    }
}
