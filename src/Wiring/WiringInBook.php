<?php

declare(strict_types=1);

namespace Ortholex\App\Wiring;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Mark\PartMark;
use Ortholex\App\Book\Mark\Point;
use Ortholex\App\Book\Mark\PointState;
use Ortholex\App\Book\Sheet\Part;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Wiring;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** What the book knows through sheet 13. */
#[AsTaggedItem(priority: 40)]
final readonly class WiringInBook implements PartMark
{
    public function __construct(private UrlGeneratorInterface $urls)
    {
    }

    public function part(): Part
    {
        return Part::Build;
    }

    public function points(Craft $craft): iterable
    {
        $board = BoardPads::of($craft->hardwareId ?? '');
        $wires = $craft->wires['wires'] ?? [];
        $wiring = null === $board ? null : Wiring::of($board, $craft->wires['parts'] ?? [], $wires, $craft->wires['bridged'] ?? []);
        yield new Point(
            'wires drawn',
            PointState::done(null !== $wiring && [] !== $wiring->wires && [] === $wiring->refusals()),
            $this->urls->generate('wiring', ['slug' => $craft->slug]),
        );
    }
}
