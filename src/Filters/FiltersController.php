<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Report\Chains;
use Ortholex\App\Report\JudgedLog;
use Ortholex\App\Report\WorkedOut;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\Staging;
use Ortholex\Core\Control\LowPass;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Report\SpectrumChart;
use Ortholex\Core\Settings\Catalogue;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class FiltersController extends SheetController
{
    private const GROUPS = [
        'Rate path' => '~^rate_path\.|^filter\.gyro~',
        'D path' => '~^d_path\.|^filter\.d~',
        'Motor notches' => '~^notch\.motor\.~',
        'Tracking notches' => '~^notch\.tracking\.~',
        'Command low-pass' => '~^command_low_pass\.~',
    ];

    public function __construct(
        private readonly Catalogue $catalogue,
        private readonly Staging $staging,
        private readonly LogBook $book,
        private readonly JudgedLog $judged,
        private readonly AnalysisStore $analyses,
        private readonly Chains $chains,
        private readonly CurrentNames $names,
        private readonly WorkedOut $workedOut,
    ) {
    }

    #[Route('/craft/{slug}/62', name: 'filters', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $wanted = $this->staging->preview($craft);
        $groups = $ranges = [];
        foreach (self::GROUPS as $heading => $pattern) {
            foreach ($this->catalogue->of($craft->version()) as $name => $setting) {
                if (1 === preg_match($pattern, $name) && isset($craft->settings[$name]) && self::isShown($name, $wanted)) {
                    $groups[$heading][] = $setting;
                    if ($setting->type->isNumeric()) {
                        [$low, $high] = $setting->range($craft->version());
                        $ranges[$name] = ['low' => $low, 'high' => $high];
                    }
                }
            }
        }
        $log = $this->judged->shown($craft, $request->query->getInt('log'));
        $answer = [] === $groups ? null : $this->figures($craft, $log);

        return $this->show(
            $craft,
            '62',
            'Filters/filters.html.twig',
            new FiltersView($groups, $craft->settings, $this->staging->of($craft), $ranges, $log, $this->book->of($craft), $answer),
        );
    }

    /** Responses of the chains on the craft and as staged, and the log's measured spectrum through each. */
    #[Route('/craft/{slug}/filters/response.json', name: 'filters_response', methods: ['GET'])]
    public function response(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $log = $this->judged->shown($craft, $request->query->getInt('log'));
        $rotorHz = $this->chains->rotorHz($craft, $log);
        $out = ['rotor_hz' => $rotorHz, 'chains' => []];
        foreach ($this->both($craft) as $key => $settings) {
            $chain = $this->chains->filters($settings, $rotorHz);
            $hz = $rate = $d = [];
            for ($f = 2.0; $f <= min(1000.0, $chain->ratePath->rateHz / 2 - 1); $f += $f < 100 ? 2 : 4) {
                $hz[] = $f;
                $rate[] = round($chain->ratePath->gainDb($f), 2);
                $d[] = round($chain->ratePath->gainDb($f) + $chain->dPath->gainDb($f), 2);
            }
            $delays = FiltersInBook::delaysMs($chain);
            $out['chains'][$key] = [
                'hz' => $hz,
                'rate_db' => $rate,
                'd_db' => $d,
                'rate_delay_ms' => round($delays[0], 2),
                'd_delay_ms' => round($delays[1], 2),
                'residual' => $this->residuals($log, $chain),
            ];
        }

        return new JsonResponse($out);
    }

    /** Stages that are used, and the first that is free: a path may have four. */
    private static function isShown(string $name, SettingSet $wanted): bool
    {
        if (1 !== preg_match('~^(rate_path|d_path)\.stage\.(\d)\.~', $name, $m)) {
            return true;
        }
        $n = (int) $m[2];

        return 1 === $n || LowPass::Off !== LowPass::of($wanted, $m[1], $n) || LowPass::Off !== LowPass::of($wanted, $m[1], $n - 1);
    }

    private function figures(Craft $craft, ?Log $log): FilterFigures
    {
        $rotorHz = $this->chains->rotorHz($craft, $log);
        $chains = array_map(fn (SettingSet $s): RateFilters => $this->chains->filters($s, $rotorHz), $this->both($craft));
        // Whatever else is staged: only where the chains differ there is a second figure.
        $differ = $chains['now'] != $chains['staged'];
        [$now, $staged] = [FiltersInBook::delaysMs($chains['now']), FiltersInBook::delaysMs($chains['staged'])];
        $costs = [];
        foreach (['rate path at 30 Hz', 'D path at 30 Hz'] as $i => $label) {
            $costs[] = new FilterFigure($label, $now[$i], $differ ? $staged[$i] : null, 'ms');
        }
        $left = $this->residuals($log, $chains['now']);
        $then = $this->residuals($log, $chains['staged']);

        return new FilterFigures(
            $costs,
            array_map(
                static fn (string $axis): FilterFigure => new FilterFigure(
                    $axis,
                    $left[$axis],
                    $differ ? $then[$axis] ?? null : null,
                    'deg/s',
                ),
                array_keys($left),
            ),
        );
    }

    /** @return array{now: SettingSet, staged: SettingSet} under current names */
    private function both(Craft $craft): array
    {
        return [
            'now' => $this->names->of($craft, $craft->settings),
            'staged' => $this->names->of($craft, $this->staging->preview($craft)),
        ];
    }

    /**
     * Noise above 20 Hz that each axis would keep: its measured spectrum times |H|².
     *
     * @return array<string, float> deg/s RMS
     */
    private function residuals(?Log $log, RateFilters $chain): array
    {
        return null === $log
            ? []
            : $this->workedOut->once(
                'residual',
                [$this->analyses->name($log), $chain],
                fn (): array => self::left($this->analyses->charts($log)->spectra, $chain),
            );
    }

    /**
     * @param array<string, SpectrumChart> $spectra
     *
     * @return array<string, float>
     */
    private static function left(array $spectra, RateFilters $chain): array
    {
        $residual = [];
        foreach ($spectra as $axis => $spectrum) {
            $step = $spectrum->stepHz;
            $sum = 0.0;
            foreach ($spectrum->measuredDb as $k => $db) {
                if ($k * $step >= 20 && $k * $step < $chain->ratePath->rateHz / 2) {
                    $sum += 10 ** (($db + $chain->ratePath->gainDb($k * $step)) / 10) * $step;
                }
            }
            if ($sum > 0) {
                $residual[$axis] = round(sqrt($sum), 2);
            }
        }

        return $residual;
    }
}
