<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

use Ortholex\Core\Filters\Cutoff\DCutoff;
use Ortholex\Core\Filters\Cutoff\DCutoffs;

/** Cutoffs for D of the axis that needs the lowest. */
final readonly class DPick
{
    /** @param array<string, float|string> $stage settings that put it there; none where it stands there, or the craft has no such stage */
    public function __construct(public string $axis, public DCutoffs $cutoffs, public array $stage)
    {
    }

    public function picked(): ?DCutoff
    {
        return null === $this->cutoffs->pick ? null : $this->cutoffs->table[$this->cutoffs->pick];
    }

    public function why(): string
    {
        $picked = $this->picked();
        $share = 100 * DCutoffs::TARGET_SHARE;

        return null === $picked
            ? \sprintf('Even the lowest leaves more than %.0f %% noise in D of %s: quiet the rate first.', $share, $this->axis)
            : \sprintf(
                '%s follows the stick up to %.0f Hz. The highest cutoff above that which keeps noise under %.0f %% of D is %.0f Hz.',
                ucfirst($this->axis),
                $this->cutoffs->bandHz,
                $share,
                $picked->cutoffHz,
            );
    }
}
