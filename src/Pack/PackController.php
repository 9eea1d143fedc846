<?php

declare(strict_types=1);

namespace Ortholex\App\Pack;

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
use Ortholex\App\Words\Words;
use Ortholex\Core\Pack\CurrentScale;
use Ortholex\Core\Pack\Divider;
use Ortholex\Core\Pack\PackError;
use Ortholex\Core\Proof\Proved;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 33: the voltage held against a meter, levels on the craft's own discharge, and the cards of its packs. */
#[AsController]
final class PackController extends SheetController
{
    private const FIELDS = [
        'pack.cells',
        'pack.warn_cell_v',
        'pack.flight_end_cell_v',
        'pack.divider_scale',
        'pack.current_scale_mv_per_a',
    ];

    /** A pack of a craft of this size where nobody named one, Ah. */
    private const USUAL_AH = 1.3;

    private const MOST_AH = 40.0;
    private const MOST_V = 60.0;

    public function __construct(
        private readonly Staging $staging,
        private readonly Fields $fields,
        private readonly Packs $packs,
        private readonly Proofs $proofs,
        private readonly LinkService $links,
        private readonly Benches $benches,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/33', name: 'pack', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $set = $this->staging->preview($craft);
        $cells = $set->whole('pack.cells', 1);
        $cards = $this->packs->of($craft);
        $flights = [];
        foreach ($cards as $card) {
            $flights[$card->id] = $this->packs->flights($craft, $card);
        }
        $first = [(float) $request->query->getString('meter'), (float) $request->query->getString('reported')];

        return $this->show($craft, '33', 'Pack/pack.html.twig', new PackView(
            $craft->isKnown(),
            $this->links->isLinked($craft),
            $craft->settings,
            $this->staging->of($craft),
            $set,
            $this->fields->of($craft, self::FIELDS),
            $this->reported($craft),
            $this->packs->discharge($craft, $cells, $this->packs->inUse($craft)->ah ?? self::USUAL_AH),
            $this->packs->wrongSource($craft, $cells),
            $cards,
            $flights,
            $this->proofs->of($craft)[Proved::Voltage->value] ?? null,
            $first[0] > 1 && $first[1] > 1 ? $first : null,
            $this->packs->counted($craft, $cells),
            $this->words,
        ));
    }

    /** The scale of the divider from what a meter shows; with a first point kept before, from two. */
    #[Route('/craft/{slug}/pack/calibrate', name: 'pack_calibrate', methods: ['POST'])]
    public function calibrate(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $input = Input::of($request);
        $reported = $this->reported($craft) ?? throw BadRequest::at('meter', 'Connect the pack first: the board reports no voltage.');
        $meter = $input->flag('bench')
            ? $this->shown($craft)
            : $input->number('meter', 0.1, self::MOST_V);
        if ($input->flag('first')) {
            return Answer::said('Kept as the first point. Now another voltage: drain the pack, or take another one.')
                ->to(\sprintf('/craft/%s/33?meter=%.3f&reported=%.3f', $slug, $meter, $reported));
        }
        $old = $craft->settings->number('pack.divider_scale', 11);
        try {
            $set = '' !== $input->text('meter_before', 20)
                ? Divider::twoPoints(
                    $old,
                    [$input->number('meter_before', 0.1, self::MOST_V), $input->number('reported_before', 0.1, self::MOST_V)],
                    [$meter, $reported],
                )
                : Divider::onePoint($old, $meter, $reported);
        } catch (PackError $e) {
            throw BadRequest::at('meter', $this->words->ofProblem($e));
        }
        $this->staging->stage($craft, ['pack.divider_scale' => round($set->scale, 2)]);
        $this->proofs->prove($craft, Proved::Voltage, $this->staging->preview($craft), ['meter_v' => $meter, 'reported_v' => $reported]);

        return Answer::said($this->consequence($craft, $set))->to("/craft/$slug/33");
    }

    #[Route('/craft/{slug}/pack/current', name: 'pack_current', methods: ['POST'])]
    public function current(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        try {
            $scale = CurrentScale::of(
                $craft->settings->number('pack.current_scale_mv_per_a', 10),
                $input->number('counted', 0.001, self::MOST_AH),
                $input->number('charged', 0.001, self::MOST_AH),
            );
        } catch (PackError $e) {
            throw BadRequest::at('charged', $this->words->ofProblem($e));
        }
        $this->staging->stage($craft, ['pack.current_scale_mv_per_a' => round($scale, 1)]);

        return Answer::of();
    }

    #[Route('/craft/{slug}/pack/cards', name: 'pack_cards', methods: ['POST'])]
    public function cards(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        match (PackWork::tryFrom($input->text('do', 10))) {
            PackWork::Add => $this->packs->add(
                $craft,
                '' === $input->text('name', 40) ? throw BadRequest::at(
                    'name',
                    'Give the pack a name, such as the one written on it.',
                ) : $input->text('name', 40),
                $input->whole('cells', 1, 12),
                $input->number('ah', 0.05, self::MOST_AH),
            ),
            PackWork::Take => $this->packs->take($craft, $input->whole('pack', 1, 1000)),
            PackWork::Drop => $this->packs->drop($craft, $input->whole('pack', 1, 1000)),
            null => throw BadRequest::at('do', 'A pack is added, taken or put away.'),
        };

        return Answer::of();
    }

    /** What the old scale would have cost. */
    private function consequence(Craft $craft, Divider $set): string
    {
        $cells = $craft->settings->whole('pack.cells', 1);
        $end = $craft->settings->number('pack.flight_end_cell_v', 3.4);
        $true = $set->alarmedAt($end * $cells) / $cells;
        $says = \sprintf(
            'Staged. With the old scale the flight-end alarm would have come at %.2f V a cell instead of %.2f V',
            $true,
            $end,
        );
        $pack = $this->packs->discharge($craft, $cells, $this->packs->inUse($craft)->ah ?? self::USUAL_AH);
        if (null === $pack) {
            return "$says.";
        }
        $seconds = $pack->secondsBetween($true, $end);

        return \sprintf('%s: %.0f s too %s.', $says, abs($seconds), $seconds > 0 ? 'early' : 'late');
    }

    /** What the bench's voltmeter shows, V. */
    private function shown(Craft $craft): float
    {
        return $this->benches->of($craft)->state()->packVolts
            ?? throw BadRequest::at('meter', 'The voltmeter shows nothing: connect the pack.');
    }

    private function reported(Craft $craft): ?float
    {
        $volts = $this->links->state($craft)->batteryV ?? 0.0;

        return $volts > 0.5 ? $volts : null;
    }
}
