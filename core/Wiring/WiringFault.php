<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

/** One thing wrong with the wiring, in words, at its wire or its part. */
final readonly class WiringFault
{
    public const REFUSE = 'refuse';
    public const WARN = 'warn';

    /**
     * @param self::REFUSE|self::WARN $weight refuse: it cannot work or does damage; warn: it works, but…
     * @param int|null                $wire   index of the wire it stands at
     */
    public function __construct(public string $weight, public string $text, public string $part, public ?int $wire)
    {
    }
}
