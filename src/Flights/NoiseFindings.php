<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

/** Puts the spectrum's figures into sentences. */
final readonly class NoiseFindings
{
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
            $findings[] = new ResponseFinding(ucfirst($axis).' after filtering', \sprintf('%.2f deg/s RMS', $rms), $text, null, '');
        }
        if (null === $loudest) {
            return ['The log has no rotation rates, so nothing can be said of noise.', $findings];
        }
        $findings[] = new ResponseFinding('The filters behind this', '', 'Lower cutoffs are quieter and later. Sheet 62 draws what today\'s chain does to this very spectrum.', '62', 'See the filters');

        return [\sprintf('%s is the loudest axis: %.1f deg/s RMS is left above 20 Hz after filtering.', ucfirst($loudest[0]), $loudest[1]), $findings];
    }
}
