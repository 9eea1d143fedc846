<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\Craft\SettingSet;

/** A flight that is behind us: what it was flown with, and what its log can be used for. */
final readonly class FlownLog
{
    /**
     * @param SettingSet   $settings none where the log does not say
     * @param Hindrance|null $hinders what must be seen to before another flight
     * @param Card|null    $card     that was flown, where it is known
     * @param string       $name     what it is called
     */
    public function __construct(
        public SettingSet $settings,
        public Adequacy $adequacy,
        public ?Hindrance $hinders = null,
        public ?Card $card = null,
        public string $name = '',
    ) {
    }
}
