<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop\Making;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Parts\PartsCatalogue;
use Ortholex\Core\Parts\Plan\BuildFault;
use Ortholex\Core\Parts\Plan\CraftFigures;

/** A craft about to be put together: what is chosen, and what follows from it. */
final readonly class NewCraftView
{
    /** @param list<BuildFault> $faults that can be chosen */
    public function __construct(
        public PlanForm $form,
        public PartsCatalogue $parts,
        public CraftFigures $figures,
        public Airframe $frame,
        public float $lifts,
        public array $faults,
    ) {
    }

    public static function of(PlanForm $form): self
    {
        $figures = CraftFigures::of($form->plan);

        return new self(
            $form,
            PartsCatalogue::shipped(),
            $figures,
            $form->plan->frame->airframe(),
            $figures->thrustToWeight($form->plan->motors()),
            BuildFault::cases(),
        );
    }
}
