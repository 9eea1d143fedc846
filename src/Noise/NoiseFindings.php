<?php

declare(strict_types=1);

namespace Ortholex\App\Noise;

use Ortholex\App\Report\ResponseFinding;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\LogCheck\AdequacyCode;
use Ortholex\Core\Noise\NoiseComparison;
use Ortholex\Core\Noise\Ridge;
use Ortholex\Core\Noise\RidgeKind;
use Ortholex\Core\Report\Charts;
use Ortholex\Core\Report\Finding\FindingKind;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Signal\Peak;
use Ortholex\Core\Tuning\TermState;

/**
 * Puts the spectrum's figures into sentences.
 *
 * @phpstan-type Bands array{alike: bool, bands: list<array{from_hz: float, to_hz: float, axes: array<string, float>}>}
 */
final readonly class NoiseFindings
{
    /** A standing ridge below this is not worth a line, dB of (deg/s)²/Hz. */
    private const FAINT_DB = -10.0;

    public function __construct(private Words $words)
    {
    }

    /**
     * Which of two or three flights is the quietest, where, and by how much.
     *
     * @param non-empty-array<string, Charts> $charts  by code of the log; the first is the one the sheet is about
     * @param array<string, Report>           $reports by code
     *
     * @return array{string, array<string, Bands>} the sentence, and the first against each other by bands, dB
     */
    public static function among(array $charts, array $reports): array
    {
        $codes = array_keys($charts);
        $total = array_fill_keys($codes, 0.0);
        $most = $tables = $alike = [];
        foreach ($codes as $i => $code) {
            foreach (\array_slice($codes, $i + 1) as $other) {
                foreach (array_column(Axis::cases(), 'value') as $axis) {
                    $compared = self::compared(
                        $axis,
                        $charts[$code],
                        $charts[$other],
                        $reports[$code]->adequacy->motion[$axis] ?? 0.0,
                        $reports[$other]->adequacy->motion[$axis] ?? 0.0,
                    );
                    if (null === $compared) {
                        continue;
                    }
                    $total[$code] += $compared->mean();
                    $total[$other] -= $compared->mean();
                    $alike[$other] = ($alike[$other] ?? true) && (0 !== $i || $compared->alike);
                    foreach (0 === $i ? $compared->bands : [] as $band) {
                        $tables[$other][(int) $band['from_hz']] ??= [
                            'from_hz' => $band['from_hz'],
                            'to_hz' => $band['to_hz'],
                            'axes' => [],
                        ];
                        $tables[$other][(int) $band['from_hz']]['axes'][$axis] = $band['db'];
                    }
                    $band = $compared->most();
                    if (null !== $band && (!isset($most["$code $other"]) || abs($band['db']) > abs($most["$code $other"]['db']))) {
                        $most["$code $other"] = ['axis' => $axis] + $band;
                        $most["$other $code"] = ['axis' => $axis, 'db' => -$band['db']] + $band;
                    }
                }
            }
        }
        foreach ($tables as $other => $bands) {
            ksort($bands);
            $tables[$other] = ['alike' => $alike[$other] ?? true, 'bands' => array_values($bands)];
        }
        if ([] === $most) {
            return [implode(' and ', $codes).' shake alike: no band differs by more than two flights of one craft do.', $tables];
        }
        asort($total);
        $quietest = (string) array_key_first($total);
        if (2 === \count($codes)) {
            // Of two, the band that differs most decides which is called the quieter.
            $quietest = $most["$codes[0] $codes[1]"]['db'] < 0 ? $codes[0] : $codes[1];
        }
        $parts = [];
        foreach (array_diff($codes, [$quietest]) as $other) {
            $band = $most["$quietest $other"] ?? null;
            $parts[] = match (true) {
                null === $band => "hardly different from $other",
                $band['db'] < 0 => \sprintf(
                    'quieter than %s by %.1f dB from %.0f to %.0f Hz on %s',
                    $other,
                    -$band['db'],
                    $band['from_hz'],
                    $band['to_hz'],
                    $band['axis'],
                ),
                default => \sprintf(
                    'quieter than %s overall, but louder by %.1f dB from %.0f to %.0f Hz on %s',
                    $other,
                    $band['db'],
                    $band['from_hz'],
                    $band['to_hz'],
                    $band['axis'],
                ),
            };
        }

        return [2 === \count($codes) ? "$quietest is $parts[0]." : "$quietest is the quietest: ".implode('; ', $parts).'.', $tables];
    }

    private static function compared(string $axis, Charts $a, Charts $b, float $motionA, float $motionB): ?NoiseComparison
    {
        $mapped = isset($a->maps[$axis], $b->maps[$axis])
            ? NoiseComparison::ofMaps($a->maps[$axis]->less($b->maps[$axis]), $motionA, $motionB)
            : null;
        if (null !== $mapped) {
            return $mapped;
        }
        $here = $a->spectra[$axis] ?? null;
        $there = $b->spectra[$axis] ?? null;

        return null === $here || null === $there || [] === $here->measuredDb || [] === $there->measuredDb
            ? null
            : NoiseComparison::of(
                $here->measuredDb,
                max(0.01, $here->stepHz),
                $there->measuredDb,
                max(0.01, $there->stepHz),
                $motionA,
                $motionB,
            );
    }

    /** @return array{string, list<ResponseFinding>} */
    public function of(Report $report, Charts $charts): array
    {
        $findings = [];
        $loudest = null;
        foreach (array_keys($report->steps) as $axis) {
            $measured = $report->measured[$axis] ?? null;
            $rms = ($report->filtered[$axis] ?? $measured)?->rmsDps;
            if (null === $rms) {
                continue;
            }
            if (null === $loudest || $rms > $loudest[1]) {
                $loudest = [$axis, $rms];
            }
            $peaks = array_map(static fn (Peak $p): string => \sprintf('%.0f Hz', $p->hz), \array_slice($measured->peaks ?? [], 0, 3));
            $attenuation = ($charts->spectra[$axis] ?? null)?->attenuationDb;
            $delay = ($charts->spectra[$axis] ?? null)?->delayMs;
            $text = [] === $peaks ? 'No peak stands out of the measured rate.' : 'Measured peaks at '.implode(', ', $peaks).'.';
            if (null !== $attenuation) {
                $text .= \sprintf(
                    ' The filters quieten it by %.1f dB%s.',
                    $attenuation,
                    null === $delay ? '' : \sprintf(' for %.1f ms', $delay),
                );
            }
            $verdict = $report->verdicts[$axis] ?? null;
            $oscillates = TermState::Oscillation === $verdict?->verdict;
            if (null !== $verdict && ($oscillates || TermState::Noise === $verdict->verdict)) {
                $findings[] = new ResponseFinding(
                    ucfirst($axis).': '.$this->words->of($verdict->verdict),
                    \sprintf('%.0f %% of the flight', 100 * $verdict->share),
                    $oscillates
                        ? \sprintf('P swings at %.1f Hz, worst at %.1f s.', $verdict->hz ?? 0, $verdict->worstAtS ?? 0)
                        : \sprintf(
                            'D is broad, irregular and larger than P, worst at %.1f s. Until that is cured, nothing can be said about P.',
                            $verdict->worstAtS ?? 0,
                        ),
                    $oscillates ? '61' : '62',
                    $oscillates ? 'See the gains' : 'See the D path',
                );
            }
            foreach ($report->ridges as $ridge) {
                if ($axis === $ridge->axis->value && RidgeKind::Standing === $ridge->kind && $ridge->db > self::FAINT_DB) {
                    $findings[] = new ResponseFinding(
                        ucfirst($axis).\sprintf(': standing at %.0f Hz', $ridge->hz),
                        \sprintf('%.0f dB', $ridge->db),
                        \sprintf(
                            'It stays put from %.0f to %.0f %% of throttle: the frame or a loose part, not the motors.',
                            $ridge->fromPct,
                            $ridge->toPct,
                        ),
                        '62',
                        'Add a tracking notch',
                    );
                }
            }
            $findings[] = new ResponseFinding(ucfirst($axis).' after filtering', \sprintf('%.2f deg/s RMS', $rms), $text, null, '');
        }
        foreach ($report->findings as $f) {
            if (FindingKind::Magnets === $f->kind) {
                array_unshift(
                    $findings,
                    new ResponseFinding(
                        'Wrong magnet count',
                        $this->words->of($f->sure),
                        $this->words->of($f->what).(null === $f->try ? '' : ' '.$this->words->of($f->try)),
                        '15',
                        'To the motors',
                    ),
                );
            }
        }
        if (null === $loudest) {
            $slow = array_filter($report->adequacy->cannot, static fn (Fact $f): bool => $f->is(AdequacyCode::FarTooSlow));

            return [
                [] === $slow
                    ? 'The log has no rotation rates, so nothing can be said of noise.'
                    : 'The log was sampled too slowly for anything to be said of noise.',
                $findings,
            ];
        }
        $findings[] = new ResponseFinding(
            'The filters behind this',
            '',
            'Lower cutoffs are quieter, and delay more. Sheet 62 draws what today\'s chain does to this very spectrum.',
            '62',
            'See the filters',
        );

        return [
            \sprintf(
                '%s is the loudest axis: %s deg/s RMS is left above 20 Hz after filtering.',
                ucfirst($loudest[0]),
                number_format($loudest[1], $loudest[1] < 1 ? 2 : 1),
            ),
            $findings,
        ];
    }
}
