<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Position;

use Ortholex\Bench\Flight\Surroundings\Motion;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Homing\HomeCondition;

/** What the firmware knows of where it is, which way it points, and where home is. */
final class Bearings
{
    /** @var array{float, float}|null north and east, m, as it believes */
    public ?array $home = null;

    /** When it last could have found home, s. */
    public float $knewS = -\INF;

    /** @var array{float, float}|null the same, kept when it lands */
    public ?array $lastHome = null;

    private bool $wasArmed = false;

    public function __construct(
        public readonly PositionReceiver $receiver,
        private readonly CompassHeading $compass,
        private readonly SettingSet $set,
    ) {
    }

    /** @param float $pct mean output of the motors */
    public function look(float $t, float $dt, Motion $craft, float $pct, bool $armed): void
    {
        $this->receiver->look($t, $dt, $craft->at, $craft->speed);
        $this->compass->look($t, $craft->lean(), $pct);
        // Home is where it knows itself to be when it is armed; if it does not know yet, where it is when it does.
        if ($armed && null === $this->home && $this->isReady()) {
            $this->home = $this->receiver->at;
        }
        $this->lastHome = $this->home ?? $this->lastHome;
        if (!$armed && $this->wasArmed) {
            $this->home = null;
        }
        $this->wasArmed = $armed;
        $this->knewS = null !== $this->home && null !== $this->at() ? $t : $this->knewS;
    }

    /** Whether home could be set now. */
    public function isReady(): bool
    {
        $sky = $this->receiver->sky;

        return null !== $this->receiver->at && [] === HomeCondition::unmet($this->set, 3, $sky->satellites, $sky->hdop);
    }

    /** @return array{float, float}|null where it is, if it also knows which way it points */
    public function at(): ?array
    {
        return null === $this->compass->deg ? null : $this->receiver->at;
    }

    public function headingDeg(): float
    {
        return $this->compass->deg ?? 0.0;
    }
}
