<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

/** What the filter chains cost and leave, on the craft and as staged. */
final readonly class FilterFigures
{
    /**
     * @param list<FilterFigure> $costs    delay at 30 Hz, ms
     * @param list<FilterFigure> $residual noise that is left, by axis, deg/s RMS
     */
    public function __construct(public array $costs, public array $residual)
    {
    }

    public function answer(): string
    {
        [$rate, $d] = $this->costs;

        return null === $rate->staged || null === $d->staged
            ? \sprintf('The gyro filters delay by %.1f ms at 30 Hz, those of D by %.1f ms.', $rate->now, $d->now)
            : \sprintf(
                'As staged, the gyro filters delay by %.1f ms at 30 Hz (now %.1f), those of D by %.1f (now %.1f).',
                $rate->staged,
                $rate->now,
                $d->staged,
                $d->now,
            );
    }
}
