<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Sheet;

/** The seven parts of a book, in the order of the work. */
enum Part: string
{
    case Build = '1';
    case Command = '2';
    case Guard = '3';
    case Aids = '4';
    case Flights = '5';
    case Tune = '6';
    case Record = '7';

    public function title(): string
    {
        return $this->name;
    }
}
