<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

use Ortholex\Core\Analysis\NoiseComparison;
use Ortholex\Core\Analysis\Ridge;
use Ortholex\Core\Analysis\Verdict;

/** Puts the spectrum's figures into sentences. */
final readonly class NoiseFindings
{
    /**
     * Which of two flights is quieter, where, and by how much.
     *
     * @param array<mixed> $charts of the log
     * @param array<mixed> $other  of the one beside it
     *
     * @return array{string, list<ResponseFinding>}
     */
    public static function beside(array $charts, array $other, string $code, string $otherCode): array
    {
        $findings = [];
        $most = null;
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            $a = Dig::map($charts, 'spectrum', $axis);
            $b = Dig::map($other, 'spectrum', $axis);
            $here = Dig::numbers($a, 'measured_db');
            $there = Dig::numbers($b, 'measured_db');
            if ([] === $here || [] === $there) {
                continue;
            }
            $compared = NoiseComparison::of($here, max(0.01, Dig::number($a, 'step_hz') ?? 1.0), $there, max(0.01, Dig::number($b, 'step_hz') ?? 1.0));
            $findings[] = new ResponseFinding(ucfirst($axis)." against $otherCode", '', implode('; ', array_map(static fn (array $band): string => \sprintf('%+.1f dB from %.0f to %.0f Hz', $band['db'], $band['from_hz'], $band['to_hz']), $compared->bands)).'.', null, '');
            $band = $compared->most();
            if (null !== $band && (null === $most || abs($band['db']) > abs($most[1]['db']))) {
                $most = [$axis, $band];
            }
        }

        return [null === $most ? "$code and $otherCode shake alike: no band differs by as much as two flights would."
            : \sprintf('%s is %s than %s by %.1f dB from %.0f to %.0f Hz on %s.', $code, $most[1]['db'] < 0 ? 'quieter' : 'louder', $otherCode, abs($most[1]['db']), $most[1]['from_hz'], $most[1]['to_hz'], $most[0]), $findings];
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
        if (null === $loudest) {
            return ['The log has no rotation rates, so nothing can be said of noise.', $findings];
        }
        $findings[] = new ResponseFinding('The filters behind this', '', 'Lower cutoffs are quieter and later. Sheet 62 draws what today\'s chain does to this very spectrum.', '62', 'See the filters');

        return [\sprintf('%s is the loudest axis: %.1f deg/s RMS is left above 20 Hz after filtering.', ucfirst($loudest[0]), $loudest[1]), $findings];
    }
}
