<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

/** What of another craft's settings can be taken over. Wiring, mounting, spans, output pads and calibrations are each craft's own. */
enum TakeOverPart: string
{
    case Gains = 'gains';
    case Filters = 'filters';
    case Feel = 'feel';
    case Switches = 'switches';
    case Overlay = 'overlay';

    public function has(string $setting): bool
    {
        return 1 === preg_match(
            match ($this) {
                self::Gains => '~^gain\.~',
                self::Filters => '~^(rate_path|d_path|notch|command_low_pass|filter)\.~',
                self::Feel => '~^(feel|throttle)\.~',
                self::Switches => '~^(action|arming|angle|horizon|disarm|interlock)\.~',
                self::Overlay => '~^overlay\.(item\.|layouts$|raster$)~',
            },
            $setting,
        );
    }
}
