<?php

declare(strict_types=1);

namespace Ortholex\App\Noise\Desk;

/** What the sheet of a measurement on the desk shows. */
final readonly class DeskView
{
    /**
     * @param DeskDrawing|null $drawing null before the first
     * @param list<string>     $says
     * @param list<string>     $cannot  what it does not tell
     * @param list<string>     $open    interlocks that are still to be met
     */
    public function __construct(
        public ?DeskDrawing $drawing,
        public array $says,
        public array $cannot,
        public ?\DateTimeImmutable $takenAt,
        public array $open,
    ) {
    }
}
