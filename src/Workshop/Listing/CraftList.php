<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop\Listing;

use Ortholex\App\Shell\Input;

/** The craft of the Workshop as asked for: searched, sorted, in groups. */
final readonly class CraftList
{
    /**
     * @param array<string, list<Card>> $groups by title
     * @param int                               $all    craft there are
     */
    private function __construct(
        public array $groups,
        public int $all,
        public string $words,
        public CraftOrder $order,
        public CraftGrouping $grouping,
    ) {
    }

    /** @param list<Card> $all in the order in which they came */
    public static function of(array $all, Input $asked): self
    {
        $words = $asked->text('q', 80);
        $order = CraftOrder::tryFrom($asked->text('order', 20)) ?? CraftOrder::Next;
        $grouping = CraftGrouping::tryFrom($asked->text('group', 20)) ?? CraftGrouping::None;
        $found = array_values(array_filter($all, static fn (Card $c): bool => self::has($c->craft, $words)));
        $groups = [];
        foreach ($order->sorted($found) as $card) {
            $groups[$grouping->of($card->craft)][] = $card;
        }
        if (CraftGrouping::Next !== $grouping) {
            ksort($groups, \SORT_NATURAL | \SORT_FLAG_CASE);
        } else {
            uasort($groups, static fn (array $a, array $b): int => $a[0]->craft->urgency() <=> $b[0]->craft->urgency());
        }

        return new self($groups, \count($all), $words, $order, $grouping);
    }

    public function shown(): int
    {
        return array_sum(array_map(\count(...), $this->groups));
    }

    /** Every word is in something that is said of it. */
    private static function has(CraftSummary $craft, string $words): bool
    {
        $of = [$craft->name, $craft->kind, $craft->purpose, $craft->story, $craft->board ?? '', $craft->firmware];
        $said = mb_strtolower(implode(' ', $of));
        foreach (preg_split('~\s+~u', mb_strtolower($words), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $word) {
            if (!str_contains($said, $word)) {
                return false;
            }
        }

        return true;
    }
}
