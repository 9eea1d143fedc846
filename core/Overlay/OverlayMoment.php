<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay;

/** What a board knows when it chooses the layout. */
final readonly class OverlayMoment
{
    public function __construct(
        public bool $armed = false,
        public bool $packLow = false,
        public bool $linkWeak = false,
        public bool $returning = false,
        public bool $action = false,
    ) {
    }

    public function is(ShownWhen $when): bool
    {
        return match ($when) {
            ShownWhen::Always => true,
            ShownWhen::Disarmed => !$this->armed,
            ShownWhen::Armed => $this->armed,
            ShownWhen::PackLow => $this->packLow,
            ShownWhen::LinkWeak => $this->linkWeak,
            ShownWhen::Returning => $this->returning,
            ShownWhen::Action => $this->action,
        };
    }
}
