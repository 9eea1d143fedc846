<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency\Rule;

use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Rule;

/** A channel rises from its low end through the middle to its high end. */
final readonly class SpansRise implements Rule
{
    public function broken(SettingSet $set, Circumstances $of): iterable
    {
        foreach (Channel::cases() as $channel) {
            $span = array_map(
                static fn (string $part): float => $set->number("channel.{$channel->value}.{$part}_us"),
                ['low', 'middle', 'high'],
            );
            if ($span[0] >= $span[1] || $span[1] >= $span[2]) {
                yield Clash::refuse("channel.{$channel->value}.middle_us", ClashCode::SpanNotRising, channel: $channel->value);
            }
        }
    }
}
