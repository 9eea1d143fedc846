<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Recorder;

use Ortholex\App\Book\Crafts;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Work\Jobs;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 51, the recorder: what lies on it is fetched, and then erased. */
#[AsController]
final readonly class RecorderController
{
    public function __construct(
        private Crafts $crafts,
        private Recorders $recorders,
        private LinkService $links,
        private Jobs $jobs,
    ) {
    }

    #[Route('/craft/{slug}/recorder/fetch', name: 'recorder_fetch', methods: ['POST'])]
    public function fetch(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $new = $this->recorders->of($craft)?->new() ?? [];
        if ([] === $new) {
            throw BadRequest::at('recorder', 'Everything on the recorder is in the book already.');
        }
        $n = \count($new);
        $job = $this->jobs->start($craft, 'fetch', 1 === $n ? "Fetch recording $new[0]" : "Fetch $n recordings", ['recordings' => $new]);

        return Answer::of(['job' => $job->id]);
    }

    #[Route('/craft/{slug}/recorder/erase', name: 'recorder_erase', methods: ['POST'])]
    public function erase(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        foreach ($this->jobs->of($craft) as $job) {
            if ($job->isOpen()) {
                throw BadRequest::at('recorder', "“{$job->title}” is under way. Erase when it is done.");
            }
        }
        $new = $this->recorders->of($craft)?->new() ?? [];
        if ([] !== $new && !Input::of($request)->flag('unread')) {
            $lost = 1 === \count($new) ? "Recording $new[0] is" : 'Recordings '.implode(', ', $new).' are';
            throw BadRequest::at('unread', "$lost not in the book. Fetch first, or say that they may be lost.");
        }
        $this->recorders->client($craft)->erase();

        return Answer::said('The recorder erases itself. What was fetched stays in the book.');
    }
}
