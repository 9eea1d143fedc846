<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

use Ortholex\App\Book\Craft;
use Ortholex\App\Filters\Drawn\FilterLane;
use Ortholex\App\Filters\Drawn\FilterThings;
use Ortholex\App\Filters\Drawn\Worth;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Report\Chains;
use Ortholex\App\Report\JudgedLog;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Filters\Candidate;
use Ortholex\Core\Filters\WhatIf;
use Ortholex\Core\Filters\WhatIfAxis;
use Ortholex\Core\Report\MapChart;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingError;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class FiltersController extends SheetController
{
    /** What a difference of maps shows at its ends, dB. */
    private const SPAN_DB = 18.0;

    public function __construct(
        private readonly Catalogue $catalogue,
        private readonly Staging $staging,
        private readonly LogBook $book,
        private readonly JudgedLog $judged,
        private readonly Chains $chains,
        private readonly CurrentNames $names,
        private readonly WhatIfs $whatIfs,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/62', name: 'filters', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $log = $this->judged->shown($craft, $request->query->getInt('log'));
        $staged = $this->staging->of($craft);
        $known = $this->catalogue->of($craft->version());
        $things = FilterThings::of($known, $craft->settings, $staged);
        $wanted = $this->staging->preview($craft);
        $tells = null !== $log && [] !== $this->whatIfs->of($craft, $log, $craft->settings)->axes ? $log : null;

        return $this->show(
            $craft,
            '62',
            'Filters/filters.html.twig',
            new FiltersView(
                $things,
                $craft->settings,
                $staged,
                self::ranges($things, $craft),
                $log,
                $this->book->of($craft),
                [] === $things->all && [] === $things->addable ? null : $this->figures($craft, $tells, $wanted),
                $this->beside($craft, $log, $request),
                null === $log ? [] : $this->words->all($this->whatIfs->of($craft, $log, $wanted)->doubts),
                null === $tells ? [] : $this->loops($craft, $tells, $wanted),
                null === $tells ? null : $this->dPick($craft, $tells, $wanted),
                null !== $tells && $request->query->getBoolean('curve') ? $this->curve($craft, $tells, $wanted) : null,
                $request->query->getString('thing'),
                null === $tells ? [] : $this->worths($craft, $tells, $wanted, $things),
            ),
        );
    }

    /** The log's spectra through today's chain and the staged one; with other values in its place while one is dragged. */
    #[Route('/craft/{slug}/filters/response.json', name: 'filters_response', methods: ['GET'])]
    public function response(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $log = $this->judged->shown($craft, $request->query->getInt('log'));
        $wanted = $this->staging->preview($craft)->with($this->tried($craft, $request));
        $differs = $this->differ($craft, $wanted);
        if (null === $log) {
            return new JsonResponse(['axes' => new \stdClass()]);
        }
        $now = $this->whatIfs->of($craft, $log, $craft->settings);
        $then = $differs ? $this->whatIfs->of($craft, $log, $wanted) : null;
        $axes = [];
        foreach ($now->axes as $axis => $one) {
            $axes[$axis] = [
                'step_hz' => $one->measured->stepHz,
                'measured_db' => self::rounded($one->measured->decibels()),
                'now_db' => self::rounded($one->filtered->decibels()),
                'staged_db' => null === $then ? null : self::rounded($then->axes[$axis]->filtered->decibels()),
            ];
        }
        $beside = $this->beside($craft, $log, $request);
        foreach (null === $beside ? [] : $beside->of->axes as $axis => $one) {
            if (isset($axes[$axis])) {
                $axes[$axis] += ['beside_db' => self::rounded($one->filtered->decibels()), 'beside_step_hz' => $one->filtered->stepHz];
            }
        }
        $loops = null === $then ? [] : $this->loops($craft, $log, $wanted);

        return new JsonResponse([
            'axes' => [] === $axes ? new \stdClass() : $axes,
            'beside' => $beside?->log->code,
            'rotor_hz' => $this->whatIfs->rotorHz($craft, $log, $wanted),
            'now' => $this->told($craft, $log, $now),
            'staged' => null === $then ? null : self::left($then) + ['loops' => [] === $loops ? new \stdClass() : $loops],
        ]);
    }

    /** The noise over throttle behind the craft's chain and the staged one, and how they differ. */
    #[Route('/craft/{slug}/filters/map.json', name: 'filters_map', methods: ['GET'])]
    public function map(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $log = $this->judged->shown($craft, $request->query->getInt('log'));
        $axis = Axis::tryFrom($request->query->getString('axis')) ?? Axis::Roll;
        $wanted = $this->staging->preview($craft);
        $now = null === $log ? null : $this->whatIfs->map($craft, $log, $craft->settings, $axis);
        $then = null === $log || !$this->differ($craft, $wanted) ? null : $this->whatIfs->map($craft, $log, $wanted, $axis);

        return new JsonResponse([
            'now' => $now?->toArray(),
            'staged' => $then?->toArray(),
            'less' => null === $now || null === $then ? null : MapChart::difference($then->less($now), self::SPAN_DB),
        ]);
    }

    #[Route('/craft/{slug}/filters/trade-off.json', name: 'filters_trade_off', methods: ['GET'])]
    public function tradeOff(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $log = $this->judged->shown($craft, $request->query->getInt('log'));

        return new JsonResponse(null === $log ? null : $this->curve($craft, $log, $this->staging->preview($craft)));
    }

    /** Another log behind its own filters, to hold this one against; null where none is asked for, or it does not tell. */
    private function beside(Craft $craft, ?Log $log, Request $request): ?BesideLog
    {
        $other = null === $log ? null : $this->book->besides($craft, $request, 1)[0] ?? null;
        $of = null === $other || $other === $log ? null : $this->whatIfs->asFlown($other);

        return null === $of || [] === $of->axes ? null : new BesideLog($other, $of);
    }

    private function curve(Craft $craft, Log $log, SettingSet $wanted): CurveView
    {
        $of = fn (SettingSet $set): ?Candidate => Candidate::told($set, $this->whatIfs->of($craft, $log, $set));
        $curve = $this->whatIfs->tradeOff($craft, $log, $craft->settings);

        return CurveView::of($curve, $craft->settings, $of($craft->settings), $this->differ($craft, $wanted) ? $of($wanted) : null);
    }

    private function differ(Craft $craft, SettingSet $wanted): bool
    {
        // Whatever else is staged: only where the chains differ there is a second figure.
        [$now, $then] = [$this->names->of($craft, $craft->settings), $this->names->of($craft, $wanted)];

        return $this->chains->filters($now, [200.0]) != $this->chains->filters($then, [200.0])
            || $now->whole('notch.tracking.peaks') !== $then->whole('notch.tracking.peaks')
            || ($then->whole('notch.tracking.peaks') > 0
                && ($now->text('notch.tracking.band_hz') !== $then->text('notch.tracking.band_hz')
                    || $now->number('notch.tracking.width_pct') !== $then->number('notch.tracking.width_pct')));
    }

    /** @return array<string, float|int|bool|string> what is tried and not yet staged; what cannot be is left out */
    private function tried(Craft $craft, Request $request): array
    {
        $tried = [];
        foreach ($request->query->all('with') as $name => $value) {
            try {
                if ($craft->settings->has((string) $name)) {
                    $setting = $this->catalogue->get((string) $name, $craft->version());
                    $tried[$setting->name] = $setting->check($value, $craft->version());
                }
            } catch (SettingError) {
                continue;
            }
        }

        return $tried;
    }

    private function figures(Craft $craft, ?Log $log, SettingSet $wanted): FilterFigures
    {
        $differs = $this->differ($craft, $wanted);
        if (null === $log) {
            $delays = fn (SettingSet $s): array => FiltersInBook::delaysMs($this->chains->filters($this->names->of($craft, $s), []));

            return new FilterFigures($delays($craft->settings), $differs ? $delays($wanted) : null, []);
        }
        $now = $this->whatIfs->of($craft, $log, $craft->settings);
        $then = $differs ? $this->whatIfs->of($craft, $log, $wanted) : null;
        $left = $this->told($craft, $log, $now)['residual_dps'];
        $axes = [];
        foreach ($now->axes as $axis => $one) {
            $other = $then->axes[$axis] ?? null;
            $axes[] = new AxisFigures($axis, $one->measuredDps, $left[$axis], $other?->residualDps, $one->noise, $other?->noise);
        }

        return new FilterFigures(WhatIfs::delaysMs($now), null === $then ? null : WhatIfs::delaysMs($then), $axes);
    }

    /** @return array{residual_dps: array<string, float>, delay_ms: float, d_delay_ms: float} */
    private function told(Craft $craft, Log $log, WhatIf $now): array
    {
        $told = self::left($now);

        // Flown with this very chain, the log itself has what it leaves.
        return $this->whatIfs->flew($craft, $log, $craft->settings)
            ? ['residual_dps' => array_intersect_key($this->whatIfs->logged($log), $told['residual_dps']) + $told['residual_dps']] + $told
            : $told;
    }

    /** @return array{residual_dps: array<string, float>, delay_ms: float, d_delay_ms: float} */
    private static function left(WhatIf $of): array
    {
        [$delay, $dDelay] = WhatIfs::delaysMs($of);

        return [
            'residual_dps' => array_map(static fn (WhatIfAxis $a): float => round($a->residualDps, 3), $of->axes),
            'delay_ms' => round($delay, 2),
            'd_delay_ms' => round($dDelay, 2),
        ];
    }

    /** @return array<string, LoopChange> by axis */
    private function loops(Craft $craft, Log $log, SettingSet $wanted): array
    {
        $then = $this->differ($craft, $wanted) ? $this->whatIfs->loops($craft, $log, $wanted) : [];
        $loops = [];
        foreach ($this->whatIfs->loops($craft, $log, $craft->settings) as $axis => $now) {
            $loops[$axis] = LoopChange::of($now, $then[$axis] ?? null);
        }

        return $loops;
    }

    /** @return array<string, Worth> by the filter's id; of those of the rate path that can be taken away */
    private function worths(Craft $craft, Log $log, SettingSet $wanted, FilterThings $things): array
    {
        $with = $this->whatIfs->of($craft, $log, $wanted);
        $worths = [];
        foreach ($things->all as $thing) {
            if ([] !== $thing->away && FilterLane::DPath !== $thing->lane) {
                $without = $this->whatIfs->of($craft, $log, $wanted->with($thing->away));
                $worths[$thing->id] = new Worth(
                    self::leftOver($with),
                    self::leftOver($without),
                    WhatIfs::delaysMs($with)[0] - WhatIfs::delaysMs($without)[0],
                );
            }
        }

        return $worths;
    }

    /** Root of the mean square over the axes, deg/s. */
    private static function leftOver(WhatIf $of): float
    {
        $sum = array_sum(array_map(static fn (WhatIfAxis $a): float => $a->residualDps ** 2, $of->axes));

        return sqrt($sum / max(1, \count($of->axes)));
    }

    private function dPick(Craft $craft, Log $log, SettingSet $wanted): ?DPick
    {
        $lowest = null;
        foreach ([Axis::Roll, Axis::Pitch] as $axis) {
            $one = $this->whatIfs->dCutoffs($craft, $log, $wanted, $axis);
            if (null !== $one && (null === $lowest || ($one->pick ?? -1) < ($lowest[1]->pick ?? -1))) {
                $lowest = [$axis->value, $one];
            }
        }
        if (null === $lowest) {
            return null;
        }
        $hz = null === $lowest[1]->pick ? null : $lowest[1]->table[$lowest[1]->pick]->cutoffHz;
        $name = 'd_path.stage.1.cutoff_hz';
        $stage = null === $hz || !$craft->settings->has($name) || $wanted->number($name) === $hz ? [] : [$name => $hz];

        return new DPick($lowest[0], $lowest[1], $stage);
    }

    /** @return array<string, array{low: float, high: float}> */
    private static function ranges(FilterThings $things, Craft $craft): array
    {
        $ranges = [];
        foreach ($things->all as $thing) {
            foreach (array_filter($thing->settings, static fn (Setting $s): bool => $s->type->isNumeric()) as $setting) {
                [$low, $high] = $setting->range($craft->version());
                $ranges[$setting->name] = ['low' => $low, 'high' => $high];
            }
        }

        return $ranges;
    }

    /**
     * @param list<float> $db
     *
     * @return list<float>
     */
    private static function rounded(array $db): array
    {
        return array_map(static fn (float $v): float => round($v, 1), $db);
    }
}
