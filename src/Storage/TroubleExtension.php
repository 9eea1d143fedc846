<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Twig\Extension\AbstractExtension;
use Twig\TwigFunction;

/** What a page could not read, for the page itself. */
final class TroubleExtension extends AbstractExtension
{
    public function __construct(private readonly Trouble $trouble)
    {
    }

    public function getFunctions(): array
    {
        return [new TwigFunction('trouble', $this->trouble->met(...))];
    }
}
