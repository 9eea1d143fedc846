<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Recording;

/** Where the rows of a flight go. */
interface FlightRecorder
{
    /** @param list<string> $names of the traces, in the order of a row */
    public function begin(array $names, float $rateHz): void;

    /**
     * @param list<float|int> $row time in s, then the traces in their order
     *
     * @return bool whether a block was written with it
     */
    public function record(array $row): bool;

    public function finish(): void;
}
