<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

/** What a log says of the gains of one axis. */
final readonly class GainFinding
{
    /**
     * @param string $mark   small, beside the title
     * @param string $staged what the staged gains would do; '' where none differ
     * @param string $better what would be better, and what it costs; '' where nothing is proposed
     * @param array<string, float> $proposal settings by name, to be staged
     */
    public function __construct(
        public string $axis,
        public string $title,
        public string $mark,
        public string $text,
        public string $staged = '',
        public string $better = '',
        public array $proposal = [],
    ) {
    }
}
