<?php

declare(strict_types=1);

namespace Ortholex\Core\Position\Module;

use Ortholex\Core\Position\Nmea\Sentence;

/** What a Plumb G2 says to what it was told: done or not, and what it works with where it was asked. */
final readonly class PlumbAnswer
{
    private function __construct(
        public bool $done,
        public ?int $baud = null,
        public ?int $rate = null,
        public ?Constellations $sky = null,
        public bool $kept = false,
    ) {
    }

    /** The last of its answers among bytes; null where it says nothing of the kind. */
    public static function in(string $bytes): ?self
    {
        $answer = null;
        foreach (explode("\n", $bytes) as $line) {
            $said = Sentence::in($line);
            if (null === $said || 'PPLG' !== $said->talker.$said->type) {
                continue;
            }
            $f = $said->fields;
            $answer = match ($f[0] ?? '') {
                'OK' => new self(true),
                'NO' => new self(false),
                'IS' => new self(
                    true,
                    (int) ($f[1] ?? 0),
                    (int) ($f[2] ?? 0),
                    Constellations::tryFrom(strtolower($f[3] ?? '')),
                    'KEPT' === ($f[4] ?? ''),
                ),
                default => $answer,
            };
        }

        return $answer;
    }
}
