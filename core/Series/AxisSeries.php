<?php

declare(strict_types=1);

namespace Ortholex\Core\Series;

use Ortholex\Core\Lag\LagSeries;

/** What a series says of one axis. */
final readonly class AxisSeries
{
    /**
     * @param list<SeriesPoint>                     $points   in the order flown
     * @param array{float, float, float}|null       $proposal value, and between which it may lie; null where nothing can be said
     * @param float|null                            $drift    by how much the last flight of the baseline differs from the first, where
     *                                                        that is more than either may be off
     * @param bool                                  $allLag   every flight still comes late: the best lies beyond
     * @param float|null                            $next     where one more flight would tell most
     */
    public function __construct(
        public Criterion $by,
        public array $points,
        public ?array $proposal,
        public ?float $drift,
        public ?float $next,
        public ?LagSeries $lag,
        public bool $allLag = false,
    ) {
    }
}
