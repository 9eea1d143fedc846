<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** Each stick has a channel of its own. */
final readonly class ChannelsApart implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        $by = [];
        foreach (Channel::cases() as $stick) {
            $number = $set->whole("channel.$stick->value.number", $stick->usual());
            if (isset($by[$number])) {
                yield Clash::refuse(
                    "channel.$stick->value.number",
                    ClashCode::ChannelTwice,
                    stick: $stick->value,
                    other: $by[$number]->value,
                    number: $number,
                );
            }
            $by[$number] = $stick;
        }
    }
}
