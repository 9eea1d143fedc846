<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\Escs;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\Airframes;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Words\Words;
use Ortholex\Core\Settings\EscTable;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 16: what all ESCs have in common, and what departs from it at each place. */
#[AsController]
final class EscController extends SheetController
{
    public function __construct(
        private readonly Escs $escs,
        private readonly LinkService $links,
        private readonly Airframes $frames,
        private readonly Staging $staging,
        private readonly Benches $benches,
        private readonly EntityManagerInterface $entities,
        private readonly Words $words,
        private readonly EscOrders $orders,
    ) {
    }

    #[Route('/craft/{slug}/16', name: 'escs', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);

        return $this->show(
            $craft,
            '16',
            'Esc/escs.html.twig',
            EscView::of(
                $craft,
                $this->frames->of($craft),
                $this->staging->base($craft),
                $this->staging->of($craft),
                $this->links->isLinked($craft),
                $this->escs->isRead($craft),
                $this->benches->of($craft)->state()->pack,
                $request->query->getString('setting'),
                $this->words,
                $this->orders->open($craft),
            ),
        );
    }

    /** The builder has looked at what a flash left. */
    #[Route('/craft/{slug}/escs/looked', name: 'escs_looked', methods: ['POST'])]
    public function looked(string $slug): Answer
    {
        $this->crafts->named($slug)->redone('esc_settings');
        $this->entities->flush();

        return Answer::of();
    }

    /** Hardware that differs cannot be written over: it is accepted once, with a note. */
    #[Route('/craft/{slug}/escs/accept', name: 'escs_accept', methods: ['POST'])]
    public function accept(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $note = Input::of($request)->text('note', 300);
        if ('' === $note) {
            throw BadRequest::at('note', 'Say in a few words why it may stay so: you will read it again some day.');
        }
        $craft->accepted[EscView::HARDWARE] = ['of' => EscView::hardware($craft, $this->words), 'note' => $note];
        $this->entities->flush();

        return Answer::said('Accepted; it is no longer counted as a difference.');
    }

    #[Route('/craft/{slug}/escs/read', name: 'escs_read', methods: ['POST'])]
    public function read(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $said = $this->links->readEscs($craft);
        $answered = \count(array_filter(Escs::identities($craft))).' ESCs answered.';

        return Answer::of(['said' => implode(' ', ['' === $craft->escsProblem ? $answered : $craft->escsProblem, ...$said])]);
    }

    /** Stages one value for every ESC that can honour it. */
    #[Route('/craft/{slug}/escs/all', name: 'escs_all', methods: ['POST'])]
    public function all(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $key = $input->text('key', 60);
        if (!isset(EscTable::rows()[$key])) {
            throw BadRequest::at('key', "No ESC has a setting “{$key}”.");
        }
        $values = [];
        foreach (Escs::identities($craft) as $place => $esc) {
            if (null !== $esc && null === EscTable::unable($key, $esc) && isset($craft->settings["esc.$place.$key"])) {
                $values["esc.$place.$key"] = $input->text('value', 60);
            }
        }
        if ([] === $values) {
            throw BadRequest::at('key', 'No ESC that answered can honour this.');
        }
        $this->staging->stage($craft, $values);

        return Answer::of(['staged' => $this->staging->of($craft)]);
    }

    /** Has the board hold one ESC in its bootloader when the pack comes on next. */
    #[Route('/craft/{slug}/escs/catch', name: 'escs_catch', methods: ['POST'])]
    public function catch(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $place = Input::of($request)->text('place', 40);
        $pad = array_search($place, EscTable::pads($craft->settings), true);
        if (false === $pad) {
            throw BadRequest::at('place', "No output drives “{$place}”.");
        }
        $this->benches->client($craft)->catchEsc($pad);

        return Answer::said('The board will catch it. Now take the pack off and on again.');
    }
}
