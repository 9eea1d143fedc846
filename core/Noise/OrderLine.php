<?php

declare(strict_types=1);

namespace Ortholex\Core\Noise;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Stored;

/** A line in a noise map against rotor speed: how many times a revolution it comes. */
final readonly class OrderLine
{
    /** A true order goes through zero: this much of its frequency may be left over there. */
    private const OFF_ZERO = 0.12;

    /** @param float $order hz / (rpm / 60) in the middle of its range */
    private function __construct(public Axis $axis, public float $order, public float $db, public float $fromRpm, public float $toRpm)
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
            if (RidgeKind::Climbing === $r->kind && abs($r->hzAtZero) < self::OFF_ZERO * $r->hz && $middle > 0) {
                $lines[] = new self(
                    $r->axis,
                    $r->hz / ((($middle / 100) * $fullRpm) / 60),
                    $r->db,
                    ($r->fromPct / 100) * $fullRpm,
                    ($r->toPct / 100) * $fullRpm,
                );
            }
        }

        return $lines;
    }

    /** To the digits that a report carries. */
    public function rounded(): self
    {
        return new self($this->axis, round($this->order, 3), round($this->db, 2), round($this->fromRpm), round($this->toRpm));
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'axis' => $this->axis->value,
            'order' => $this->order,
            'db' => $this->db,
            'from_rpm' => $this->fromRpm,
            'to_rpm' => $this->toRpm,
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self(
            $data->choice('axis', Axis::class),
            $data->number('order'),
            $data->number('db'),
            $data->number('from_rpm'),
            $data->number('to_rpm'),
        );
    }
}
