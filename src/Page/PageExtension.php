<?php

declare(strict_types=1);

namespace Ortholex\App\Page;

use Twig\Extension\AbstractExtension;
use Twig\TwigFunction;

/** Lets templates draw a craft from its figures. */
final class PageExtension extends AbstractExtension
{
    public function getFunctions(): array
    {
        return [new TwigFunction('drawn', FrameDrawing::of(...))];
    }
}
