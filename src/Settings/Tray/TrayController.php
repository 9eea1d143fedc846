<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Tray;

use Ortholex\App\Book\Crafts;
use Ortholex\App\Settings\Commit;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\Input;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final readonly class TrayController
{
    public function __construct(
        private Crafts $crafts,
        private Staging $staging,
        private Commit $commit,
    ) {
    }

    #[Route('/craft/{slug}/stage', name: 'stage', methods: ['POST'])]
    public function stage(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->staging->stage($craft, Input::of($request)->map('values'));

        return Answer::of(['staged' => $this->staging->of($craft)]);
    }

    #[Route('/craft/{slug}/discard', name: 'discard', methods: ['POST'])]
    public function discard(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $name = Input::of($request)->text('name');
        $this->staging->discard($craft, '' === $name ? null : [$name]);

        return Answer::of(['staged' => $this->staging->of($craft)]);
    }

    #[Route('/craft/{slug}/commit', name: 'commit', methods: ['POST'])]
    public function commit(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $entry = $this->commit->run($craft, Input::of($request)->text('reason', 500));

        return Answer::of([
            'revision' => $entry->revision,
            'said' => \count($entry->items).
                (1 === \count($entry->items) ? ' change is' : ' changes are').
                ' on the craft, as revision '.
                $entry->revision.
                '.',
        ]);
    }
}
