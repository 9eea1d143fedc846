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
    /** @param array{float, float, float} $attitude deg, as the board believes it */
    public function __construct(private CraftPhysics $physics, private WorldState $state, private array $attitude)
    {
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
            // Indoors there is no fix, and so no place; outdoors the marsh's own.
            $set->flag('telemetry.position') && $set->flag('location.enabled')
                ? ($s->outdoors ? [52.0813, 1.0147, 3.0, 11] : [0.0, 0.0, 0.0, 0])
                : null,
            $set->flag('telemetry.attitude') ? $this->attitude : null,
        );
    }
}
