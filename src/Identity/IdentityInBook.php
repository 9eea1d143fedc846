<?php

declare(strict_types=1);

namespace Ortholex\App\Identity;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Mark\PartMark;
use Ortholex\App\Book\Mark\Point;
use Ortholex\App\Book\Mark\PointState;
use Ortholex\App\Book\Search\HitKind;
use Ortholex\App\Book\Search\SearchHit;
use Ortholex\App\Book\Search\SearchSource;
use Ortholex\App\Book\Sheet\Part;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use Ortholex\App\Identity\Believed\Beliefs;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** What the book knows through sheet 11. */
#[AsTaggedItem(priority: 45)]
final readonly class IdentityInBook implements NextStepSource, PartMark, SearchSource
{
    public function __construct(private UrlGeneratorInterface $urls, private Beliefs $beliefs)
    {
    }

    public function part(): Part
    {
        return Part::Build;
    }

    public function points(Craft $craft): iterable
    {
        $to = $this->urls->generate('identity', ['slug' => $craft->slug]);
        yield $craft->inBootloader
            ? new Point('firmware: only the bootloader answers', PointState::Blocked, $to)
            : new Point('board read', PointState::done($craft->isKnown()), $to);
    }

    public function steps(Craft $craft): iterable
    {
        if (!$craft->isKnown()) {
            yield new NextStep(
                Urgency::Unknown,
                'Plug the cable and link it, so that its board is read and a snapshot is kept before anything is changed.',
                $this->urls->generate('identity', ['slug' => $craft->slug]),
                'Look before touching',
            );
        }
        $open = \count($this->beliefs->open($craft));
        if ($open > 0) {
            yield new NextStep(
                Urgency::Uneven,
                'Book and craft differ in '.(1 === $open ? 'one setting' : "$open settings").': say which stand.',
                $this->urls->generate('identity', ['slug' => $craft->slug]).'#believed',
                'Say which',
            );
        }
    }

    public function hits(Craft $craft): iterable
    {
        $to = $this->urls->generate('identity', ['slug' => $craft->slug]);
        yield new SearchHit(HitKind::Action, 'Link the board', 'read who it is and all its settings', $to);
    }
}
