<?php

declare(strict_types=1);

namespace Ortholex\Core\Switches;

/** What was written is no zone of a channel. */
final class ZoneError extends \InvalidArgumentException
{
    public static function noChannel(int $channel): self
    {
        return new self("Channels are 1 to 16; there is no channel $channel.");
    }

    public static function notRising(int $channel, float $from, float $to): self
    {
        return new self(\sprintf('A zone rises from its lower edge to its upper; %d:%g-%g does not.', $channel, $from, $to));
    }

    public static function unreadable(string $text): self
    {
        return new self(
            'A zone is written channel:from-to in µs, as 5:1700-2200, either edge left out where it is open; zones that must hold '.
                "together are joined by “with”, others by a comma. “{$text}” is none.",
        );
    }

    public static function outside(string $text): self
    {
        return new self("Edges lie between 800 and 2200 µs, or are left out; “{$text}” has another.");
    }
}
