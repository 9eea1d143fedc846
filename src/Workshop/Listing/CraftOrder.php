<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop\Listing;

/** In which order the Workshop shows its craft. */
enum CraftOrder: string
{
    case Next = 'next';
    case Name = 'name';
    case Flown = 'flown';
    case Newest = 'newest';

    public function label(): string
    {
        return match ($this) {
            self::Next => 'what needs doing first',
            self::Name => 'name',
            self::Flown => 'flown last',
            self::Newest => 'newest',
        };
    }

    /**
     * @param list<CraftSummary> $all in the order in which they came
     *
     * @return list<CraftSummary>
     */
    public function sorted(array $all): array
    {
        if (self::Newest === $this) {
            return array_reverse($all);
        }
        usort($all, fn (CraftSummary $a, CraftSummary $b): int => match ($this) {
            self::Name => strnatcasecmp($a->name, $b->name),
            self::Flown => $b->flown <=> $a->flown,
            default => $a->urgency() <=> $b->urgency(),
        });

        return $all;
    }
}
