<?php

declare(strict_types=1);

namespace Ortholex\App\Tune;

use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Record\Staging;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Shell\SheetController;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Report\Charts;
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
        'Gyro low-pass' => '~^rate_path\.|^filter\.gyro~',
        'D low-pass' => '~^d_path\.|^filter\.d~',
        'Motor notches' => '~^notch\.motor\.~',
        'Tracking notches' => '~^notch\.tracking\.~',
        'Command low-pass' => '~^command_low_pass\.~',
    ];
    private const DELAY_AT_HZ = 30.0;

    public function __construct(
        private readonly Catalogue $catalogue,
        private readonly Staging $staging,
        private readonly LogBook $book,
        private readonly AnalysisStore $analyses,
        private readonly Chains $chains,
    ) {
    }

    #[Route('/craft/{slug}/62', name: 'filters', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $groups = $ranges = [];
        foreach (self::GROUPS as $heading => $pattern) {
            foreach ($this->catalogue->of($craft->version()) as $name => $setting) {
                if (1 === preg_match($pattern, $name) && isset($craft->settings[$name])) {
                    $groups[$heading][] = $setting;
                    if ($setting->type->isNumeric()) {
                        [$low, $high] = $setting->range($craft->version());
                        $ranges[$name] = ['low' => $low, 'high' => $high];
                    }
                }
            }
        }
        $log = $this->book->chosen($craft, $request->query->getInt('log'));
        $now = $this->chains->filters($this->chains->current($craft, $craft->settings), $this->chains->rotorHz($craft, $log));
        $answer =
            [] === $groups
                ? 'Link the craft once, so that its filters are known.'
                : \sprintf(
                    'The rate path costs %.1f ms at 30 Hz, the D path %.1f ms.',
                    1e3 * $now->ratePath->phaseDelay(self::DELAY_AT_HZ),
                    1e3 * ($now->ratePath->phaseDelay(self::DELAY_AT_HZ) + $now->dPath->phaseDelay(self::DELAY_AT_HZ)),
                );

        return $this->show(
            $craft,
            '62',
            'Tune/filters.html.twig',
            new FiltersView($groups, $craft->settings, $this->staging->of($craft), $ranges, $log, $this->book->of($craft), $answer),
        );
    }

    /** Responses of the chains on the craft and as staged, and the log's measured spectrum through each. */
    #[Route('/craft/{slug}/filters/response.json', name: 'filters_response', methods: ['GET'])]
    public function response(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $log = $this->book->chosen($craft, $request->query->getInt('log'));
        $charts = null === $log ? null : $this->analyses->charts($log);
        $rotorHz = $this->chains->rotorHz($craft, $log);
        $out = ['rotor_hz' => $rotorHz, 'chains' => []];
        foreach (['now' => $craft->settings, 'staged' => $this->staging->preview($craft)] as $key => $settings) {
            $chain = $this->chains->filters($this->chains->current($craft, $settings), $rotorHz);
            $hz = $rate = $d = [];
            for ($f = 2.0; $f <= min(1000.0, $chain->ratePath->rateHz / 2 - 1); $f += $f < 100 ? 2 : 4) {
                $hz[] = $f;
                $rate[] = round($chain->ratePath->gainDb($f), 2);
                $d[] = round($chain->ratePath->gainDb($f) + $chain->dPath->gainDb($f), 2);
            }
            $out['chains'][$key] = [
                'hz' => $hz,
                'rate_db' => $rate,
                'd_db' => $d,
                'rate_delay_ms' => round(1e3 * $chain->ratePath->phaseDelay(self::DELAY_AT_HZ), 2),
                'd_delay_ms' => round(
                    1e3 * ($chain->ratePath->phaseDelay(self::DELAY_AT_HZ) + $chain->dPath->phaseDelay(self::DELAY_AT_HZ)),
                    2,
                ),
                'residual' => $this->residuals($charts, $chain),
            ];
        }

        return new JsonResponse($out);
    }

    /**
     * Noise above 20 Hz that each axis would keep: its measured spectrum times |H|².
     *
     * @return array<string, float> deg/s RMS
     */
    private function residuals(?Charts $charts, RateFilters $chain): array
    {
        $residual = [];
        foreach ($charts->spectra ?? [] as $axis => $spectrum) {
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
