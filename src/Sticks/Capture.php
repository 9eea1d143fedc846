<?php

declare(strict_types=1);

namespace Ortholex\App\Sticks;

use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Fact\Fact;

/** A capture that is under way. */
final readonly class Capture
{
    /**
     * @param Channel|null $asked the stick that is asked for now, where one is
     * @param Fact|null    $why   what hinders, so that it is asked for again (of OrderCode)
     */
    public function __construct(
        public CaptureKind $kind,
        public ?Channel $asked,
        public int $plugging,
        public int $lastFrame,
        public ?Fact $why = null,
    ) {
    }

    /** What is asked for and what hinders, in one word: a page that shows another one is old. */
    public function state(): string
    {
        return trim(($this->asked->value ?? '').' '.($this->why->code->value ?? ''));
    }
}
