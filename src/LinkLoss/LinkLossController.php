<?php

declare(strict_types=1);

namespace Ortholex\App\LinkLoss;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Proof\Proofs;
use Ortholex\App\Settings\Fields;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Sticks\Listening;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\Jobs;
use Ortholex\App\Work\JobState;
use Ortholex\Core\LinkLoss\Rehearsal;
use Ortholex\Core\Proof\Proved;
use Ortholex\Core\Radio\Heard;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 32: the link-loss plan drawn, rehearsed and flown. */
#[AsController]
final class LinkLossController extends SheetController
{
    private const FIELDS = [
        'link_loss.hold_s',
        'link_loss.hold_ms',
        'link_loss.then',
        'link_loss.descend_throttle_pct',
        'link_loss.descend_s',
        'link_loss.throttle_below_us',
    ];

    public function __construct(
        private readonly Staging $staging,
        private readonly Fields $fields,
        private readonly Proofs $proofs,
        private readonly HoverKnown $hover,
        private readonly Listening $listening,
        private readonly LinkService $links,
        private readonly Benches $benches,
        private readonly Jobs $jobs,
        private readonly EntityManagerInterface $entities,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/32', name: 'link_loss', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);

        return $this->show($craft, '32', 'LinkLoss/link_loss.html.twig', new LinkLossView(
            $craft->isKnown(),
            $this->links->isLinked($craft),
            $craft->settings,
            $this->staging->of($craft),
            $this->staging->preview($craft),
            $this->fields->of($craft, self::FIELDS),
            $this->proofs->of($craft)[Proved::Rehearsal->value] ?? null,
            $this->last($craft, 'rehearse'),
            $this->hover->of($craft),
            PathPlot::of($this->last($craft, 'fly_loss')->result ?? []),
            $this->benches->of($craft)->radio(),
            array_values($craft->walk),
            $request->query->getInt('wanted', 300),
            $this->words,
        ));
    }

    /** Switches the transmitter off, and watches. */
    #[Route('/craft/{slug}/link-loss/rehearse', name: 'link_loss_rehearse', methods: ['POST'])]
    public function rehearse(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $now = $this->listening->now($craft);
        if (Heard::Frames !== $now?->heard) {
            throw BadRequest::at('rehearse', 'The receiver is not heard yet: switch the transmitter on, or mend it on 21 Radio.');
        }
        if ([] === array_filter($now->channels(), Rehearsal::isAside(...))) {
            throw BadRequest::at('rehearse', 'First put a lever up or hold a stick aside: else a receiver that repeats cannot be told '.
                'from one that sets its own channels.');
        }
        $job = $this->jobs->start($craft, 'rehearse', 'Rehearse a lost link', []);

        return Answer::of(['job' => $job->id]);
    }

    #[Route('/craft/{slug}/link-loss/fly', name: 'link_loss_fly', methods: ['POST'])]
    public function fly(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $job = $this->jobs->start($craft, 'fly_loss', 'Fly a lost link', [
            'height' => $input->whole('height', 2, 120),
            'wind' => $input->whole('wind', 0, 12),
            'used' => $input->whole('used', 0, 95),
        ]);

        return Answer::of(['job' => $job->id]);
    }

    /** How good the link is where the craft stands now. */
    #[Route('/craft/{slug}/link-loss/walk', name: 'link_loss_walk', methods: ['POST'])]
    public function walk(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        if ($input->flag('anew')) {
            $craft->walk = [];
        } else {
            $metres = $input->number('metres', 1, 5000);
            $this->links->demandLinked($craft);
            $now = $this->listening->now($craft);
            $quality = $now?->link->qualityPct ?? (null === $now || Heard::Frames !== $now->heard ? 0 : 100 * (1 - $now->lostShare));
            $kept = array_values(array_filter($craft->walk, static fn (array $p): bool => $p[0] !== $metres));
            $craft->walk = [...$kept, [$metres, round((float) $quality, 1), (float) ($now?->link->powerMw ?? LinkLossView::FLOWN_MW)]];
        }
        $this->entities->flush();

        return Answer::of();
    }

    private function last(Craft $craft, string $kind): ?Job
    {
        $of = ['craft' => $craft, 'kind' => $kind, 'state' => JobState::Done];

        return $this->entities->getRepository(Job::class)->findOneBy($of, ['id' => 'DESC']);
    }
}
