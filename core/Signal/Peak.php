<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

/** A local maximum of a spectrum: where, how strong (dB of unit²/Hz) and how far above its surroundings. */
final readonly class Peak
{
    public function __construct(public float $hz, public float $db, public float $prominenceDb)
    {
    }
}
