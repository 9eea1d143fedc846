<?php

declare(strict_types=1);

namespace Ortholex\App\Motors\Reading;

use Ortholex\Core\Esc\OddOnes;

/** The rpm feedback check as sheet 15 shows it. */
final readonly class FeedbackView
{
    /** @param array<string, FeedbackRow> $rows by place */
    public function __construct(public array $rows, public int $set, public \DateTimeImmutable $takenAt)
    {
    }

    /** The pole count that most motors agree on; null when they cannot be told. */
    public function toldMagnets(): ?int
    {
        $found = array_filter(
            array_map(static fn (FeedbackRow $r): ?int => $r->magnets, $this->rows),
            static fn (?int $m): bool => null !== $m,
        );
        $common = OddOnes::of($found)->common;

        return \is_int($common) ? $common : null;
    }

    public function isWrong(): bool
    {
        return null !== $this->toldMagnets() && $this->toldMagnets() !== $this->set;
    }

    /** @return list<string> places with feedback errors */
    public function erring(): array
    {
        return array_keys(array_filter($this->rows, static fn (FeedbackRow $r): bool => $r->errorsPct > 0.05));
    }

    /** Whether the rpm is shown lower than it is. */
    public function isLow(): bool
    {
        return $this->offPct() < 0;
    }

    /** How far the shown rpm is off, %. */
    public function offPct(): float
    {
        return null === $this->toldMagnets() ? 0.0 : 100 * ($this->toldMagnets() / $this->set - 1);
    }
}
