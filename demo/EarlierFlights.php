<?php

declare(strict_types=1);

namespace Ortholex\Demo;

use Ortholex\Core\LogCheck\Card;

/** What was flown at Wigeon Point before the book is opened: flights alone, and series. */
final readonly class EarlierFlights
{
    /** Flights of a series are short, and logged at half the rate: enough for what they compare. */
    private const SECONDS = 12;

    private const RATE = ['recorder.rate_hz' => '1000'];

    /** @return list<DemoFlight|DemoSeries> in the order flown; none for a craft that never flew */
    public static function of(string $craft): array
    {
        return match ($craft) {
            'curlew' => self::curlew(),
            'bittern' => [
                new DemoFlight(Card::HoverAndClimb, 100, change: self::RATE),
                new DemoFlight(Card::Cruise, 101, 40, 'lost_sync', self::RATE),
                new DemoFlight(Card::Survey, 102, change: self::RATE),
            ],
            default => [],
        };
    }

    /**
     * A tune in progress: an arm was found loose and tightened, the rate path tried lower, and feed-forward flown in steps.
     *
     * @return list<DemoFlight|DemoSeries>
     */
    private static function curlew(): array
    {
        $cutoff = 'rate_path.stage.1.cutoff_hz';
        $forward = ['gain.roll.ff', 'gain.pitch.ff'];
        $step = static fn (int $seed, float $value): DemoFlight => new DemoFlight(
            Card::MixedSticks,
            $seed,
            self::SECONDS,
            change: array_fill_keys($forward, $value) + self::RATE,
        );

        return [
            new DemoFlight(Card::MixedSticks, 100),
            new DemoFlight(Card::HoverAndClimb, 101, change: self::RATE),
            new DemoSeries([], [], 'arm', ['as it was', 'screws tightened'], [
                self::hover(110, 'loose_arm', variant: 'as it was'),
                self::hover(111, variant: 'screws tightened'),
            ]),
            new DemoSeries([$cutoff], [120.0, 180.0], '', [], [
                self::hover(112, change: [$cutoff => 180.0]),
                self::hover(113, change: [$cutoff => 120.0]),
            ]),
            new DemoSeries($forward, [0.0, 1.5, 3.0], '', [], [$step(120, 0.0), $step(121, 1.5), $step(122, 3.0), $step(123, 0.0)]),
        ];
    }

    /** @param array<string, float|int|bool|string> $change */
    private static function hover(int $seed, string $fault = '', array $change = [], string $variant = ''): DemoFlight
    {
        return new DemoFlight(Card::HoverAndClimb, $seed, self::SECONDS, $fault, $change + self::RATE, $variant);
    }
}
