<?php

declare(strict_types=1);

namespace Ortholex\Core\FlightLog\Reading;

/** What one column of a foreign log is taken for, and how surely. */
final readonly class ColumnGuess
{
    public const SURE = 0.8;

    /**
     * @param string|null $trace canonical name, `time_s` for the time; null when it is none of ours
     * @param float       $score 0 to 1
     * @param bool        $unitSure whether its unit needs no asking
     */
    public function __construct(
        public int $column,
        public string $name,
        public ?string $trace,
        public float $score,
        public bool $unitSure = true,
    ) {
    }

    public function inUnit(bool $sure): self
    {
        return new self($this->column, $this->name, $this->trace, $this->score, $sure);
    }

    /** Whether its name says surely what it is, whatever its unit. */
    public function isNamedSurely(): bool
    {
        return $this->score >= self::SURE;
    }

    public function isSure(): bool
    {
        return $this->isNamedSurely() && $this->unitSure;
    }
}
