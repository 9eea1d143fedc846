<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop\Keeping;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Crafts;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\Input;
use Ortholex\App\Work\CraftLocks;
use Ortholex\App\Workshop\Making\CraftMaker;
use Ortholex\App\Workshop\Making\PlanForm;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** A craft of the Workshop is renamed, copied, put away and brought back. */
#[AsController]
final readonly class KeepingController
{
    public function __construct(
        private Crafts $crafts,
        private CraftMaker $maker,
        private CraftLocks $locks,
        private EntityManagerInterface $entities,
        private UrlGeneratorInterface $urls,
    ) {
    }

    #[Route('/craft/{slug}/rename', name: 'rename_craft', methods: ['POST'])]
    public function rename(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $was = $craft->name;
        $craft->name = $this->maker->demandName($input->text('name', PlanForm::LONGEST_NAME), $craft);
        $craft->purpose = $input->text('purpose', 120);
        $this->entities->flush();

        return $this->back($was === $craft->name ? "{$craft->name} is described anew." : "{$was} is called {$craft->name} now.");
    }

    #[Route('/craft/{slug}/copy', name: 'copy_craft', methods: ['POST'])]
    public function copy(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $copy = $this->maker->copyOf($craft, Input::of($request)->text('name', PlanForm::LONGEST_NAME));

        return $this->back("{$copy->name} is a copy of {$craft->name}. Link it to read what it holds.");
    }

    #[Route('/craft/{slug}/put-away', name: 'put_craft_away', methods: ['POST'])]
    public function away(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        if (!$this->locks->hold($craft)) {
            throw new ConflictHttpException("Work on {$craft->name} is under way. Wait for its end, and put it away then.");
        }
        try {
            $craft->putAwayAt = new \DateTimeImmutable();
            $this->entities->flush();
        } finally {
            $this->locks->release($craft);
        }

        return $this->back("{$craft->name} is put away, with all that is known of it. Bring it back under the craft.");
    }

    #[Route('/craft/{slug}/bring-back', name: 'bring_craft_back', methods: ['POST'])]
    public function broughtBack(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $craft->putAwayAt = null;
        $this->entities->flush();

        return $this->back("{$craft->name} is back.");
    }

    private function back(string $said): Answer
    {
        return Answer::said($said)->to($this->urls->generate('workshop'));
    }
}
