<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Protocol;

/** What one whole frame of a receiver says. */
final readonly class RadioFrame
{
    public const CHANNELS = 16;

    /**
     * @param list<float> $channelsUs as many as the protocol carries
     * @param bool        $lost       whether the receiver says that it missed this one
     * @param bool        $failsafe   whether the receiver says that its own failsafe speaks
     */
    public function __construct(public array $channelsUs, public bool $lost = false, public bool $failsafe = false)
    {
    }
}
