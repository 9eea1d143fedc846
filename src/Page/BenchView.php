<?php

declare(strict_types=1);

namespace Ortholex\App\Page;

use Ortholex\Core\World\BenchState;
use Ortholex\Core\World\Radio;

/** The bench strip of one craft. */
final readonly class BenchView
{
    public const TILTS = ['level', 'nose_up', 'nose_down', 'right_down', 'left_down', 'upside_down'];

    /**
     * @param array<string, string> $faults  what each is, by name
     * @param array<string, string> $mishaps the same
     */
    public function __construct(public BenchState $state, public array $faults, public array $mishaps, public ?Radio $radio)
    {
    }
}
