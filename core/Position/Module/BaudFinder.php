<?php

declare(strict_types=1);

namespace Ortholex\Core\Position\Module;

use Ortholex\Core\Position\NmeaScan;

/** The rate at which a position receiver speaks: that at which most of what is heard are whole sentences. */
final readonly class BaudFinder
{
    /** A rate needs so many whole ones, and more whole than broken. */
    private const LEAST = 2;

    /** @param array<int, NmeaScan> $heard by rate */
    private function __construct(public ?int $baud, public array $heard, public bool $silent)
    {
    }

    /** @param \Closure(int): string $listen what is heard at a rate */
    public static function find(\Closure $listen): self
    {
        $heard = [];
        $silent = true;
        foreach (PlumbCommand::BAUDS as $baud) {
            $bytes = $listen($baud);
            $silent = $silent && '' === $bytes;
            $heard[$baud] = NmeaScan::of($bytes);
            if ($heard[$baud]->whole >= self::LEAST && $heard[$baud]->whole > $heard[$baud]->broken) {
                return new self($baud, $heard, false);
            }
        }

        return new self(null, $heard, $silent);
    }
}
