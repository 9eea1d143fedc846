<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

/** The bench has no such thing, or it cannot be moved there. */
final class NothingToMove extends \InvalidArgumentException
{
    public static function thing(string $thing): self
    {
        return new self("The bench has no “{$thing}” to move.");
    }

    public static function fault(string $fault): self
    {
        return new self("The bench has no fault “{$fault}”.");
    }

    public static function places(string $places): self
    {
        return new self("What sits at “{$places}” cannot be swapped; name two places of this craft.");
    }

    public static function underPower(): self
    {
        return new self('Nobody solders under power: take the flight pack off first.');
    }

    public static function bindsNothing(): self
    {
        return new self('A transmitter binds while it is on: switch it on first.');
    }

    public static function pack(string $to, float $least, float $most): self
    {
        return new self(\sprintf('A pack cannot be at “%s”; %g to %g can be.', $to, $least, $most));
    }

    public static function control(string $control, string $to): self
    {
        return new self("The radio has no “{$control}” that goes to “{$to}”.");
    }

    /** @param list<string> $ways */
    public static function tilt(string $to, array $ways): self
    {
        return new self("The craft cannot be tilted to “{$to}”; it can lie ".implode(', ', $ways).'.');
    }
}
