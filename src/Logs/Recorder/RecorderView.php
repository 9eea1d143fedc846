<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Recorder;

use Ortholex\App\FlightLog\Log;

/** The recorder of a craft as sheet 51 shows it. */
final readonly class RecorderView
{
    /**
     * @param string                                              $board    its name
     * @param int                                                 $bytes    of its memory; 0 where it has none
     * @param list<array{number: int, bytes: int, log: Log|null}> $there    oldest first
     * @param float                                               $leftS    that it could still write, at least
     * @param int                                                 $traces   in a log of this craft
     * @param string                                              $rateHz   as it is set
     * @param float                                               $busyS    until it has erased itself
     * @param bool                                                $writes   whether it is set to write there
     * @param bool                                                $byLever  whether a lever turns it on and off
     */
    public function __construct(
        public string $board,
        public int $bytes,
        public int $free,
        public array $there,
        public float $leftS,
        public int $traces,
        public string $rateHz,
        public float $busyS,
        public bool $writes,
        public bool $byLever,
    ) {
    }

    public function megabytes(): string
    {
        return \sprintf('%.1f of %.0f MB', ($this->bytes - $this->free) / 1e6, $this->bytes / 1e6);
    }

    /** In minutes and seconds. */
    public function room(): string
    {
        return \sprintf('%u min %02u s', intdiv((int) $this->leftS, 60), (int) $this->leftS % 60);
    }

    /** @return list<int> numbers of those that are not in the book */
    public function new(): array
    {
        return array_column(array_filter($this->there, static fn (array $r): bool => null === $r['log']), 'number');
    }

    /**
     * Where each stands on a bar of the whole memory.
     *
     * @return list<array{number: int, x: float, wide: float, new: bool}> in per cent
     */
    public function bar(): array
    {
        $bar = [];
        $x = 0.0;
        foreach ($this->there as $r) {
            $wide = 100 * $r['bytes'] / max(1, $this->bytes);
            $bar[] = ['number' => $r['number'], 'x' => $x, 'wide' => $wide, 'new' => null === $r['log']];
            $x += $wide;
        }

        return $bar;
    }
}
