<?php

declare(strict_types=1);

namespace Ortholex\Bench\Board;

use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\State\WorldState;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Radio\Protocol\Telemetry;

/** What the craft's own sensors read, as it would tell its pilot. */
final readonly class Telemeter
{
    /**
     * @param array{float, float, float}                  $attitude deg, as the board believes it
     * @param array{float, float, float, int, float}|null $fix      where it knows itself to be
     */
    public function __construct(
        private CraftPhysics $physics,
        private WorldState $state,
        private array $attitude,
        private ?array $fix = null,
    ) {
    }

    public function now(SettingSet $set): Telemetry
    {
        $s = $this->state;
        $volts = $s->pack ? $this->physics->restVoltage($s->chargeUsed) * $this->physics->dividerFault : 0.0;
        // Scaled as it is set: a divider that is set wrong is told wrong.
        $scale = $set->number('pack.divider_scale', 11.0) / 11.0;

        $battery = [$volts * $scale, $s->pack ? 0.4 : 0.0, 1000 * $this->physics->packAh * $s->chargeUsed];

        return new Telemetry(
            $set->flag('telemetry.battery') ? $battery : null,
            $set->flag('telemetry.position') && $set->flag('location.enabled') ? $this->place() : null,
            $set->flag('telemetry.attitude') ? $this->attitude : null,
        );
    }

    /** @return array{float, float, float, int} nothing known is nought, with no satellites */
    private function place(): array
    {
        return null === $this->fix ? [0.0, 0.0, 0.0, 0] : [$this->fix[0], $this->fix[1], $this->fix[2], $this->fix[3]];
    }
}
