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
     */
    public function __construct(public int $column, public string $name, public ?string $trace, public float $score)
    {
    }

    public function isSure(): bool
    {
        return $this->score >= self::SURE;
    }
}
