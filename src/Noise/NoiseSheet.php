<?php

declare(strict_types=1);

namespace Ortholex\App\Noise;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

/** Sheet 53. */
final readonly class NoiseSheet implements SheetOffer
{
    public function sheets(): array
    {
        return [
            new Sheet('53', 'Noise', 'What the gyro shakes with, before and after the filters.', 'noise'),
        ];
    }
}
