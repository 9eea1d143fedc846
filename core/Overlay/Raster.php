<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay;

/** The grid of cells over a picture. */
enum Raster: string
{
    /** Analogue video of 625 lines. */
    case Lines625 = 'lines_625';

    /** Analogue video of 525 lines. */
    case Lines525 = 'lines_525';

    case Digital = 'digital';

    public function columns(): int
    {
        return self::Digital === $this ? 46 : 28;
    }

    public function rows(): int
    {
        return match ($this) {
            self::Lines625 => 15,
            self::Lines525 => 12,
            self::Digital => 20,
        };
    }

    /** Width of the picture over its height. */
    public function shape(): float
    {
        return self::Digital === $this ? 16 / 9 : 4 / 3;
    }

    public function code(): int
    {
        return (int) array_search($this, self::cases(), true);
    }
}
