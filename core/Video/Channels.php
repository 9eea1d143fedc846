<?php

declare(strict_types=1);

namespace Ortholex\Core\Video;

/** Which frequencies disturb each other: neighbours too near, and third-order products 2·f₁ − f₂ that fall on a used one; MHz. */
final readonly class Channels
{
    /** Two transmitters nearer than this disturb each other. */
    public const APART_MHZ = 37.0;

    /** A product so near to a used frequency disturbs it. */
    public const PRODUCT_MHZ = 17.0;

    /** @param list<float> $mhz used at the same time */
    private function __construct(public array $mhz)
    {
    }

    /** @param list<float> $mhz */
    public static function of(array $mhz): self
    {
        return new self($mhz);
    }

    /** @return list<array{float, float}> pairs too near */
    public function neighbours(): array
    {
        $pairs = [];
        foreach ($this->mhz as $i => $a) {
            foreach (\array_slice($this->mhz, $i + 1) as $b) {
                if (abs($a - $b) < self::APART_MHZ) {
                    $pairs[] = [min($a, $b), max($a, $b)];
                }
            }
        }

        return $pairs;
    }

    /** @return list<array{float, float, float, float}> f₁, f₂, where 2·f₁ − f₂ falls, and on which it falls */
    public function products(): array
    {
        $hits = [];
        foreach ($this->mhz as $i => $first) {
            foreach ($this->mhz as $j => $second) {
                $at = 2 * $first - $second;
                foreach ($i === $j || $first === $second ? [] : $this->mhz as $k => $on) {
                    if ($k !== $i && $k !== $j && abs($at - $on) < self::PRODUCT_MHZ) {
                        $hits[] = [$first, $second, $at, $on];
                    }
                }
            }
        }

        return $hits;
    }

    public function clashes(): int
    {
        return \count($this->neighbours()) + \count($this->products());
    }

    /** The smallest distance between two of them, MHz; that of a single one is without end. */
    public function closest(): float
    {
        $sorted = $this->mhz;
        sort($sorted);
        $least = \INF;
        for ($i = 1, $n = \count($sorted); $i < $n; ++$i) {
            $least = min($least, $sorted[$i] - $sorted[$i - 1]);
        }

        return $least;
    }

    /** Disturbs it those that are used already? Used to ask of one more. */
    public function clashesWith(float $mhz): bool
    {
        return self::of([...$this->mhz, $mhz])->clashes() > $this->clashes();
    }
}
