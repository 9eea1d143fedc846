<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware;

use Ortholex\Core\Firmware\Exception\ManifestError;

/** What the shelf says of an image: for which hardware it is, where it goes, what it holds. */
final readonly class Manifest
{
    /**
     * @param list<string> $hardware  hardware ids it may be written to
     * @param list<string> $leftOut   what this build leaves out, such as "gps"
     */
    public function __construct(
        public string $product,
        public Version $version,
        public array $hardware,
        public string $board,
        public string $processor,
        public int $flashFrom,
        public int $flashEnd,
        public array $leftOut,
        public string $sha256,
        public string $date,
        public string $notes,
    ) {
    }

    /**
     * @param array<mixed> $data decoded YAML or JSON
     *
     * @throws ManifestError naming the key that is missing or wrong
     */
    public static function fromArray(array $data): self
    {
        $text = static function (string $key) use ($data): string {
            $value = $data[$key] ?? null;

            return \is_string($value) ? $value : throw ManifestError::lacksText($key);
        };
        $number = static function (string $key) use ($data): int {
            $value = $data[$key] ?? null;

            return \is_int($value) ? $value : throw ManifestError::lacksWhole($key);
        };
        $list = static function (string $key) use ($data): array {
            $value = $data[$key] ?? null;

            return \is_array($value)
                ? array_values(array_filter($value, 'is_string'))
                : throw ManifestError::lacksList($key);
        };

        return new self(
            $text('product'),
            Version::parse($text('version')),
            $list('hardware'),
            $text('board'),
            $text('processor'),
            $number('flash_from'),
            $number('flash_end'),
            $list('left_out'),
            $text('sha256'),
            $text('date'),
            $text('notes'),
        );
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'product' => $this->product,
            'version' => $this->version->toString(),
            'hardware' => $this->hardware,
            'board' => $this->board,
            'processor' => $this->processor,
            'flash_from' => $this->flashFrom,
            'flash_end' => $this->flashEnd,
            'left_out' => $this->leftOut,
            'sha256' => $this->sha256,
            'date' => $this->date,
            'notes' => $this->notes,
        ];
    }
}
