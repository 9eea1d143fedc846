<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

/** What the filters cost and leave, on the craft and as staged. */
final readonly class FilterFigures
{
    /**
     * @param array{float, float}      $delayMs at 30 Hz: of the rate path, and of the D path behind it; the mean of the axes of a log
     * @param array{float, float}|null $then    the same as staged; null where nothing that is staged changes the filters
     * @param list<AxisFigures>        $axes    of the log, where there is one
     */
    public function __construct(public array $delayMs, public ?array $then, public array $axes)
    {
    }

    public function answer(): string
    {
        $left = self::spoken(array_map(static fn (AxisFigures $a): float => $a->left, $this->axes));
        if (null === $this->then) {
            return '' === $left
                ? \sprintf('The filters delay the rate by %.1f ms at 30 Hz, and D by %.1f ms.', ...$this->delayMs)
                : \sprintf('The filters leave %s of this log’s noise, and delay by %.1f ms.', $left, $this->delayMs[0]);
        }
        $then = self::spoken(array_map(static fn (AxisFigures $a): float => $a->then ?? $a->left, $this->axes));

        return '' === $left
            ? \sprintf(
                'As staged, the filters delay the rate by %.1f ms at 30 Hz (now %.1f), and D by %.1f (now %.1f).',
                $this->then[0],
                $this->delayMs[0],
                $this->then[1],
                $this->delayMs[1],
            )
            : \sprintf(
                'As staged, the filters leave %s (now %s), and delay by %.1f ms (now %.1f).',
                $then,
                $left,
                $this->then[0],
                $this->delayMs[0],
            );
    }

    /** @param list<float> $dps */
    private static function spoken(array $dps): string
    {
        return [] === $dps ? '' : implode(' / ', array_map(static fn (float $v): string => number_format($v, 2), $dps)).' deg/s';
    }
}
