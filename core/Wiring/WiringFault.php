<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

use Ortholex\Core\Fact\Fact;

/** One thing wrong with the wiring, at its wire or its part. */
final readonly class WiringFault
{
    /**
     * @param Fact     $what    of WiringCode
     * @param bool     $refuses it cannot work or does damage; if not, it is to be minded
     * @param string   $part    id of the part
     * @param int|null $wire    index of the wire it stands at
     */
    private function __construct(public Fact $what, public bool $refuses, public string $part, public ?int $wire)
    {
    }

    /** @param float|int|string|list<string>|Fact ...$figures named */
    public static function of(WiringCode $code, Part $part, ?int $wire = null, float|int|string|array|Fact ...$figures): self
    {
        /** @var array<string, float|int|string|list<string>|Fact> $figures */
        return new self(Fact::of($code, ...['name' => $part->name] + $figures), $code->refuses(), $part->id, $wire);
    }
}
