<?php

declare(strict_types=1);

namespace Ortholex\App\Arming;

use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\CraftInterlocks;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Proof\Proofs;
use Ortholex\App\Settings\Fields;
use Ortholex\App\Settings\Snapshots;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Sticks\Listening;
use Ortholex\App\Words\Words;
use Ortholex\Core\Arming\Chain;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Guard\MotorWork;
use Ortholex\Core\Proof\Proved;
use Ortholex\Core\Proof\ReplacedPart;
use Ortholex\Core\Switches\Action;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 31: the chain from transmitter to props, arming tried on the bench, the go card, and what a repair opens again. */
#[AsController]
final class ArmingController extends SheetController
{
    private const FIELDS = [
        'interlock.if_tilted',
        'interlock.most_tilt_deg',
        'interlock.if_level_unknown',
        'interlock.if_overloaded',
        'interlock.if_pack_low',
        'interlock.if_no_fix',
        'disarm.upside_down_s',
        'disarm.still_s',
        'disarm.unasked_turn_s',
        'arming.off_needs_low_throttle',
    ];

    public function __construct(
        private readonly Listening $listening,
        private readonly LinkService $links,
        private readonly Benches $benches,
        private readonly CraftInterlocks $interlocks,
        private readonly Proofs $proofs,
        private readonly Snapshots $snapshots,
        private readonly Staging $staging,
        private readonly Fields $fields,
        private readonly GoCard $card,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/31', name: 'interlocks', methods: ['GET'])]
    public function sheet(string $slug): Response
    {
        $craft = $this->crafts->named($slug);

        return $this->show($craft, '31', 'Arming/arming.html.twig', $this->view($craft));
    }

    #[Route('/craft/{slug}/interlocks/now.json', name: 'interlocks_now', methods: ['GET'])]
    public function now(string $slug): JsonResponse
    {
        $view = $this->view($this->crafts->named($slug));

        return new JsonResponse(['mark' => $view->mark(), 'armed' => $view->chain->armed, 'says' => $view->answer()]);
    }

    /** Lets it arm with its cable in, for ten seconds; refused unless the props are declared off. */
    #[Route('/craft/{slug}/interlocks/arm', name: 'interlocks_arm', methods: ['POST'])]
    public function arm(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        if (Input::of($request)->flag('stop')) {
            $this->benches->client($craft)->rehearse(false);

            return Answer::said('Disarmed, and the cable forbids it again.');
        }
        $this->interlocks->of($craft)->demandPropsOff(MotorWork::Spin);
        $this->benches->client($craft)->rehearse(true);

        return Answer::said('For ten seconds it may arm here: flick its lever off and on.');
    }

    /** A part was replaced: what rested on it is to be proved again. */
    #[Route('/craft/{slug}/interlocks/repair', name: 'interlocks_repair', methods: ['POST'])]
    public function repair(string $slug, Request $request): Answer
    {
        $part = ReplacedPart::tryFrom(Input::of($request)->text('part', 30))
            ?? throw BadRequest::at('part', 'Say which part was replaced.');
        $opened = $this->proofs->undo($this->crafts->named($slug), $part);

        return Answer::said(
            'To be checked again: '.implode(', ', array_map(fn (Proved $w): string => $this->words->name($w->called()), $opened)).'.',
        );
    }

    /** What no sheet can tell, said by the builder. */
    #[Route('/craft/{slug}/interlocks/said', name: 'interlocks_said', methods: ['POST'])]
    public function said(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $what = Proved::tryFrom(Input::of($request)->text('what', 30));
        if (null === $what || !$what->isSaid()) {
            throw BadRequest::at('what', 'This is proved on its own sheet, not by saying so.');
        }
        $this->proofs->prove($craft, $what, $craft->settings);

        return Answer::of();
    }

    #[Route('/craft/{slug}/interlocks/tick', name: 'interlocks_tick', methods: ['POST'])]
    public function tick(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $input->flag('anew') ? $this->card->anew($craft) : $this->card->tick($craft, $input->text('item', 20), $input->flag('done'));

        return Answer::of();
    }

    private function view(Craft $craft): ArmingView
    {
        $guard = $this->listening->now($craft)?->guard;
        $set = $this->staging->preview($craft);
        $staged = $this->staging->of($craft);
        $proofs = $this->proofs->of($craft);
        $chain = Chain::of($guard, $craft->settings, $set, $proofs, null !== $this->snapshots->newest($craft), \count($staged));
        $open = $this->interlocks->of($craft)->open();

        return new ArmingView(
            $craft->isKnown(),
            $this->links->isLinked($craft),
            $chain,
            $guard?->stopped,
            $this->words,
            $staged,
            $set,
            $this->fields->of($craft, self::FIELDS),
            $this->card->of($craft, $chain, $craft->settings),
            $proofs,
            [] === $open,
            [] === $open ? '' : $this->words->of($open[0]),
            $this->righting($craft, $set),
        );
    }

    /** @return array<string, string> what self-righting needs: what it is, and what stands against it; '' where it is there */
    private function righting(Craft $craft, SettingSet $set): array
    {
        $need = Action::SelfRight->missing($set, $craft->sensors);

        return [
            'a digital signal to the ESCs, so that motors can turn backwards' => null === $need ? '' : $this->words->of($need),
            'a lever that turns it on' => '' === $set->text(Action::SelfRight->setting()) ? 'not mapped yet' : '',
        ];
    }
}
