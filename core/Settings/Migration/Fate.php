<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Migration;

use Ortholex\Core\Fact\Fact;

/** One setting of the old release, the new one, or both, and what became of it. */
final readonly class Fate
{
    /** @param Fact|null $reason of FateReason; null where it was kept */
    public function __construct(
        public FateKind $kind,
        public ?string $oldName,
        public float|int|bool|string|null $oldValue,
        public ?string $newName,
        public float|int|bool|string|null $newValue,
        public ?Fact $reason,
    ) {
    }
}
