<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay\Chip;

use Ortholex\Core\Firmware\Version;

/** What stands beside an image for an overlay chip: its kind, its version, and the hash of its bytes. */
final readonly class ChipManifest
{
    private function __construct(
        public string $kind,
        public Version $version,
        public string $sha256,
        public string $date,
        public string $notes,
    ) {
    }

    /** @param array<mixed> $data null where it names no kind, version and hash */
    public static function fromArray(array $data): ?self
    {
        $text = static fn (string $name): string => \is_string($data[$name] ?? null) ? $data[$name] : '';
        if ('' === $text('product') || 1 !== preg_match('~^\d+\.\d+~', $text('version')) || 64 !== \strlen($text('sha256'))) {
            return null;
        }

        return new self($text('product'), Version::parse($text('version')), $text('sha256'), $text('date'), $text('notes'));
    }
}
