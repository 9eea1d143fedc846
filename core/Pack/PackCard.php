<?php

declare(strict_types=1);

namespace Ortholex\Core\Pack;

/** One pack: what it is called and holds, the flights it was flown in, and what they told of its resistance. */
final readonly class PackCard
{
    /** A pack whose resistance rose by so much since it was new has aged. */
    private const AGED = 1.5;

    /**
     * @param int       $id    within its craft
     * @param float     $ah    that it holds when new
     * @param list<int> $logs  flights, oldest first
     * @param bool      $inUse whether flights are put down to it
     */
    private function __construct(
        public int $id,
        public string $name,
        public int $cells,
        public float $ah,
        public array $logs,
        public bool $inUse,
    ) {
    }

    public static function fresh(int $id, string $name, int $cells, float $ah): self
    {
        return new self($id, $name, $cells, $ah, [], true);
    }

    /** @param array<mixed> $kept as toArray() gave it */
    public static function fromArray(array $kept): self
    {
        $whole = static fn (string $name): int => is_numeric($kept[$name] ?? null) ? (int) $kept[$name] : 0;

        return new self(
            $whole('id'),
            \is_string($kept['name'] ?? null) ? $kept['name'] : '',
            max(1, $whole('cells')),
            is_numeric($kept['ah'] ?? null) ? max(0.05, (float) $kept['ah']) : 1.0,
            \is_array($kept['logs'] ?? null) ? array_values(array_filter($kept['logs'], \is_int(...))) : [],
            true === ($kept['in_use'] ?? false),
        );
    }

    public function flownIn(int $log): self
    {
        return new self($this->id, $this->name, $this->cells, $this->ah, [...$this->logs, $log], $this->inUse);
    }

    public function notFlownIn(int $log): self
    {
        $logs = array_values(array_filter($this->logs, static fn (int $id): bool => $id !== $log));

        return new self($this->id, $this->name, $this->cells, $this->ah, $logs, $this->inUse);
    }

    public function used(bool $inUse): self
    {
        return new self($this->id, $this->name, $this->cells, $this->ah, $this->logs, $inUse);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'id' => $this->id,
            'name' => $this->name,
            'cells' => $this->cells,
            'ah' => $this->ah,
            'logs' => $this->logs,
            'in_use' => $this->inUse,
        ];
    }

    /**
     * How its resistance rose, newest over first; only where the intervals do not touch has it really risen.
     *
     * @param list<PackFit> $fits of its flights, oldest first
     *
     * @return float|null null with fewer than two flights that tell
     */
    public static function rise(array $fits): ?float
    {
        $last = \count($fits) - 1;

        return $last < 1 || $fits[0]->ohm <= 0 ? null : $fits[$last]->ohm / $fits[0]->ohm;
    }

    /** @param list<PackFit> $fits */
    public static function ages(array $fits): bool
    {
        $last = \count($fits) - 1;

        return (self::rise($fits) ?? 0.0) >= self::AGED && $fits[$last]->low > $fits[0]->high;
    }
}
