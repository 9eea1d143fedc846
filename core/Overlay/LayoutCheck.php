<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Fact;

/** What is to be minded of a layout that can be. */
final readonly class LayoutCheck
{
    /** @param list<string> $sensors of the board */
    public function __construct(private SettingSet $set, private array $sensors)
    {
    }

    /** @return list<Fact> */
    public function of(Layout $layout): array
    {
        $facts = [];
        $analogue = Raster::Digital !== $layout->raster;
        foreach ($layout->items() as $item) {
            $need = $item->needs();
            if (null !== $need && !$need->isMet($this->set, $this->sensors)) {
                $facts[] = Fact::of(OverlayFlaw::NoSource, item: $item, need: $need);
            }
            [$column, $row] = $layout->at[$item->value];
            [$wide, $high] = $item->size();
            // Screens and goggles cut the edge of an analogue picture off.
            if ($analogue && (0 === $column || $column + $wide === $layout->raster->columns())) {
                $facts[] = Fact::of(OverlayFlaw::AtEdge, item: $item);
            }
            for ($r = $row; $r < $row + $high; ++$r) {
                $beside = $layout->in($column + $wide, $r);
                if (null !== $beside) {
                    $facts[] = Fact::of(OverlayFlaw::RunTogether, item: $item, other: $beside);
                    break;
                }
            }
        }
        if ([] !== $layout->at && !isset($layout->at[OverlayItem::Warnings->value])) {
            $facts[] = Fact::of(OverlayFlaw::NoWarnings);
        }

        return $facts;
    }
}
