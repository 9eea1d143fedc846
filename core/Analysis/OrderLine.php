<?php

declare(strict_types=1);

namespace Ortholex\Core\Analysis;

/** A line in a noise map against rotor speed: how many times a revolution it comes. */
final readonly class OrderLine
{
    /** A true order goes through zero: this much of its frequency may be left over there. */
    private const OFF_ZERO = 0.12;

    /** @param float $order hz / (rpm / 60) in the middle of its range */
    private function __construct(public string $axis, public float $order, public float $db, public float $fromRpm, public float $toRpm)
    {
    }

    /**
     * @param list<Ridge> $ridges  of a map whose level is % of $fullRpm
     *
     * @return list<self> strongest first
     */
    public static function among(array $ridges, float $fullRpm): array
    {
        $lines = [];
        foreach ($ridges as $r) {
            $middle = ($r->fromPct + $r->toPct) / 2;
            if (Ridge::CLIMBING === $r->kind && abs($r->hzAtZero) < self::OFF_ZERO * $r->hz && $middle > 0) {
                $lines[] = new self($r->axis, $r->hz / ($middle / 100 * $fullRpm / 60), $r->db, $r->fromPct / 100 * $fullRpm, $r->toPct / 100 * $fullRpm);
            }
        }

        return $lines;
    }
}
