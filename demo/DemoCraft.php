<?php

declare(strict_types=1);

namespace Ortholex\Demo;

use Ortholex\Bench\Board\BoardModel;
use Ortholex\Bench\Flight\CraftPhysics;

/** One craft of the scenario: what it is, and with what firmware and settings it stands on the bench. */
final readonly class DemoCraft
{
    /**
     * @param list<string>                         $uses     what a firmware build must not leave out
     * @param array<string, float|int|bool|string> $settings what differs from defaults
     */
    public function __construct(
        public string $slug,
        public string $name,
        public string $kind,
        public string $purpose,
        public string $story,
        public BoardModel $model,
        public CraftPhysics $physics,
        public string $version,
        public array $uses,
        public array $settings,
    ) {
    }
}
