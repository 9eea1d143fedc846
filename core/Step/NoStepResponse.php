<?php

declare(strict_types=1);

namespace Ortholex\Core\Step;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Signal\SignalError;
use Ortholex\Core\Step\Confidence\ConfidenceReason;

/** A log, or a window of it, from which no step response follows; the reason is a fact that can be put into words. */
final class NoStepResponse extends \InvalidArgumentException implements SignalError
{
    private function __construct(public readonly Fact $reason)
    {
        parent::__construct('No step response: '.json_encode($reason->toArray(), \JSON_THROW_ON_ERROR));
    }

    /** @param array<string, int> $excluded how many windows by Exclusion */
    public static function nothingUsed(array $excluded): self
    {
        $counts = [];
        foreach (array_filter($excluded) as $why => $count) {
            $counts[] = Fact::of(ConfidenceReason::WindowsExcluded, count: $count, why: Fact::of(Exclusion::from($why)));
        }

        return new self(Fact::of(ConfidenceReason::NothingUsed, excluded: $counts));
    }

    public static function tooFewFrequencies(): self
    {
        return new self(Fact::of(ConfidenceReason::TooFewFrequencies));
    }

    public static function windowTooShort(int $samples): self
    {
        return new self(Fact::of(ConfidenceReason::WindowTooShort, samples: $samples));
    }
}
