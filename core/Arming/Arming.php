<?php

declare(strict_types=1);

namespace Ortholex\Core\Arming;

use Ortholex\Core\LinkLoss\Stage;

/**
 * The board's own machine: disarmed → armed when the arm action turns on and nothing forbids it; on at power-up never counts;
 * disarming is immediate. By stick: yaw held to its right end at zero throttle for half a second arms, to its left disarms.
 * While the link is lost its plan rules: it stays armed through hold, descent and return, and is disarmed by the cut.
 */
final readonly class Arming
{
    private const STICK_S = 0.5;
    private const STICK_END = 0.9;

    /** Throttle below this share is low. */
    public const LOW = 0.05;

    /**
     * @param bool       $seenOff whether the arm action was off since power came
     * @param float|null $heldS   since when the stick has been held to arm; null when it is not
     */
    private function __construct(public bool $armed, public bool $seenOff, public bool $wasOn, public ?float $heldS)
    {
    }

    public static function atPowerUp(): self
    {
        return new self(false, false, false, null);
    }

    /** In flight, its lever on. */
    public static function aloft(): self
    {
        return new self(true, true, true, null);
    }

    /** @param array<mixed> $kept as toArray() gave it */
    public static function fromArray(array $kept): self
    {
        $held = $kept['held'] ?? null;

        return new self(
            true === ($kept['armed'] ?? false),
            true === ($kept['off'] ?? false),
            true === ($kept['on'] ?? false),
            \is_float($held) || \is_int($held) ? (float) $held : null,
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['armed' => $this->armed, 'off' => $this->seenOff, 'on' => $this->wasOn, 'held' => $this->heldS];
    }

    /**
     * One look at everything.
     *
     * @param bool $on   whether the arm action is on
     * @param int  $bars what else forbids, as a mask of Bar
     */
    public function next(ArmingInput $input, bool $on, int $bars, float $nowS): self
    {
        $heard = 0 === ($bars & (Bar::NoFrames->value | Bar::Failsafe->value));
        if (Stage::Cut === $input->stage || $input->stop) {
            return new self(false, false, $heard ? $on : $this->wasOn, null);
        }
        if ($this->armed && Stage::Heard !== $input->stage) {
            return new self(true, $this->seenOff, $this->wasOn, null);
        }
        if ($input->byStick) {
            return $this->byStick($input, $bars, $nowS);
        }
        // Without frames nothing is seen: what stands on when they come back must go off first.
        $seenOff = $heard ? $this->seenOff || !$on : $this->seenOff && $this->armed;
        $stays = $this->armed && $on && $heard;
        if ($this->armed && !$on && $input->offNeedsLowThrottle && $input->throttle > self::LOW) {
            $stays = true;
        }
        $arms = !$this->armed && $on && !$this->wasOn && $seenOff && 0 === $bars;

        return new self($stays || $arms, $seenOff, $heard ? $on : $this->wasOn, null);
    }

    /** Whether the arm action, on now, waits to be seen off. */
    public function waitsForOff(bool $on): bool
    {
        return $on && !$this->armed && !$this->seenOff;
    }

    private function byStick(ArmingInput $input, int $bars, float $nowS): self
    {
        $low = $input->throttle <= self::LOW;
        $arms = !$this->armed && $low && $input->yaw >= self::STICK_END;
        $disarms = $this->armed && $low && $input->yaw <= -self::STICK_END;
        if (!$arms && !$disarms) {
            return new self($this->armed, true, false, null);
        }
        $since = $this->heldS ?? $nowS;
        if ($nowS - $since < self::STICK_S) {
            return new self($this->armed, true, false, $since);
        }

        return new self($arms ? 0 === $bars : false, true, false, $since);
    }
}
