<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio;

use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Craft\SettingSet;

/** A channel's real low, middle and high, and whether it runs backwards; maps pulses to −1..1. */
final readonly class ChannelSpan
{
    /** Shorter than any transmitter makes it: the stick was not pushed all the way, µs. */
    private const SHORT_US = 600.0;

    private function __construct(public float $lowUs, public float $middleUs, public float $highUs, public bool $reversed)
    {
    }

    /** @throws SpanError unless low < middle < high */
    public static function of(float $lowUs, float $middleUs, float $highUs, bool $reversed = false): self
    {
        if ($lowUs >= $middleUs || $middleUs >= $highUs) {
            throw SpanError::notRising($lowUs, $middleUs, $highUs);
        }

        return new self($lowUs, $middleUs, $highUs, $reversed);
    }

    /** @throws SpanError */
    public static function in(SettingSet $set, Channel $stick): self
    {
        $end = static fn (string $part, float $usual): float => $set->number("channel.$stick->value.{$part}_us", $usual);

        return self::of($end('low', 1000), $end('middle', 1500), $end('high', 2000), $set->flag("channel.$stick->value.reversed"));
    }

    public function isShort(): bool
    {
        return $this->highUs - $this->lowUs < self::SHORT_US;
    }

    /** Straight from low through the middle to high, clamped to −1..1; a dead band takes nothing from the ends. */
    public function position(float $pulseUs, float $deadBandUs = 0.0): float
    {
        $away = $pulseUs - $this->middleUs;
        $reach = $away < 0 ? $this->middleUs - $this->lowUs : $this->highUs - $this->middleUs;
        $size = max(0.0, abs($away) - $deadBandUs) / max(1.0, $reach - $deadBandUs);
        $position = min(1.0, $size) * ($away < 0 ? -1 : 1);

        return $this->reversed ? -$position : $position;
    }
}
