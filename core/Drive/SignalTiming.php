<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

/** How long one motor signal takes, and which loop rates it leaves room for. */
final readonly class SignalTiming
{
    /** Share of the control period kept free against jitter. */
    private const MARGIN = 0.05;

    private const RATES = [8000, 4000, 2000, 1000, 500, 250, 100, 50];

    /** Between the last bit and the answer the wire changes direction. */
    private const TURN_ROUND_US = 30.0;

    /**
     * @param float $signalUs     of the signal alone
     * @param float $turnRoundUs  until the answer begins; 0 without one
     * @param float $answerUs     of the answer; 0 without one
     * @param float $frameUs      all of them
     */
    private function __construct(
        public float $signalUs,
        public float $turnRoundUs,
        public float $answerUs,
        public float $frameUs,
        public bool $digital,
    ) {
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
            $bits = 16e3 / $kilobits;
            [$turn, $answer] = $rpmFeedback ? [self::TURN_ROUND_US, 21e3 / (1.25 * $kilobits)] : [0.0, 0.0];

            return new self($bits, $turn, $answer, $bits + $turn + $answer, true);
        }
        if ($rpmFeedback) {
            throw new NoAnswerOnPulses($signal);
        }

        $pulse = MotorSignal::Pwm === $signal ? 2000.0 : 250.0;

        return new self($pulse, 0.0, 0.0, $pulse, false);
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
