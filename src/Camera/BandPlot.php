<?php

declare(strict_types=1);

namespace Ortholex\App\Camera;

use Ortholex\Core\Video\Channels;
use Ortholex\Core\Video\PlaceLaw;

/** The band: every channel of the transmitter, who uses what, what is too near, and where third-order products fall. */
final readonly class BandPlot
{
    private const LEFT = 40.0;
    private const RIGHT = 820.0;
    private const FOOT = 190.0;

    private float $from;
    private float $to;
    public Channels $channels;

    /**
     * @param list<float> $table MHz
     * @param list<float> $taken by others
     * @param list<float> $planned for those that still need one
     */
    public function __construct(
        public array $table,
        public array $taken,
        public array $planned,
        public float $own,
        private ?PlaceLaw $law,
    ) {
        $all = [...$table, ...$taken, $own];
        $this->from = min($all) - 10;
        $this->to = max($all) + 10;
        $this->channels = Channels::of([...$taken, $own]);
    }

    public function x(float $mhz): float
    {
        return round(self::LEFT + ((self::RIGHT - self::LEFT) * ($mhz - $this->from)) / ($this->to - $this->from), 1);
    }

    /** @return list<array{mhz: float, x: float, clashes: bool, allowed: bool, own: bool, planned: bool}> channels to choose from */
    public function ticks(): array
    {
        $others = Channels::of($this->taken);

        return array_map(fn (float $f): array => [
            'mhz' => $f,
            'x' => $this->x($f),
            'clashes' => [] !== $this->taken && $others->clashesWith($f),
            'allowed' => null === $this->law || $this->law->mostMw($f) > 0,
            'own' => $f === $this->own,
            'planned' => \in_array($f, $this->planned, true),
        ], $this->table);
    }

    /** @return list<array{x: float, width: float}> where products of third order fall on somebody */
    public function products(): array
    {
        $seen = [];
        foreach ($this->channels->products() as [, , $at]) {
            $seen[(string) $at] = ['x' => $this->x($at), 'width' => round($this->x($at + Channels::PRODUCT_MHZ) - $this->x($at), 1)];
        }

        return array_values($seen);
    }

    /** @return list<array{float, float}> pairs that are too near */
    public function neighbours(): array
    {
        return array_map(fn (array $pair): array => [$this->x($pair[0]), $this->x($pair[1])], $this->channels->neighbours());
    }

    /** @return list<array{x: float, width: float, mw: float}> bands of the law */
    public function bands(): array
    {
        $bands = [];
        foreach ($this->law->bands ?? [] as [$from, $to, $mw]) {
            $a = max($this->from, $from);
            $b = min($this->to, $to);
            if ($b > $a) {
                $bands[] = ['x' => $this->x($a), 'width' => round($this->x($b) - $this->x($a), 1), 'mw' => $mw];
            }
        }

        return $bands;
    }

    public function foot(): float
    {
        return self::FOOT;
    }

    /** @return list<float> MHz */
    public function scale(): array
    {
        return range(ceil($this->from / 50) * 50, $this->to, 50.0);
    }
}
