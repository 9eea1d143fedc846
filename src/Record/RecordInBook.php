<?php

declare(strict_types=1);

namespace Ortholex\App\Record;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Mark\PartMark;
use Ortholex\App\Book\Mark\Point;
use Ortholex\App\Book\Mark\PointState;
use Ortholex\App\Book\Search\HitKind;
use Ortholex\App\Book\Search\SearchHit;
use Ortholex\App\Book\Search\SearchSource;
use Ortholex\App\Book\Sheet\Part;
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

    public function points(Craft $craft): iterable
    {
        if ($craft->revision > 0) {
            $to = $this->urls->generate('changes', ['slug' => $craft->slug]);
            yield new Point('revisions on record', PointState::Done, $to, $craft->revision);
        }
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
