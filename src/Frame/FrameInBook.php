<?php

declare(strict_types=1);

namespace Ortholex\App\Frame;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Mark\PartMark;
use Ortholex\App\Book\Mark\Point;
use Ortholex\App\Book\Mark\PointState;
use Ortholex\App\Book\Sheet\Part;
use Ortholex\App\Proof\Proofs;
use Ortholex\Core\Proof\Proved;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** What the book knows through sheet 14. */
#[AsTaggedItem(priority: 35)]
final readonly class FrameInBook implements PartMark
{
    public function __construct(private Proofs $proofs, private UrlGeneratorInterface $urls)
    {
    }

    public function part(): Part
    {
        return Part::Build;
    }

    public function points(Craft $craft): iterable
    {
        $to = $this->urls->generate('frame', ['slug' => $craft->slug]);
        yield new Point('board mounting shown', PointState::done($this->proofs->hold($craft, Proved::Mounting)), $to);
        yield new Point('levelled', PointState::done($this->proofs->hold($craft, Proved::Level)), $to);
    }
}
