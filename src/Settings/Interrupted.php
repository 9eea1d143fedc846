<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Ortholex\App\Settings\Journal\Journal;

/** A writing that did not come to its end, as it is told on every sheet until it is decided. */
final readonly class Interrupted
{
    /**
     * @param bool         $compared whether the craft was read since; else nobody knows what it holds
     * @param list<string> $on       what of it is on the craft
     */
    public function __construct(public Journal $journal, public bool $compared, public array $on, public bool $linked)
    {
    }

    /** @return list<string> what of it is not on the craft */
    public function left(): array
    {
        return array_values(array_diff(array_column($this->journal->items, 'name'), $this->on));
    }
}
