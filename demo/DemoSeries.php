<?php

declare(strict_types=1);

namespace Ortholex\Demo;

/** Flights of before that belong together: one setting varied, or one part replaced. */
final readonly class DemoSeries
{
    /**
     * @param list<string>     $settings varied; none where a part is replaced
     * @param list<float>      $values   of the first, by rising value
     * @param string           $part     replaced; '' where settings are varied
     * @param list<string>     $variants with what
     * @param list<DemoFlight> $flights  in the order flown
     */
    public function __construct(
        public array $settings,
        public array $values,
        public string $part,
        public array $variants,
        public array $flights,
    ) {
    }
}
