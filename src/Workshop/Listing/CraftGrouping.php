<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop\Listing;

use Ortholex\App\Book\Step\Urgency;

/** By what the Workshop groups its craft. */
enum CraftGrouping: string
{
    case None = 'none';
    case Next = 'next';
    case Kind = 'kind';
    case Purpose = 'purpose';

    public function label(): string
    {
        return match ($this) {
            self::None => 'not at all',
            self::Next => 'what they need',
            self::Kind => 'kind',
            self::Purpose => 'purpose',
        };
    }

    public function of(CraftSummary $craft): string
    {
        return match ($this) {
            self::None => '',
            self::Kind => '' === $craft->kind ? 'of no kind given' : $craft->kind,
            self::Purpose => '' === $craft->purpose ? 'without a purpose given' : $craft->purpose,
            self::Next => match (Urgency::tryFrom($craft->urgency())) {
                Urgency::Unfinished, Urgency::Stopped => 'Stopped: needs attention first',
                Urgency::Unknown => 'Never read',
                Urgency::Again, Urgency::Uneven => 'To be put right before it flies',
                Urgency::Staged => 'With changes staged',
                Urgency::Better => 'To be flown and tuned',
                default => 'Nothing presses',
            },
        };
    }
}
