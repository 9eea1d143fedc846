<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

use Ortholex\Core\Signal\Statistics;

/** A step response with its band, its numbers with 90 % intervals, and what it rests on. */
final readonly class StepResult
{
    /** What is left of the estimate's own blur, to either side: measured on loops whose step is known. */
    private const LEAST = ['delay_ms' => 0.25, 'rise_ms' => 0.2, 'peak' => 0.003, 'steady' => 0.003];

    /**
     * @param array<string, array{float, float}> $intervals 5 % and 95 % per number
     * @param list<float>                        $low       band, 5 %
     * @param list<float>                        $high      band, 95 %
     * @param array<string, int>                 $excluded  windows by Exclusion
     * @param array<string, StepOfSize>          $bySize    small, medium, large
     * @param list<StepWindow>                   $windows   all that were looked at, in order of time
     * @param float                              $windowS   length of each
     * @param LoopModel                          $loop      towards which the curve is drawn
     * @param float                              $strayed   how far the response lies from the loop, where it was excited, over its size
     * @param list<float>                        $noise     of one window by bin, from the first above zero: what the stick does not explain
     */
    private function __construct(
        public StepCurve $curve,
        public StepNumbers $numbers,
        public array $intervals,
        public array $low,
        public array $high,
        public int $used,
        public array $excluded,
        public float $seconds,
        public float $bandHz,
        public array $bySize,
        public array $windows,
        public float $windowS,
        public LoopModel $loop,
        public array $noise,
        public float $strayed,
    ) {
    }

    /**
     * @param list<StepCurve> $resampled bootstrap curves, may be empty
     * @param array<string, StepOfSize> $bySize
     * @param list<float>     $noise
     * @param float           $widened by how much intervals are wider than the resampled curves
     */
    public static function of(
        StepCurve $curve,
        array $resampled,
        StepWindows $windows,
        float $seconds,
        float $bandHz,
        array $bySize,
        LoopModel $loop,
        array $noise,
        float $strayed,
        float $widened,
    ): self {
        $numbers = $curve->numbers();
        $intervals = [];
        $low = $high = [];
        if ([] !== $resampled) {
            $spread = [];
            foreach ($resampled as $one) {
                foreach ($one->numbers()->toArray() as $key => $value) {
                    if (null !== $value) {
                        $spread[$key][] = $value;
                    }
                }
            }
            foreach ($spread as $key => $values) {
                sort($values);
                $intervals[$key] = self::interval($values, $numbers->toArray()[$key] ?? null, $widened, self::LEAST[$key] ?? 0.0);
            }
            foreach (array_keys($curve->values) as $i) {
                $at = [];
                foreach ($resampled as $one) {
                    $at[] = $one->values[$i];
                }
                sort($at);
                [$least, $most] = self::interval($at, $curve->values[$i], $widened);
                $low[] = $least;
                $high[] = $most;
            }
        }

        return new self(
            $curve,
            $numbers,
            $intervals,
            $low,
            $high,
            \count($windows->used),
            $windows->excluded,
            $seconds,
            $bandHz,
            $bySize,
            $windows->all,
            $windows->size * $curve->stepS,
            $loop,
            $noise,
            $strayed,
        );
    }

    /**
     * From the 5 to the 95 percentile, widened about the value itself: blocks of one flight that share their edges, and a loop that is
     * drawn to the same prior in each draw, vary less than flights do. Never narrower than what the estimate itself is off by.
     *
     * @param non-empty-list<float> $sorted
     *
     * @return array{float, float}
     */
    private static function interval(array $sorted, ?float $value, float $widened, float $least = 0.0): array
    {
        $middle = $value ?? Statistics::quantileOfSorted($sorted, 0.5);
        $low = Statistics::quantileOfSorted($sorted, 0.05);
        $high = Statistics::quantileOfSorted($sorted, 0.95);

        return [
            min($middle - $least, $middle + $widened * ($low - $middle)),
            max($middle + $least, $middle + $widened * ($high - $middle)),
        ];
    }

    /** Whether small, medium and large moves agree, as a linear craft's would; null when fewer than two can be told. */
    public function isLinear(): ?bool
    {
        $peaks = array_filter(array_column($this->bySize, 'peak'), static fn (?float $p): bool => null !== $p);

        return \count($peaks) < 2 ? null : max([0.0, ...$peaks]) - min([9.0, ...$peaks]) < 0.15;
    }
}
