<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

/** One-sided power spectral density on a uniform frequency grid, in unit²/Hz; bin k lies at k·stepHz. */
final readonly class Spectrum
{
    /** @param list<float> $density */
    private function __construct(public float $stepHz, public array $density, public int $segments)
    {
    }

    /** @param list<float> $density unit²/Hz */
    public static function of(float $stepHz, array $density, int $segments): self
    {
        return new self($stepHz, $density, $segments);
    }

    /** Mean-square of the signal between two frequencies, by the rectangle rule over bins; unit². */
    public function power(float $fromHz, float $toHz): float
    {
        $sum = 0.0;
        foreach ($this->density as $k => $value) {
            $hz = $k * $this->stepHz;
            if ($hz >= $fromHz && $hz <= $toHz) {
                $sum += $value;
            }
        }

        return $sum * $this->stepHz;
    }

    /** @return list<float> 10·log10 of the density, floored at −120 dB */
    public function decibels(): array
    {
        return array_map(static fn (float $v): float => 10.0 * log10(max($v, 1e-12)), $this->density);
    }

    /**
     * Peaks that stand at least $prominenceDb above the higher of their two valleys, strongest first.
     *
     * The level is that of the highest bin; the place is refined by a parabola through its neighbours in dB.
     *
     * @return list<Peak>
     */
    public function peaks(float $fromHz, float $prominenceDb = 6.0, int $most = 6): array
    {
        $db = $this->decibels();
        // Light smoothing over three bins keeps the statistical grass of few segments from counting as peaks.
        $count = \count($db);
        $smooth = $db;
        for ($k = 1; $k < $count - 1; ++$k) {
            $smooth[$k] = 10.0 * log10(max(1e-12, ($this->density[$k - 1] + 2 * $this->density[$k] + $this->density[$k + 1]) / 4));
        }
        $peaks = [];
        for ($k = max(2, (int) ceil($fromHz / $this->stepHz)); $k < $count - 2; ++$k) {
            if ($smooth[$k] <= $smooth[$k - 1] || $smooth[$k] < $smooth[$k + 1]) {
                continue;
            }
            $top = $smooth[$k];
            $left = $top;
            for ($j = $k - 1; $j > 0 && $smooth[$j] <= $top; --$j) {
                $left = min($left, $smooth[$j]);
            }
            $right = $top;
            for ($j = $k + 1; $j < $count - 1 && $smooth[$j] <= $top; ++$j) {
                $right = min($right, $smooth[$j]);
            }
            $prominence = $top - max($left, $right);
            if ($prominence < $prominenceDb) {
                continue;
            }
            $best = $db[$k - 1] > $db[$k] ? $k - 1 : ($db[$k + 1] > $db[$k] ? $k + 1 : $k);
            $curve = $db[$best - 1] - 2 * $db[$best] + $db[$best + 1];
            $shift = $curve < 0 ? max(-0.5, min(0.5, (0.5 * ($db[$best - 1] - $db[$best + 1])) / $curve)) : 0.0;
            $peaks[] = new Peak(($best + $shift) * $this->stepHz, $db[$best], $prominence);
        }
        usort($peaks, static fn (Peak $a, Peak $b): int => $b->db <=> $a->db);

        return \array_slice($peaks, 0, $most);
    }
}
