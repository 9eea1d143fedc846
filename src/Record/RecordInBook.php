<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Search\HitKind;
use Ortholex\App\Book\Search\SearchHit;
use Ortholex\App\Book\Search\SearchSource;
use Ortholex\App\Book\Sheet\Part;
use Ortholex\App\Book\Sheet\PartMark;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** What the book knows through sheets 71 to 73. */
final readonly class RecordInBook implements PartMark, SearchSource
{
    public function __construct(private UrlGeneratorInterface $urls)
    {
    }

    public function part(): Part
    {
        return Part::Record;
    }

    public function mark(Craft $craft): string
    {
        return $craft->revision > 0 ? (string) $craft->revision : '';
    }

    public function hits(Craft $craft): iterable
    {
        $at = ['slug' => $craft->slug];
        yield new SearchHit(
            HitKind::Action,
            'Take a snapshot',
            'a full, named copy of the settings',
            $this->urls->generate('snapshots', $at),
        );
        yield new SearchHit(HitKind::Action, 'Settings as YAML', 'read or write all of them', $this->urls->generate('settings', $at));
    }
}
