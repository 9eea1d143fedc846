<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Span;

/** What channels said over a time: one row a frame. */
final readonly class StickHistory
{
    /**
     * @param list<float>             $timesS   rising
     * @param array<int, list<float>> $channels number from 1 => µs, one a time
     */
    public function __construct(public array $timesS, public array $channels)
    {
    }

    public function seconds(): float
    {
        return [] === $this->timesS ? 0.0 : $this->timesS[\count($this->timesS) - 1] - $this->timesS[0];
    }

    /** Median time from row to row, s. */
    public function step(): float
    {
        $n = \count($this->timesS);
        if ($n < 2) {
            return 0.02;
        }
        $gaps = [];
        for ($i = 1; $i < $n; ++$i) {
            $gaps[] = $this->timesS[$i] - $this->timesS[$i - 1];
        }
        sort($gaps);

        return max(1e-4, $gaps[\count($gaps) >> 1]);
    }

    /** @return list<float> µs */
    public function channel(int $number): array
    {
        return $this->channels[$number] ?? [];
    }
}
