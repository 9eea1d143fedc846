<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Mark;

/** What stands beside the tab of a part: in a character or a number, and point by point. */
final readonly class Mark
{
    /** @param list<Point> $points */
    public function __construct(public array $points)
    {
    }

    /** "!" where something stops the craft, else how much is done of what is to be, else how much there is; "" for nothing. */
    public function sign(): string
    {
        $count = null;
        foreach ($this->points as $point) {
            $count = null === $point->count ? $count : (int) $count + $point->count;
        }
        $open = $this->number(PointState::Open);

        return match (true) {
            $this->number(PointState::Blocked) > 0 => '!',
            $open > 0 && $open === \count($this->points) => '○',
            $open > 0 => "{$this->number(PointState::Done)}/".\count($this->points),
            null !== $count => (string) $count,
            [] === $this->points => '',
            default => '✓',
        };
    }

    public function state(): string
    {
        return match ($this->sign()) {
            '!' => PointState::Blocked->value,
            '✓' => PointState::Done->value,
            default => $this->number(PointState::Open) > 0 ? PointState::Open->value : '',
        };
    }

    /** The first that is to be done still. */
    public function firstOpen(): ?Point
    {
        foreach ($this->points as $point) {
            if (PointState::Done !== $point->state) {
                return $point;
            }
        }

        return null;
    }

    /** In words, for who does not see signs. */
    public function words(): string
    {
        $open = array_filter($this->points, static fn (Point $p): bool => PointState::Done !== $p->state);

        return [] === $open ? 'nothing open' : 'open: '.implode(', ', array_map(static fn (Point $p): string => $p->label, $open));
    }

    private function number(PointState $state): int
    {
        return \count(array_filter($this->points, static fn (Point $p): bool => $p->state === $state));
    }
}
