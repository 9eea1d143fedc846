<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Tray;

use Ortholex\App\Book\Crafts;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Commit;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Settings\Writing;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\Core\World\Thing;
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
        private Writing $writing,
        private TrayBuilder $trays,
        private Benches $benches,
        private LinkService $links,
    ) {
    }

    #[Route('/craft/{slug}/stage', name: 'stage', methods: ['POST'])]
    public function stage(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $values = $input->map('values');
        $this->staging->stage($craft, $values);
        $staged = $this->staging->of($craft);
        $rounded = [];
        foreach ($values as $name => $typed) {
            $kept = $staged[$name] ?? $craft->settings[$name] ?? null;
            if (\is_string($typed) && \is_float($kept) && is_numeric($typed) && abs($kept - (float) $typed) > 1e-9) {
                $rounded[] = "$name goes in steps: $typed became $kept.";
            }
        }

        return Answer::of(['staged' => $staged] + ([] === $rounded ? [] : ['said' => implode(' ', $rounded)]));
    }

    #[Route('/craft/{slug}/discard', name: 'discard', methods: ['POST'])]
    public function discard(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $name = $input->text('name');
        $this->staging->discard($craft, '' === $name ? null : [$name]);

        return Answer::of(['staged' => $this->staging->of($craft)]);
    }

    #[Route('/craft/{slug}/commit', name: 'commit', methods: ['POST'])]
    public function commit(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $warnings = $input->flag('knowing') ? [] : $this->trays->warnings($craft);
        if ([] !== $warnings) {
            throw BadRequest::at('knowing', $warnings[0]->words.' Say in the tray that you have read this, and commit again.');
        }

        return self::done($this->commit->run($craft, $input->text('reason', 500)), $craft->byHand);
    }

    /** What was interrupted is gone on with. */
    #[Route('/craft/{slug}/commit/go-on', name: 'commit_go_on', methods: ['POST'])]
    public function goOn(string $slug): Answer
    {
        return self::done($this->writing->goOn($this->crafts->named($slug)));
    }

    /** What was interrupted is taken back. */
    #[Route('/craft/{slug}/commit/take-back', name: 'commit_take_back', methods: ['POST'])]
    public function takeBack(string $slug): Answer
    {
        $entry = $this->writing->takeBack($this->crafts->named($slug));

        return Answer::of(['revision' => $entry->revision, 'said' => 'It was taken back: the craft holds what it held before.']);
    }

    /** The cable is plugged in and the craft is linked, and what was interrupted is gone on with: where the person is, in one action. */
    #[Route('/craft/{slug}/commit/resume', name: 'commit_resume', methods: ['POST'])]
    public function resume(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $bench = $this->benches->of($craft);
        if (!$bench->state()->cable) {
            $bench->move(Thing::Cable->value, '1');
        }
        $before = $this->writing->interrupted($craft)?->journal;
        $linked = $this->links->link($craft);
        if (null !== $this->writing->interrupted($craft)) {
            return self::done($this->writing->goOn($craft));
        }
        // Nothing of it had come to the craft: then all of it is still staged, and going on is to write it from the beginning.
        $staged = $this->staging->of($craft);
        if (null !== $before && !$staged->isEmpty() && $staged->toArray() == $before->wanted()->toArray()) {
            return self::done($this->commit->run($craft, $before->reason, byItself: true));
        }

        return Answer::said(implode(' ', ['Linked.', ...$linked->said]));
    }

    private static function done(ChangeEntry $entry, bool $byHand = false): Answer
    {
        return Answer::of([
            'revision' => $entry->revision,
            'said' => \count($entry->items).
                (1 === \count($entry->items) ? ' change is' : ' changes are').
                ($byHand ? ' taken as set, as revision ' : ' on the craft, as revision ').
                $entry->revision.
                '.',
        ]);
    }
}
