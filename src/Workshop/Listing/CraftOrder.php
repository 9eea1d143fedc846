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
     * @param list<Card> $all in the order in which they came
     *
     * @return list<Card>
     */
    public function sorted(array $all): array
    {
        if (self::Newest === $this) {
            return array_reverse($all);
        }
        usort($all, fn (Card $a, Card $b): int => match ($this) {
            self::Name => strnatcasecmp($a->craft->name, $b->craft->name),
            self::Flown => $b->craft->flown <=> $a->craft->flown,
            default => $a->craft->urgency() <=> $b->craft->urgency(),
        });

        return $all;
    }
}
