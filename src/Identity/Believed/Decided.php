<?php

declare(strict_types=1);

namespace Ortholex\App\Identity\Believed;

/** What came of saying which stands: how many settings went into the record, and how many were staged. */
final readonly class Decided
{
    public function __construct(public int $kept, public int $staged)
    {
    }

    public function said(): string
    {
        $parts = array_filter([
            $this->kept > 0 ? "$this->kept as on the craft, noted in the change record" : '',
            $this->staged > 0 ? "$this->staged as in the book, staged: Commit writes them" : '',
        ]);

        return [] === $parts ? 'Nothing was open.' : ucfirst(implode('; ', $parts)).'.';
    }
}
