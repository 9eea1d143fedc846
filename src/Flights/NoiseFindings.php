<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

use Ortholex\Core\Analysis\AnalysisCharts;
use Ortholex\Core\Analysis\MapDifference;
use Ortholex\Core\Analysis\NoiseComparison;
use Ortholex\Core\Analysis\Ridge;
use Ortholex\Core\Analysis\Verdict;

/** Puts the spectrum's figures into sentences. */
final readonly class NoiseFindings
{
    /**
     * Which of two or three flights is the quietest, where, and by how much.
     *
     * @param non-empty-array<string, array<mixed>> $charts  by code of the log; the first is the one the sheet is about
     * @param array<string, array<mixed>>           $reports by code
     *
     * @return array{string, array<string, array{alike: bool, bands: list<array{from_hz: float, to_hz: float, axes: array<string, float>}>}>} the sentence, and the first against each other by bands, dB
     */
    public static function among(array $charts, array $reports): array
    {
        $codes = array_keys($charts);
        $total = array_fill_keys($codes, 0.0);
        $most = $tables = $alike = [];
        foreach ($codes as $i => $code) {
            foreach (\array_slice($codes, $i + 1) as $other) {
                foreach (['roll', 'pitch', 'yaw'] as $axis) {
                    $compared = self::compared($axis, $charts[$code], $charts[$other], self::motion($reports[$code], $axis), self::motion($reports[$other], $axis));
                    if (null === $compared) {
                        continue;
                    }
                    $total[$code] += $compared->mean();
                    $total[$other] -= $compared->mean();
                    $alike[$other] = ($alike[$other] ?? true) && (0 !== $i || $compared->alike);
                    foreach (0 === $i ? $compared->bands : [] as $band) {
                        $tables[$other][(int) $band['from_hz']] ??= ['from_hz' => $band['from_hz'], 'to_hz' => $band['to_hz'], 'axes' => []];
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
            return [implode(' and ', $codes).' shake alike: no band differs by as much as two flights would.', $tables];
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
                $band['db'] < 0 => \sprintf('quieter than %s by %.1f dB from %.0f to %.0f Hz on %s', $other, -$band['db'], $band['from_hz'], $band['to_hz'], $band['axis']),
                default => \sprintf('quieter than %s on the whole, if louder by %.1f dB from %.0f to %.0f Hz on %s', $other, $band['db'], $band['from_hz'], $band['to_hz'], $band['axis']),
            };
        }

        return [2 === \count($codes) ? "$quietest is $parts[0]." : "$quietest is the quietest: ".implode('; ', $parts).'.', $tables];
    }

    /**
     * @param array<mixed> $a charts
     * @param array<mixed> $b
     */
    private static function compared(string $axis, array $a, array $b, float $motionA, float $motionB): ?NoiseComparison
    {
        $mapped = NoiseComparison::ofMaps(self::less(Dig::map($a, 'map', $axis), Dig::map($b, 'map', $axis)), $motionA, $motionB);
        if (null !== $mapped) {
            return $mapped;
        }
        $a = Dig::map($a, 'spectrum', $axis);
        $b = Dig::map($b, 'spectrum', $axis);
        $here = Dig::numbers($a, 'measured_db');
        $there = Dig::numbers($b, 'measured_db');

        return [] === $here || [] === $there ? null : NoiseComparison::of($here, max(0.01, Dig::number($a, 'step_hz') ?? 1.0), $there, max(0.01, Dig::number($b, 'step_hz') ?? 1.0), $motionA, $motionB);
    }

    /**
     * One kept map less another.
     *
     * @param array<mixed> $a
     * @param array<mixed> $b
     * @param float        $levels full level of the first over that of the second
     */
    public static function less(array $a, array $b, float $levels = 1.0): MapDifference
    {
        return MapDifference::of(AnalysisCharts::rows($a), Dig::number($a, 'step_hz') ?? 0.0, AnalysisCharts::rows($b), Dig::number($b, 'step_hz') ?? 0.0, $levels);
    }

    /** @param array<mixed> $report */
    private static function motion(array $report, string $axis): float
    {
        return Dig::number(Dig::map($report, 'adequacy', 'motion_dps'), $axis) ?? 0.0;
    }

    /**
     * @param array<mixed> $report of the analysis
     * @param array<mixed> $charts of the same
     *
     * @return array{string, list<ResponseFinding>}
     */
    public static function of(array $report, array $charts): array
    {
        $findings = [];
        $loudest = null;
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            $measured = Dig::map($report, 'spectrum', $axis, 'measured');
            $filtered = Dig::map($report, 'spectrum', $axis, 'filtered');
            $chart = Dig::map($charts, 'spectrum', $axis);
            $rms = Dig::number($filtered, 'rms_dps') ?? Dig::number($measured, 'rms_dps');
            if (null === $rms) {
                continue;
            }
            if (null === $loudest || $rms > $loudest[1]) {
                $loudest = [$axis, $rms];
            }
            $peaks = [];
            foreach (\array_slice(Dig::map($measured, 'peaks'), 0, 3) as $peak) {
                $peaks[] = \sprintf('%.0f Hz', Dig::number(\is_array($peak) ? $peak : [], 'hz') ?? 0);
            }
            $attenuation = Dig::number($chart, 'attenuation_db');
            $delay = Dig::number($chart, 'delay_ms');
            $text = [] === $peaks ? 'No peak stands out of the measured rate.' : 'Measured peaks at '.implode(', ', $peaks).'.';
            if (null !== $attenuation) {
                $text .= \sprintf(' The filters quieten it by %.1f dB%s.', $attenuation, null === $delay ? '' : \sprintf(' for %.1f ms', $delay));
            }
            $verdict = Dig::map($report, 'verdicts', $axis);
            $told = Dig::text($verdict, 'verdict');
            if (\in_array($told, [Verdict::OSCILLATION, Verdict::NOISE], true)) {
                $findings[] = new ResponseFinding(ucfirst($axis).': '.$told, \sprintf('%.0f %% of the flight', 100 * (Dig::number($verdict, 'share') ?? 0)), Verdict::OSCILLATION === $told
                    ? \sprintf('P swings at %.1f Hz, worst at %.1f s.', Dig::number($verdict, 'hz') ?? 0, Dig::number($verdict, 'worst_at_s') ?? 0)
                    : \sprintf('D is broad and irregular and over P, worst at %.1f s. While it stands nothing can be said about P.', Dig::number($verdict, 'worst_at_s') ?? 0), Verdict::OSCILLATION === $told ? '61' : '62', Verdict::OSCILLATION === $told ? 'See the gains' : 'See the D path');
            }
            foreach (Dig::map($report, 'noise', 'ridges') as $ridge) {
                if (\is_array($ridge) && $axis === ($ridge['axis'] ?? '') && Ridge::STANDING === ($ridge['kind'] ?? '') && Dig::number($ridge, 'db') > -10) {
                    $findings[] = new ResponseFinding(ucfirst($axis).\sprintf(': standing at %.0f Hz', Dig::number($ridge, 'hz') ?? 0), \sprintf('%.0f dB', Dig::number($ridge, 'db')), \sprintf('It stays put from %.0f to %.0f %% of throttle: the frame or a loose part, not the motors.', Dig::number($ridge, 'from_pct') ?? 0, Dig::number($ridge, 'to_pct') ?? 0), '62', 'Let a notch follow it');
                }
            }
            $findings[] = new ResponseFinding(ucfirst($axis).' after filtering', \sprintf('%.2f deg/s RMS', $rms), $text, null, '');
        }
        foreach (Dig::map($report, 'findings') as $f) {
            if (\is_array($f) && 'magnets' === ($f['key'] ?? '')) {
                array_unshift($findings, new ResponseFinding('Wrong magnet count', Dig::text($f, 'confidence'), Dig::text($f, 'what').' '.Dig::text($f, 'try'), '15', 'To the motors'));
            }
        }
        if (null === $loudest) {
            return ['The log has no rotation rates, so nothing can be said of noise.', $findings];
        }
        $findings[] = new ResponseFinding('The filters behind this', '', 'Lower cutoffs are quieter and later. Sheet 62 draws what today\'s chain does to this very spectrum.', '62', 'See the filters');

        return [\sprintf('%s is the loudest axis: %.1f deg/s RMS is left above 20 Hz after filtering.', ucfirst($loudest[0]), $loudest[1]), $findings];
    }
}
