<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency;

/** What the settings are to go together with. */
final readonly class Circumstances
{
    /**
     * @param int          $motors    of the airframe
     * @param string       $processor of the board
     * @param list<string> $leftOut   what the running build leaves out
     */
    public function __construct(public int $motors, public string $processor, public array $leftOut = [])
    {
    }
}
