<?php

declare(strict_types=1);

namespace Ortholex\App\Overlay;

use Ortholex\Core\Overlay\OverlayItem;

/** One item as it stands on the picture. */
final readonly class ShownItem
{
    /**
     * @param list<string> $rows  its text, as wide as it is
     * @param bool         $lacks it has no source
     */
    public function __construct(
        public OverlayItem $item,
        public string $name,
        public int $column,
        public int $row,
        public int $wide,
        public int $high,
        public array $rows,
        public bool $lacks,
        public bool $staged,
    ) {
    }

    /** @return list<array{x: int, y: int, code: int}> cells that show something, in dots of the picture */
    public function letters(): array
    {
        $letters = [];
        foreach ($this->rows as $r => $row) {
            foreach (str_split($row) as $c => $letter) {
                if (' ' !== $letter) {
                    $letters[] = ['x' => 12 * ($this->column + $c), 'y' => 18 * ($this->row + $r), 'code' => \ord($letter)];
                }
            }
        }

        return $letters;
    }
}
