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
     * @throws NoAnswerOnPulses for feedback on an analogue one
     */
    public static function of(MotorSignal $signal, bool $rpmFeedback): self
    {
        $kilobits = $signal->kilobits();
        if (null !== $kilobits) {
            return new self(16e3 / $kilobits + ($rpmFeedback ? 30 + 21e3 / (1.25 * $kilobits) : 0), true);
        }
        if ($rpmFeedback) {
            throw new NoAnswerOnPulses($signal);
        }

        return new self(MotorSignal::Pwm === $signal ? 2000.0 : 250.0, false);
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
