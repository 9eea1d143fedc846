<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight;

use Ortholex\Bench\Flight\Pilot\Itinerary;
use Ortholex\Bench\Flight\Pilot\SwitchOff;
use Ortholex\Bench\Flight\Position\Positioning;
use Ortholex\Bench\Flight\Surroundings\Wind;
use Ortholex\Bench\Radio\Road;
use Ortholex\Core\Switches\Action;

/** A flight in the open world: where to, with which radio, in what wind, and on how full a pack. */
final readonly class Sortie
{
    /**
     * @param float        $fromHeightM  where it begins: on its feet, or hovering at a height
     * @param float        $chargeUsed   share of the pack
     * @param list<Action> $wanted       what the pilot flicks on besides arm, where the levers can
     * @param bool         $overturned   whether it lies on its back when it begins
     * @param array{float, float} $fromM north and east of home, where it begins at a height
     * @param Positioning|null $positioning null without a position receiver that is heard
     * @param bool         $homeIsSet    whether home was set before it began
     */
    public function __construct(
        public Itinerary $plan,
        public Road $road,
        public ?SwitchOff $off = null,
        public ?Wind $wind = null,
        public float $fromHeightM = 0.0,
        public float $chargeUsed = 0.02,
        public array $wanted = [Action::Angle],
        public bool $overturned = false,
        public ?Track $track = null,
        public array $fromM = [0.0, 0.0],
        public ?Positioning $positioning = null,
        public bool $homeIsSet = false,
    ) {
    }
}
