<?php

declare(strict_types=1);

namespace Ortholex\Core\Incident;

use Ortholex\Core\Incident\Motion\Blocks;
use Ortholex\Core\Incident\Motion\RotorLaw;
use Ortholex\Core\Signal\Statistics;

/**
 * What the logged speed of a motor says of its loss, block by block: for it where it is driven to less than its output asks for by the
 * law of this very log, and against it where it is not. What it is driven to follows from where its speed goes, not from where it
 * is: a rotor that was touched and gathers speed again is driven as it should.
 */
final readonly class SpeedEvidence
{
    /** A block's worth: blocks that follow one another say much the same. */
    private const WORTH = 0.2;

    /** No block says more than this. */
    private const MOST = 3.0;

    /** The law is off by this share at least, and by this share of what it lets the speed change meanwhile. */
    private const LEAST_SPREAD = 0.04;

    private const OF_CHANGE = 0.35;

    /** Over so many blocks to each side it is looked at where the speed goes. */
    private const REACH = 2;

    /** What is left of where it was, after that; with more left it cannot be told where it goes. */
    private const MOST_KEPT = 0.98;

    /** Over so many blocks a change is looked at. */
    private const CHANGE_BLOCKS = 6;

    /** Below this share of full speed a rotor tells nothing. */
    private const LEAST_SPEED = 0.12;

    /** Speeds that a motor is driven to which gives this share of its thrust: from, to, over what the law says. */
    private const LOST = [0.0, 0.5];

    private const WEAK = [0.55, 0.82];

    /** And what cannot be, a motor that is driven to as much more. */
    private const STRONG = [1.18, 1.45];

    private const DOUBLED = [1.5, 2.0];

    /** All together are never further off than this. */
    private const LEAST_MIDDLE = 0.6;

    private const MOST_MIDDLE = 1.5;
    private const FREEDOM = 4.0;

    /**
     * @param list<list<float>|null> $ratios  by motor: speed it is driven to over what the law says, by block; NAN where it tells nothing
     * @param list<list<float>>      $changes by motor: how much the speed changes by the law, over itself
     */
    private function __construct(public array $ratios, private float $spread, private array $changes)
    {
    }

    public static function of(Blocks $blocks, RotorLaw $law): self
    {
        $run = $blocks->run;
        $supply = $run->supply();
        $ratios = $changes = [];
        foreach (array_keys($run->outputs) as $m) {
            $rpm = $run->rpm($m);
            $target = null === $rpm ? [] : $law->targets($run->outputs[$m], $supply, $run->stepS);
            $speed = $law->towards($target, $run->stepS);
            $scale = null === $rpm ? null : RotorLaw::scale($speed, $rpm);
            if (null === $rpm || null === $scale) {
                $ratios[] = null;
                $changes[] = [];
                continue;
            }
            $is = self::means($rpm, $blocks);
            $to = self::means($target, $blocks);
            $by = self::means($speed, $blocks);
            $row = $change = [];
            for ($b = 0, $n = \count($is); $b < $n; ++$b) {
                [$from, $until] = [max(0, $b - self::REACH), min($n - 1, $b + self::REACH)];
                $asked = array_sum(\array_slice($to, $from, $until - $from + 1)) / ($until - $from + 1);
                $lag = $is[$until] > $is[$from] ? $law->upS : $law->downS;
                $kept = exp(-($until - $from) * $blocks->seconds() / $lag);
                $tells = $asked >= self::LEAST_SPEED && $kept < self::MOST_KEPT;
                $row[] = $tells ? ($is[$until] - $kept * $is[$from]) / ((1 - $kept) * $scale * $asked) : \NAN;
                $change[] = $by[$b] > 0 ? abs($by[$b] - $by[max(0, $b - self::CHANGE_BLOCKS)]) / $by[$b] : 0.0;
            }
            $ratios[] = $row;
            $changes[] = $change;
        }

        $ratios = self::besideTheOthers($ratios);
        $all = [];
        foreach ($ratios as $row) {
            foreach ($row ?? [] as $b => $ratio) {
                if (0 === $b % 3 && !is_nan($ratio)) {
                    $all[] = abs($ratio - 1);
                }
            }
        }

        return new self($ratios, max(self::LEAST_SPREAD, [] === $all ? 0.0 : 1.4826 * Statistics::median($all)), $changes);
    }

    /**
     * Where all are behind at once, the pack or the law is, not a motor: each over the middle one.
     *
     * @param list<list<float>|null> $ratios
     *
     * @return list<list<float>|null>
     */
    private static function besideTheOthers(array $ratios): array
    {
        $logged = array_keys(array_filter($ratios, static fn (?array $r): bool => null !== $r));
        if (\count($logged) < 3) {
            return $ratios;
        }
        $middle = [];
        for ($b = 0, $n = \count($ratios[$logged[0]] ?? []); $b < $n; ++$b) {
            $now = array_map(static fn (int $m): float => $ratios[$m][$b] ?? \NAN, $logged);
            $now = array_filter($now, static fn (float $r): bool => !is_nan($r));
            sort($now);
            $all = \count($now) < 3 ? 1.0 : $now[intdiv(\count($now) - 1, 2)];
            $middle[] = max(self::LEAST_MIDDLE, min(self::MOST_MIDDLE, $all));
        }
        $beside = [];
        foreach ($ratios as $row) {
            $beside[] = null === $row ? null : array_map(static fn (float $ratio, float $all): float => $ratio / $all, $row, $middle);
        }

        return $beside;
    }

    /**
     * @param list<float> $steps
     *
     * @return list<float> by block
     */
    private static function means(array $steps, Blocks $blocks): array
    {
        $out = [];
        for ($b = 0, $n = $blocks->count(); $b < $n; ++$b) {
            $out[] = array_sum(\array_slice($steps, $b * $blocks->size, $blocks->size)) / $blocks->size;
        }

        return $out;
    }

    /** Whether the speed of this motor was logged. */
    public function tells(int $motor): bool
    {
        return null !== ($this->ratios[$motor] ?? null);
    }

    /**
     * Log-likelihood ratio of “it gives this share of its thrust” over “it runs as it should”; 0 where it tells nothing.
     *
     * @param float $sign −1 for what cannot be: as much more
     * @param int   $from first block
     * @param int   $to   last one
     *
     * @return array<int, float> by block
     */
    public function along(int $motor, float $share, float $sign = 1.0, int $from = 0, int $to = \PHP_INT_MAX): array
    {
        $ratios = $this->ratios[$motor] ?? [];
        $changes = $this->changes[$motor];
        $full = $share < 0.25;
        [$low, $high] = $sign > 0 ? ($full ? self::LOST : self::WEAK) : ($full ? self::DOUBLED : self::STRONG);
        $out = [];
        for ($b = $from, $end = min($to, \count($ratios) - 1); $b <= $end; ++$b) {
            $ratio = $ratios[$b];
            if (is_nan($ratio)) {
                $out[$b] = 0.0;
                continue;
            }
            $spread = $this->spread + self::OF_CHANGE * $changes[$b];
            $off = ($ratio < $low ? $low - $ratio : ($ratio > $high ? $ratio - $high : 0.0)) / $spread;
            // Faster than the law is no loss either.
            $sound = ($ratio - 1) / $spread;
            $value = (self::FREEDOM + 1) / 2 * log((1 + $sound * $sound / self::FREEDOM) / (1 + $off * $off / self::FREEDOM));
            $out[$b] = self::WORTH * ($value > self::MOST ? self::MOST : ($value < -self::MOST ? -self::MOST : $value));
        }

        return $out;
    }

    /** Whether it was driven to less over most of a stretch of blocks. */
    public function fellBehind(int $motor, int $from, int $to): bool
    {
        $behind = $told = 0;
        for ($b = $from; $b <= $to; ++$b) {
            $ratio = $this->ratios[$motor][$b] ?? \NAN;
            $told += is_nan($ratio) ? 0 : 1;
            $behind += $ratio < self::WEAK[1] ? 1 : 0;
        }

        return $told > 0 && $behind > $told / 2;
    }
}
