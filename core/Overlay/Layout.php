<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay;

/**
 * Which item stands in which cells of a raster. No two share a cell, and none leaves the grid: there is no layout for which that is not
 * so.
 */
final readonly class Layout
{
    /** @param array<string, array{int, int}> $at column and row of the top left cell, by item, in the order of items */
    private function __construct(public Raster $raster, public array $at)
    {
    }

    public static function empty(Raster $raster): self
    {
        return new self($raster, []);
    }

    /**
     * The same with an item there, wherever it stood.
     *
     * @throws OverlayError where it would leave the grid or cover another
     */
    public function with(OverlayItem $item, int $column, int $row): self
    {
        [$wide, $high] = $item->size();
        if ($column < 0 || $row < 0 || $column + $wide > $this->raster->columns() || $row + $high > $this->raster->rows()) {
            throw OverlayError::of(
                OverlayFlaw::OffGrid,
                item: $item,
                column: $column,
                row: $row,
                columns: $this->raster->columns(),
                rows: $this->raster->rows(),
            );
        }
        $other = $this->without($item)->covered($item, $column, $row);
        if (null !== $other) {
            throw OverlayError::of(OverlayFlaw::Overlap, item: $item, other: $other);
        }

        return $this->put($item, $column, $row);
    }

    public function without(OverlayItem $item): self
    {
        return new self($this->raster, array_diff_key($this->at, [$item->value => 1]));
    }

    /** The item whose cells cover one. */
    public function in(int $column, int $row): ?OverlayItem
    {
        foreach ($this->items() as $item) {
            [$c, $r] = $this->at[$item->value];
            [$wide, $high] = $item->size();
            if ($column >= $c && $column < $c + $wide && $row >= $r && $row < $r + $high) {
                return $item;
            }
        }

        return null;
    }

    /** @return list<OverlayItem> that stand here, in the order of items */
    public function items(): array
    {
        return array_values(array_filter(OverlayItem::cases(), fn (OverlayItem $i): bool => isset($this->at[$i->value])));
    }

    /**
     * The same on another raster: each keeps its distance from the corner that it stands nearest to, what then would not fit goes to the
     * nearest place that is free, and what finds none is put away.
     *
     * @return array{self, list<OverlayItem>, list<OverlayItem>} the layout, what could not keep its corner's distance, and what was put
     * away
     */
    public function on(Raster $raster): array
    {
        if ($raster === $this->raster) {
            return [$this, [], []];
        }
        $out = self::empty($raster);
        $shifted = $away = [];
        foreach ($this->items() as $item) {
            [$column, $row] = $this->cornered($item, $raster);
            if ($out->fits($item, $column, $row)) {
                $out = $out->put($item, $column, $row);
                continue;
            }
            $free = $out->nearestFree($item, $column, $row);
            if (null === $free) {
                $away[] = $item;
            } else {
                $shifted[] = $item;
                $out = $out->put($item, $free[0], $free[1]);
            }
        }

        return [$out, $shifted, $away];
    }

    public function fits(OverlayItem $item, int $column, int $row): bool
    {
        [$wide, $high] = $item->size();

        return $column >= 0
            && $row >= 0
            && $column + $wide <= $this->raster->columns()
            && $row + $high <= $this->raster->rows()
            && null === $this->without($item)->covered($item, $column, $row);
    }

    /** @return array{int, int}|null the free place nearest to one, by cells; null where there is none */
    public function nearestFree(OverlayItem $item, int $column, int $row): ?array
    {
        $best = null;
        $least = \PHP_INT_MAX;
        for ($r = 0; $r < $this->raster->rows(); ++$r) {
            for ($c = 0; $c < $this->raster->columns(); ++$c) {
                $far = ($c - $column) ** 2 + 4 * ($r - $row) ** 2;
                if ($far < $least && $this->fits($item, $c, $r)) {
                    [$least, $best] = [$far, [$c, $r]];
                }
            }
        }

        return $best;
    }

    private function put(OverlayItem $item, int $column, int $row): self
    {
        $at = [$item->value => [$column, $row]] + $this->at;
        $ordered = [];
        foreach (OverlayItem::cases() as $one) {
            if (isset($at[$one->value])) {
                $ordered[$one->value] = $at[$one->value];
            }
        }

        return new self($this->raster, $ordered);
    }

    /** @return array{int, int} the place on another raster, as far from the nearest corner; what stands in the middle stays there */
    private function cornered(OverlayItem $item, Raster $raster): array
    {
        [$column, $row] = $this->at[$item->value];
        [$wide, $high] = $item->size();
        $along = static function (int $from, int $size, int $was, int $is): int {
            $behind = $was - $from - $size;
            $off = abs($from - $behind);

            return match (true) {
                $off <= 1 => intdiv($is - $size, 2),
                $from < $behind => $from,
                default => $is - $size - $behind,
            };
        };

        return [
            $along($column, $wide, $this->raster->columns(), $raster->columns()),
            $along($row, $high, $this->raster->rows(), $raster->rows()),
        ];
    }

    private function covered(OverlayItem $item, int $column, int $row): ?OverlayItem
    {
        [$wide, $high] = $item->size();
        foreach ($this->items() as $other) {
            [$c, $r] = $this->at[$other->value];
            [$w, $h] = $other->size();
            if ($column < $c + $w && $c < $column + $wide && $row < $r + $h && $r < $row + $high) {
                return $other;
            }
        }

        return null;
    }
}
