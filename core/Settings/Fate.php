<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

/** What became of one setting between two versions: kept, converted, clipped, dropped or new. */
final readonly class Fate
{
    public const KEPT = 'kept';
    public const CONVERTED = 'converted';
    public const CLIPPED = 'clipped';
    public const DROPPED = 'dropped';
    public const NEW = 'new';

    /** @param self::* $kind */
    public function __construct(
        public string $kind,
        public ?string $oldName,
        public float|int|bool|string|null $oldValue,
        public ?string $newName,
        public float|int|bool|string|null $newValue,
        public string $reason,
    ) {
    }
}
