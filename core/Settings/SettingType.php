<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

/** What values a setting takes. */
enum SettingType: string
{
    /** A float on a grid. */
    case Number = 'number';

    case Whole = 'whole';

    /** On or off. */
    case Flag = 'switch';

    /** One of a few words. */
    case Choice = 'choice';

    /** Whole numbers in rising order, kept as "1,2". */
    case Integers = 'list';

    /** When an action is on: zones of channels, kept as "5:1700- with 6:-1300, 7:1200-1800". */
    case Zones = 'zones';

    /** Two whole numbers, the lower first, kept as "150,420". */
    case Band = 'band';

    /** Where something stands on a picture, by layout, kept as "1:2,3 2:10,0". */
    case Cells = 'cells';

    /** When each layout is shown, kept as "1:always 2:disarmed". */
    case Times = 'times';

    public function isNumeric(): bool
    {
        return self::Number === $this || self::Whole === $this;
    }
}
