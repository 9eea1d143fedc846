<?php

declare(strict_types=1);

namespace Ortholex\Core\Video;

/**
 * The best frequencies for so many pilots: of all combinations that have the fewest neighbours and products, the one whose closest two
 * are farthest apart, and of those the lowest. A search by depth that leaves a branch once it cannot get better, and so finds what all
 * combinations would.
 */
final class ChannelPlan
{
    public const MOST_PILOTS = 8;

    /** @var list<float> */
    private array $best = [];

    private int $leastClashes = \PHP_INT_MAX;
    private float $widest = -1.0;

    /** @var array<int, array<int, array<int, int>>> clashes among three, by their indices in rising order */
    private array $triples = [];

    /** @param list<float> $all those on offer, rising, and behind them those that are taken */
    private function __construct(private readonly array $all, private readonly int $offers)
    {
    }

    /**
     * @param list<float> $offer frequencies that can be had, MHz
     * @param int         $pilots that still need one
     * @param list<float> $taken by others already
     *
     * @throws VideoError for too many pilots, or too few frequencies
     */
    public static function best(array $offer, int $pilots, array $taken = []): self
    {
        $offer = array_values(array_unique($offer));
        sort($offer);
        $free = array_values(array_filter($offer, static fn (float $f): bool => !\in_array($f, $taken, true)));
        if ($pilots < 1 || $pilots > self::MOST_PILOTS) {
            throw VideoError::of(VideoFlaw::PilotCount, most: self::MOST_PILOTS, pilots: $pilots);
        }
        if (\count($free) < $pilots) {
            throw VideoError::of(VideoFlaw::TooFewFree, free: \count($free), pilots: $pilots);
        }
        $plan = new self([...$free, ...$taken], \count($free));
        $chosen = array_keys(\array_slice($plan->all, $plan->offers, preserve_keys: true));
        $load = array_fill(0, $plan->offers, 0);
        $apart = array_fill(0, $plan->offers, \INF);
        foreach ($chosen as $n => $at) {
            [$load, $apart] = $plan->loaded($load, $apart, \array_slice($chosen, 0, $n), $at, 0);
        }
        $sorted = array_values($taken);
        sort($sorted);
        $plan->search(0, $pilots, $chosen, $load, $apart, Channels::of($sorted)->clashes(), Channels::of($sorted)->closest());

        return $plan;
    }

    /** @return list<float> MHz, rising, without those that were taken */
    public function mhz(): array
    {
        return $this->best;
    }

    /** Neighbours and products that are left, with those among the taken. */
    public function clashes(): int
    {
        return $this->leastClashes;
    }

    public function closestMhz(): float
    {
        return $this->widest;
    }

    /**
     * @param list<int>             $chosen indices, the taken first
     * @param array<int, int>       $load   clashes that one more would make, by index
     * @param array<int, float>     $apart  how near the nearest of the chosen is, by index
     */
    private function search(int $from, int $need, array $chosen, array $load, array $apart, int $clashes, float $closest): void
    {
        if (0 === $need) {
            if ($clashes < $this->leastClashes || ($clashes === $this->leastClashes && $closest > $this->widest)) {
                $this->leastClashes = $clashes;
                $this->widest = $closest;
                $taken = \count($this->all) - $this->offers;
                $this->best = array_map(fn (int $i): float => $this->all[$i], \array_slice($chosen, $taken));
            }

            return;
        }
        for ($i = $from, $last = $this->offers - $need; $i <= $last; ++$i) {
            $with = $clashes + $load[$i];
            $near = min($closest, $apart[$i]);
            // One more never takes a clash away, nor moves the closest two apart.
            if ($with > $this->leastClashes || ($with === $this->leastClashes && $near <= $this->widest)) {
                continue;
            }
            if (1 === $need) {
                $this->search($i + 1, 0, [...$chosen, $i], [], [], $with, $near);
                continue;
            }
            [$loads, $aparts] = $this->loaded($load, $apart, $chosen, $i, $i + 1);
            // Those that are still to come make at least what the cheapest of them make.
            if (2 === $need) {
                $least = $with + min(\array_slice($loads, $i + 1) ?: [0]);
            } else {
                $rest = \array_slice($loads, $i + 1);
                sort($rest);
                $least = $with + array_sum(\array_slice($rest, 0, $need - 1));
            }
            if ($least <= $this->leastClashes) {
                $this->search($i + 1, $need - 1, [...$chosen, $i], $loads, $aparts, $with, $near);
            }
        }
    }

    /**
     * Loads and distances with one more chosen.
     *
     * @param array<int, int>   $load
     * @param array<int, float> $apart
     * @param list<int>         $chosen before it
     *
     * @return array{array<int, int>, array<int, float>}
     */
    private function loaded(array $load, array $apart, array $chosen, int $at, int $from): array
    {
        $f = $this->all[$at];
        for ($k = $from; $k < $this->offers; ++$k) {
            $d = abs($this->all[$k] - $f);
            $apart[$k] = min($apart[$k], $d);
            $more = $d < Channels::APART_MHZ ? 1 : 0;
            foreach ($chosen as $c) {
                $more += $this->triples[$at][$k][$c] ??= $this->among($at, $k, $c);
            }
            $load[$k] += $more;
        }

        return [$load, $apart];
    }

    /** Products of two of three that fall on the third. */
    private function among(int $i, int $j, int $k): int
    {
        [$a, $b, $c] = [$this->all[$i], $this->all[$j], $this->all[$k]];
        $hits = 0;
        foreach ([[$a, $b, $c], [$b, $a, $c], [$a, $c, $b], [$c, $a, $b], [$b, $c, $a], [$c, $b, $a]] as [$first, $second, $on]) {
            $hits += $first !== $second && abs(2 * $first - $second - $on) < Channels::PRODUCT_MHZ ? 1 : 0;
        }

        return $hits;
    }
}
