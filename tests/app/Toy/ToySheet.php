<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Toy;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\SheetOffer;

final readonly class ToySheet implements SheetOffer
{
    public function sheets(): array
    {
        return [new Sheet('24', 'Toy', 'Shows that a sheet plugs in by its folder.', 'toy')];
    }
}
