<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Search;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Crafts;
use Ortholex\App\Book\Sheet\Sheets;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** Sheets, and the other craft. */
final readonly class BookSearch implements SearchSource
{
    public function __construct(private Crafts $crafts, private Sheets $sheets, private UrlGeneratorInterface $urls)
    {
    }

    public function hits(Craft $craft): iterable
    {
        foreach ($this->sheets->all() as $sheet) {
            $to = $this->urls->generate($sheet->route, ['slug' => $craft->slug] + ($sheet->built ? [] : ['sheet' => $sheet->number]));
            yield new SearchHit(HitKind::Sheet, "$sheet->number $sheet->name", $sheet->will, $to);
        }
        foreach ($this->crafts->all() as $other) {
            if ($other !== $craft) {
                $first = $this->sheets->firsts()[0];
                yield new SearchHit(
                    HitKind::Craft,
                    $other->name,
                    $other->kind,
                    $this->urls->generate($first->route, ['slug' => $other->slug]),
                );
            }
        }
    }
}
