<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay;

use Ortholex\Core\Craft\SettingSet;

/**
 * All layouts of a craft, by number, each with when it is shown; where several apply, the one with the highest number is.
 *
 * Kept as settings: `overlay.layouts` as "1:always 2:disarmed", and where an item stands as "1:2,3 2:10,0" (layout:column,row).
 */
final readonly class Layouts
{
    public const MOST = 20;
    private const NUMBER = '[1-9]|1\d|20';

    /**
     * @param array<int, Layout>    $layouts by number
     * @param array<int, ShownWhen> $when
     */
    private function __construct(public Raster $raster, public array $layouts, public array $when)
    {
    }

    /** As settings say; what cannot stand where it is said to is left out. */
    public static function in(SettingSet $set): self
    {
        $raster = Raster::tryFrom($set->text('overlay.raster')) ?? Raster::Lines625;
        $when = self::times($set->text('overlay.layouts', '1:always'));
        $layouts = array_map(static fn (): Layout => Layout::empty($raster), $when);
        foreach (OverlayItem::cases() as $item) {
            foreach (self::cells($set->text($item->setting())) as $number => [$column, $row]) {
                if (isset($layouts[$number]) && $layouts[$number]->fits($item, $column, $row)) {
                    $layouts[$number] = $layouts[$number]->with($item, $column, $row);
                }
            }
        }

        return new self($raster, $layouts, $when);
    }

    /**
     * "1:2,3 2:10,0" as it is kept.
     *
     * @return array<int, array{int, int}> column and row by layout
     *
     * @throws OverlayError
     */
    public static function cells(string $text): array
    {
        $cells = [];
        foreach (preg_split('~\s+~', trim($text), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $one) {
            if (1 !== preg_match('~^('.self::NUMBER.'):(\d{1,2}),(\d{1,2})$~', $one, $m) || isset($cells[(int) $m[1]])) {
                throw OverlayError::of(OverlayFlaw::BadCells, given: $one);
            }
            $cells[(int) $m[1]] = [(int) $m[2], (int) $m[3]];
        }
        ksort($cells);

        return $cells;
    }

    /** @param array<int, array{int, int}> $cells */
    public static function text(array $cells): string
    {
        ksort($cells);

        return implode(' ', array_map(static fn (int $n, array $c): string => "$n:$c[0],$c[1]", array_keys($cells), $cells));
    }

    /**
     * "1:always 2:disarmed" as it is kept.
     *
     * @return array<int, ShownWhen> by number; the first is always there
     *
     * @throws OverlayError
     */
    public static function times(string $text): array
    {
        $times = [];
        foreach (preg_split('~\s+~', trim($text), -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $one) {
            $when = 1 === preg_match('~^('.self::NUMBER.'):([a-z_]+)$~', $one, $m) ? ShownWhen::tryFrom($m[2]) : null;
            if (null === $when || isset($times[(int) $m[1]])) {
                throw OverlayError::of(OverlayFlaw::BadTimes, given: $one);
            }
            $times[(int) $m[1]] = $when;
        }
        ksort($times);

        return [] === $times ? [1 => ShownWhen::Always] : $times;
    }

    /** @param array<int, ShownWhen> $when */
    public static function timesText(array $when): string
    {
        ksort($when);

        return implode(' ', array_map(static fn (int $n, ShownWhen $w): string => "$n:$w->value", array_keys($when), $when));
    }

    /** Which is shown: the highest number of those that apply; null for none. */
    public function shown(OverlayMoment $now): ?int
    {
        $shown = null;
        foreach ($this->when as $number => $when) {
            $shown = $now->is($when) ? $number : $shown;
        }

        return $shown;
    }

    public function with(int $number, Layout $layout): self
    {
        return new self($this->raster, [$number => $layout] + $this->layouts, $this->when);
    }

    /**
     * What items' settings say of it.
     *
     * @return array<string, string> by setting
     */
    public function settings(): array
    {
        $values = [];
        foreach (OverlayItem::cases() as $item) {
            $cells = [];
            foreach ($this->layouts as $number => $layout) {
                if (isset($layout->at[$item->value])) {
                    $cells[$number] = $layout->at[$item->value];
                }
            }
            $values[$item->setting()] = self::text($cells);
        }

        return $values;
    }

    /**
     * All of them on another raster.
     *
     * @return array{self, array<int, array{list<OverlayItem>, list<OverlayItem>}>} and by number what was shifted, and what put away
     */
    public function on(Raster $raster): array
    {
        $layouts = $moved = [];
        foreach ($this->layouts as $number => $layout) {
            [$layouts[$number], $shifted, $away] = $layout->on($raster);
            $moved[$number] = [$shifted, $away];
        }

        return [new self($raster, $layouts, $this->when), $moved];
    }
}
