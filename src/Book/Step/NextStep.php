<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Step;

/** What a craft needs next, in a sentence, and where to do it. */
final readonly class NextStep
{
    /**
     * @param string $to    address of the place where it is done
     * @param string $label of the button that leads there
     */
    public function __construct(public Urgency $urgency, public string $text, public string $to, public string $label)
    {
    }
}
