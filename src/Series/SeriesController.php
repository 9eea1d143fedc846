<?php

declare(strict_types=1);

namespace Ortholex\App\Series;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\RoadMap\FlightReady;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Series\SeriesError;
use Ortholex\Core\Series\SeriesPlan;
use Ortholex\Core\Series\SeriesResult;
use Ortholex\Core\Settings\Catalogue;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class SeriesController extends SheetController
{
    public function __construct(
        private readonly SeriesBook $book,
        private readonly Catalogue $catalogue,
        private readonly Staging $staging,
        private readonly AnalysisStore $analyses,
        private readonly Jobs $jobs,
        private readonly FlightReady $ready,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/63', name: 'series', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $all = $this->book->all($craft);
        $asked = $request->query->getInt('series');
        $series = array_values(array_filter($all, static fn (Series $s): bool => $s->id === $asked))[0] ?? $all[0] ?? null;
        $axis = Axis::tryFrom($request->query->getString('axis'));
        $looked = null === $series ? [] : $this->book->looked($series);
        $left = null === $series ? [] : $this->book->looked($series, false);
        $remaining = null === $series ? [] : $this->book->remaining($series);
        $result = null === $series ? null : $this->book->result($series);
        $axis ??= true === $series?->plan()->isOfParts() ? $result?->mostTelling() : null;
        $axis ??= (null === $series ? [] : SeriesResult::touched($series->settings))[0] ?? Axis::Roll;

        return $this->show(
            $craft,
            '63',
            'Series/series.html.twig',
            new SeriesView(
                Variable::of($craft->settings),
                $series,
                $remaining,
                $looked,
                $left,
                $result,
                $axis,
                null === $series ? null : $this->catalogue->of($craft->version())[$series->settings[0]] ?? null,
                $this->staging->preview($craft),
                $this->ready->whyNot($craft),
                self::next($series, $remaining),
                null === $series ? [] : $this->book->strays($series),
                $all,
                null === $series ? null : FamilyPlot::of($this->steps($series, $looked, $axis)),
            ),
        );
    }

    #[Route('/craft/{slug}/series', name: 'series_plan', methods: ['POST'])]
    public function plan(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $variable = Variable::of($craft->settings)[$input->text('vary', 40)]
            ?? throw BadRequest::at('vary', 'Choose what is to be varied.');
        $card = Card::tryFrom($input->text('card', 40)) ?? throw BadRequest::at('card', 'Choose a flight card.');
        $checked = [];
        foreach (['from', 'to'] as $end) {
            // Each step must be a value that the setting takes.
            $setting = $this->catalogue->get($variable->settings[0], $craft->version());
            $checked[$end] = (float) $setting->check($input->text($end, 20), $craft->version());
        }
        try {
            $this->book->begin($craft, $variable->settings, $checked['from'], $checked['to'], $input->whole('steps', 2, 9), $card);
        } catch (SeriesError $e) {
            throw BadRequest::at('vary', $this->words->capital($e->fact()).'.');
        }

        return Answer::said('Planned. The baseline is flown first and last, so that drift shows.');
    }

    /** What is replaced, not set: which part, and with what. */
    #[Route('/craft/{slug}/series/parts', name: 'series_parts', methods: ['POST'])]
    public function parts(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $part = $input->text('part', 40);
        if (!\in_array($part, Log::PARTS, true)) {
            throw BadRequest::at('part', 'Choose what is replaced: '.implode(', ', Log::PARTS).'.');
        }
        $card = Card::tryFrom($input->text('card', 40)) ?? throw BadRequest::at('card', 'Choose a flight card.');
        $variants = array_values(array_unique(array_filter(array_map(trim(...), explode(',', $input->text('with', 400))))));
        try {
            $this->book->beginParts($craft, $part, array_map(static fn (string $v): string => mb_substr($v, 0, 60), $variants), $card);
        } catch (SeriesError $e) {
            throw BadRequest::at('with', $this->words->capital($e->fact()).'.');
        }

        return Answer::said('Planned. Fly each once, with the same card and nothing else changed.');
    }

    /** A log that was flown meanwhile is given to a step: one of its own, or the part it was flown with. */
    #[Route('/craft/{slug}/series/count', name: 'series_count', methods: ['POST'])]
    public function count(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $series = $this->demandOpen($craft);
        $input = Input::of($request);
        $id = $input->whole('log', 1, \PHP_INT_MAX);
        $log = array_values(array_filter($this->book->strays($series), static fn (Log $l): bool => $l->id === $id))[0]
            ?? throw BadRequest::at('log', 'That log is not of this series, or it counts already.');
        if ($series->plan()->isOfParts()) {
            $this->book->flownWith($series, $log, $input->whole('variant', 1, \count($series->variants)));
        } elseif (!$log->settings->has($series->settings[0])) {
            throw BadRequest::at('log', "$log->code does not say what it was flown with. Say it on its front (51) first.");
        } elseif (\count($series->steps) >= 2 * SeriesPlan::MOST_STEPS) {
            throw BadRequest::at('log', 'This series has as many steps as a series can have.');
        } else {
            $this->book->count($series, $log);
        }

        return Answer::said("$log->code counts.");
    }

    /** The whole series on the bench, as one job. */
    #[Route('/craft/{slug}/series/fly', name: 'series_fly', methods: ['POST'])]
    public function fly(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $series = $this->demandOpen($craft);
        if ($series->plan()->isOfParts()) {
            throw BadRequest::at('series', 'The bench does not replace parts by itself: mount each, and fly it on 51.');
        }
        $whyNot = $this->ready->whyNot($craft);
        if ('' !== $whyNot) {
            throw BadRequest::at('series', $whyNot);
        }
        if (!$this->staging->of($craft)->isEmpty()) {
            throw BadRequest::at('series', 'Something is staged. Commit or discard it first: a series changes one thing at a time.');
        }
        $n = \count($this->book->remaining($series));
        $job = $this->jobs->start($craft, 'series', "Fly a series, $n flights", ['series' => $series->id]);

        return Answer::of(['job' => $job->id]);
    }

    #[Route('/craft/{slug}/series/end', name: 'series_end', methods: ['POST'])]
    public function end(string $slug): Answer
    {
        $this->book->end($this->demandOpen($this->crafts->named($slug)));

        return Answer::said('The series is over. Its flights stay on 51.');
    }

    #[Route('/craft/{slug}/series/felt', name: 'series_felt', methods: ['POST'])]
    public function felt(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $series = $this->book->newest($craft) ?? throw BadRequest::at('series', 'There is no series.');
        $input = Input::of($request);
        $this->book->feltHot($series, $input->whole('log', 1, \PHP_INT_MAX), $input->flag('hot'));

        return Answer::said($input->flag('hot') ? 'Noted: hot motors. That flight does not count.' : 'Noted: the motors were not hot.');
    }

    private function demandOpen(Craft $craft): Series
    {
        return $this->book->open($craft) ?? throw BadRequest::at('series', 'No series is open. Plan one first.');
    }

    /**
     * @param list<float> $remaining
     *
     * @return array<string, float> settings of the next flight; none of parts
     */
    private static function next(?Series $series, array $remaining): array
    {
        $none = null === $series || [] === $remaining || $series->plan()->isOfParts();

        return $none ? [] : $series->plan()->at($remaining[0], $series->base);
    }

    /**
     * @param list<Log> $looked
     *
     * @return list<array{name: string, value: float, step_ms: float, values: list<float>}>
     */
    private function steps(Series $series, array $looked, Axis $axis): array
    {
        $steps = [];
        foreach ($looked as $log) {
            $chart = $this->analyses->charts($log)->steps[$axis->value] ?? null;
            if (null !== $chart) {
                $steps[] = [
                    'name' => $series->plan()->isOfParts() ? $series->step((float) $this->book->stepOf($series, $log)) : $log->code,
                    'value' => (float) $this->book->stepOf($series, $log),
                    'step_ms' => $chart->stepMs,
                    'values' => $chart->values,
                ];
            }
        }

        return $steps;
    }
}
