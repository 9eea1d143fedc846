<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

/** How long one motor signal takes, and which loop rates it leaves room for. */
final readonly class SignalTiming
{
    /** Share of the control period kept free against jitter. */
    private const MARGIN = 0.05;

    private const RATES = [8000, 4000, 2000, 1000, 500, 250];

    private function __construct(public float $frameUs, public bool $digital)
    {
    }

    /**
     * Longest frame of a protocol: PWM 2000 µs, OneShot125 250 µs, DShot 16 bits at its rate; with rpm feedback 30 µs
     * of turn-round and the reply of 21 bits at 5/4 the rate.
     *
     * @throws \InvalidArgumentException for a protocol there is not, or feedback on an analogue one
     */
    public static function of(string $protocol, bool $rpmFeedback): self
    {
        $kilobits = ['dshot150' => 150, 'dshot300' => 300, 'dshot600' => 600][$protocol] ?? null;
        if (null !== $kilobits) {
            return new self(16e3 / $kilobits + ($rpmFeedback ? 30 + 21e3 / (1.25 * $kilobits) : 0), true);
        }
        $us =
            ['pwm' => 2000.0, 'oneshot125' => 250.0][$protocol] ??
            throw new \InvalidArgumentException("There is no motor signal “{$protocol}”.");
        if ($rpmFeedback) {
            throw new \InvalidArgumentException("An ESC cannot answer on the analogue signal $protocol; rpm feedback needs DShot.");
        }

        return new self($us, false);
    }

    public function fits(float $loopHz): bool
    {
        return $this->frameUs <= ((1 - self::MARGIN) * 1e6) / $loopHz;
    }

    /** The highest loop rate, of those a board offers, that this signal fits into; Hz. */
    public function highestLoopHz(): int
    {
        foreach (self::RATES as $rate) {
            if ($this->fits($rate)) {
                return $rate;
            }
        }

        return self::RATES[\count(self::RATES) - 1];
    }
}
