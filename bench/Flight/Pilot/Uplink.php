<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Pilot;

use Ortholex\Bench\Flight\Surroundings\Motion;
use Ortholex\Bench\Radio\Air;
use Ortholex\Bench\Radio\Road;
use Ortholex\Core\LinkLoss\Manner;

/** From the pilot's thumbs to the frames that a board hears in flight, also when the transmitter is off: then by the receiver's manner. */
final class Uplink
{
    /** From switching on to arming, and from touching down to disarming, s. */
    private const PAUSE_S = 0.8;

    public ?float $offS = null;
    private ?float $landedS = null;

    /** @var array<int, float> */
    private array $last = [];

    public function __construct(
        private readonly Pilot $pilot,
        private readonly Levers $levers,
        private readonly Road $road,
        private readonly ?SwitchOff $off,
        private readonly bool $byStick,
        private readonly bool $aloft,
    ) {
    }

    /**
     * The frame of this moment.
     *
     * @return array{array<int, float>, bool}|null channels by number, and whether it is good; null where none comes
     */
    public function frame(float $t, Motion $craft): ?array
    {
        if (null === $this->offS && (true === $this->off?->isDue($t, $craft))) {
            $this->offS = $t;
        }
        if (null !== $this->offS) {
            return $this->gone($t - $this->offS);
        }
        [$roll, $pitch, $yaw, $output] = $this->pilot->thumbs($t, $craft);
        if ($this->pilot->isDone($t, $craft)) {
            $this->landedS ??= $t;
        }
        $disarms = null !== $this->landedS && $t - $this->landedS > self::PAUSE_S;
        $controls = ($t < self::PAUSE_S && !$this->aloft) || $disarms ? $this->levers->disarmed : $this->levers->armed;
        if ($this->byStick && ($disarms || (!$this->aloft && $t > self::PAUSE_S && $t < 2 * self::PAUSE_S))) {
            [$roll, $pitch, $yaw, $output] = [0.0, 0.0, $disarms ? -1.0 : 1.0, 0.0];
        }
        [$controls[0], $controls[1], $controls[3]] = [$roll, $pitch, $yaw];
        $controls[2] = 2 * $this->road->stick($output) - 1;
        $this->last = $this->road->channels(array_values($controls));

        return [$this->last, true];
    }

    /** @return array{array<int, float>, bool}|null */
    private function gone(float $since): ?array
    {
        $manner = $this->road->manner();
        if ($since < Air::GONE_S) {
            return Manner::Stops === $manner ? null : [$this->last, false];
        }

        return match ($manner) {
            Manner::Stops => null,
            Manner::Flags => [$this->last, false],
            Manner::Repeats => [$this->last, true],
            Manner::Presets => [$this->road->presets(), true],
        };
    }
}
