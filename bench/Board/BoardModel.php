<?php

declare(strict_types=1);

namespace Ortholex\Bench\Board;

use Ortholex\Core\Parts\BoardPart;

/** A make of flight controller: what is printed on it and soldered to it. */
final readonly class BoardModel
{
    /**
     * @param list<string> $sensors
     * @param string       $overlayChip that sits on it; '' for none
     * @param int          $recorderBytes memory for logs; 0 for none
     */
    public function __construct(
        public string $hardwareId,
        public string $name,
        public string $processor,
        public int $flashFrom,
        public int $flashEnd,
        public int $pageBytes,
        public string $serial,
        public array $sensors = ['gyro', 'accelerometer', 'voltage'],
        public string $overlayChip = '',
        public int $recorderBytes = 0,
    ) {
    }

    public static function of(BoardPart $part, string $serial): self
    {
        return new self(
            $part->id,
            $part->name,
            $part->processor,
            $part->flashFrom,
            $part->flashEnd,
            $part->pageBytes,
            $serial,
            $part->sensors,
            $part->chip,
            $part->recorderMb * 1024 * 1024,
        );
    }

    public function flashBytes(): int
    {
        return $this->flashEnd - $this->flashFrom;
    }
}
