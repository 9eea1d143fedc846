<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Span;

use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Signal\Statistics;

/** Which channel one stick moved, asked to go up, right or forward and to be let go. */
final readonly class MovedStick
{
    /** So much the winner must move, µs, and so many times as much as the next. */
    private const LEAST_US = 120.0;

    private const LEAST_MARGIN = 2.5;

    /**
     * @param int|null $number   of the channel; null when none moved enough, or two moved alike
     * @param bool     $reversed whether it went down when asked up
     * @param float    $margin   its deviation over that of the next
     * @param int|null $rival    the next, where it is too near
     */
    private function __construct(
        public Channel $asked,
        public ?int $number,
        public bool $reversed,
        public float $margin,
        public ?int $rival,
    ) {
    }

    /** One that was found before. */
    public static function known(Channel $asked, int $number, bool $reversed, float $margin): self
    {
        return new self($asked, $number, $reversed, $margin, null);
    }

    public static function of(Channel $asked, StickHistory $history): self
    {
        $deviation = $reach = [];
        foreach ($history->channels as $number => $us) {
            if (\count($us) < 4) {
                continue;
            }
            $d = Dwells::of($us, $history->step());
            $deviation[$number] = Statistics::deviation($d->smooth);
            $from = self::start($d);
            $reach[$number] = [max([$from, ...$d->smooth]) - $from, $from - min([$from, ...$d->smooth])];
        }
        arsort($deviation);
        $order = array_keys($deviation);
        if ([] === $order) {
            return new self($asked, null, false, 0.0, null);
        }
        $first = $order[0];
        [$up, $down] = $reach[$first];
        $next = $order[1] ?? null;
        $margin = $deviation[$first] / max(0.5, null === $next ? 0.0 : $deviation[$next]);
        if (max($up, $down) < self::LEAST_US) {
            return new self($asked, null, false, $margin, null);
        }

        return $margin < self::LEAST_MARGIN
            ? new self($asked, null, false, $margin, $next)
            : new self($asked, $first, $down > $up, $margin, null);
    }

    /** Where it stood before it was moved. */
    private static function start(Dwells $d): float
    {
        return Statistics::median(\array_slice($d->smooth, 0, min(5, \count($d->smooth))));
    }
}
