<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop\Making;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Crafts;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Words\Words;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Parts\Plan\BuildFault;
use Ortholex\Core\Parts\Plan\CraftFigures;
use Ortholex\Core\Parts\Plan\CraftPlan;
use Ortholex\Core\Parts\Plan\PlanCode;
use Ortholex\Core\Parts\Plan\Soldering;
use Ortholex\Core\Parts\Plan\Workbench;
use Ortholex\Core\Settings\Catalogue;

/** Puts craft into the book, and on the bench where they have parts. */
final readonly class CraftMaker
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Crafts $crafts,
        private Workbench $workbench,
        private Words $words,
    ) {
    }

    /** @throws BadRequest when the parts do not go together, or the name cannot be */
    public function fromParts(PlanForm $form): Craft
    {
        return $this->crafts->making(function () use ($form): Craft {
            $name = $this->demandName($form->name);
            foreach (CraftFigures::of($form->plan)->minded as $fact) {
                if ($fact->code instanceof PlanCode && $fact->code->refuses()) {
                    throw BadRequest::at('name', 'These parts do not make a craft yet: '.$this->words->of($fact));
                }
            }
            $slug = $this->crafts->freeSlug($name);
            $faults = $form->faults();
            $this->workbench->put($slug, $name, $form->plan, $faults, $form->seed);
            $craft = $this->book($slug, $name, $form->plan, [] === $faults ? '' : 'Just assembled; its builder made mistakes.');
            $craft->parts = $form->plan->toArray() + [
                'faults' => array_map(static fn (BuildFault $f): string => $f->value, $faults),
                'seed' => $form->seed,
            ];
            $soldering = Soldering::of($form->plan->board->id, $form->plan->extras);
            // Who makes mistakes has not drawn the wires, either.
            $drawn = ['wires' => $soldering->wires, 'bridged' => $soldering->bridged];
            $craft->wires = ['parts' => $soldering->parts] + ([] === $faults ? $drawn : []);
            $this->keep($craft);

            return $craft;
        });
    }

    /** @throws BadRequest when the name cannot be */
    public function byHand(ByHandForm $form): Craft
    {
        return $this->crafts->making(function () use ($form): Craft {
            $name = $this->demandName($form->name);
            $motors = Airframe::of($form->settings)->motors;
            $kind = \sprintf(
                '%s%s-inch, %d-cell',
                4 === \count($motors) ? '' : 'hexa, ',
                round($form->settings->number('props.diameter_mm') / 25.4, 1),
                $form->settings->number('pack.cells'),
            );
            $story = $form->assumed
                ? 'Known by its logs. Its settings are assumed: as Loam '.Catalogue::CURRENT.' comes, until they are set here.'
                : 'Known by its logs and settings.';
            $craft = new Craft($this->crafts->freeSlug($name), $name, $kind, '', $story, []);
            $craft->byHand = true;
            $craft->firmware = 'Loam';
            $craft->version = Catalogue::CURRENT;
            $craft->settings = $form->settings;
            $this->keep($craft);

            return $craft;
        });
    }

    /** @throws BadRequest when the name cannot be */
    public function copyOf(Craft $of, string $name): Craft
    {
        return $this->crafts->making(function () use ($of, $name): Craft {
            $name = $this->demandName($name);
            $slug = $this->crafts->freeSlug($name);
            $this->workbench->copy($of->slug, $slug);
            $craft = new Craft($slug, $name, $of->kind, $of->purpose, "A copy of {$of->name}.", $of->uses);
            $craft->wires = $of->wires;
            $craft->radio = $of->radio;
            $craft->parts = $of->parts;
            if ($of->byHand) {
                [$craft->byHand, $craft->firmware, $craft->version, $craft->settings] = [true, $of->firmware, $of->version, $of->settings];
            }
            $this->keep($craft);

            return $craft;
        });
    }

    /** @throws BadRequest when nothing is given, or another craft has it */
    public function demandName(string $name, ?Craft $except = null): string
    {
        if ('' === $name) {
            throw BadRequest::at('name', 'The craft needs a name.');
        }
        foreach ([...$this->crafts->all(), ...$this->crafts->away()] as $other) {
            if ($other !== $except && 0 === strcasecmp($other->name, $name)) {
                throw BadRequest::at(
                    'name',
                    "There is a craft “{$other->name}” already".(null === $other->putAwayAt ? '' : ', put away').'. Give it another name.',
                );
            }
        }

        return $name;
    }

    private function book(string $slug, string $name, CraftPlan $plan, string $story): Craft
    {
        $kind = \sprintf('%s%s-inch, %d-cell', 4 === $plan->motors() ? '' : 'hexa, ', $plan->propInches(), $plan->pack->cells);

        return new Craft($slug, $name, $kind, '', '' === $story ? 'Built, never flown.' : $story, []);
    }

    private function keep(Craft $craft): void
    {
        $this->entities->persist($craft);
        $this->entities->flush();
    }
}
