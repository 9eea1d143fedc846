<?php

declare(strict_types=1);

namespace Ortholex\App\Firmware;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Firmware\FitVerdict;

/** The flash of a board page by page, and which pages the chosen image takes. */
final readonly class FlashMap
{
    /** Pages drawn while no board is known. */
    private const UNKNOWN = 512;

    /**
     * @param int  $first   page that the image begins at
     * @param int  $count   pages that it takes; 0 for no image
     * @param bool $outside whether it does not belong there
     */
    private function __construct(public int $pages, public int $first, public int $count, public bool $outside)
    {
    }

    public static function of(Craft $craft, ?ImageExtent $extent, ?FitVerdict $verdict): self
    {
        $known = $craft->flashEnd > $craft->flashFrom;

        return new self(
            $known ? intdiv($craft->flashEnd - $craft->flashFrom, $craft->pageBytes) : self::UNKNOWN,
            null !== $extent && $known ? max(0, intdiv($extent->from - $craft->flashFrom, $craft->pageBytes)) : 0,
            $extent->pages ?? 0,
            $known && FitVerdict::DoesNotFit === $verdict,
        );
    }
}
