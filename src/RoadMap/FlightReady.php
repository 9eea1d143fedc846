<?php

declare(strict_types=1);

namespace Ortholex\App\RoadMap;

use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Settings\Airframes;

/** Whether a craft could take off now, by what stands on the bench. */
final readonly class FlightReady
{
    public function __construct(private Benches $benches, private Airframes $frames)
    {
    }

    /** '' where it could. */
    public function whyNot(Craft $craft): string
    {
        $state = $this->benches->of($craft)->state();

        return match (true) {
            !$craft->isKnown() => 'Link the craft once first, on sheet 11.',
            !$state->pack => 'The pack is not connected. Switch it on at the bench strip.',
            !$state->props => 'The props are off. Fit them at the bench strip.',
            !$state->transmitter => 'The transmitter is off. Switch it on at the bench strip.',
            !$state->outdoors => 'The craft is indoors. Carry it outdoors at the bench strip.',
            $state->bootloader => 'The board has no whole firmware. Write it on sheet 12.',
            [] !== $this->frames->unfounded($craft) => 'An output drives a motor that the frame lacks, so it will not arm: see 15.',
            default => '',
        };
    }
}
