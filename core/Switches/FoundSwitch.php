<?php

declare(strict_types=1);

namespace Ortholex\Core\Switches;

use Ortholex\Core\Radio\Span\Dwell;
use Ortholex\Core\Radio\Span\Dwells;
use Ortholex\Core\Radio\Span\StickHistory;
use Ortholex\Core\Signal\Statistics;

/** A lever on a channel: the positions it was seen in, and how far it trembles in them. */
final readonly class FoundSwitch
{
    /** Positions are at least so far apart, µs. */
    public const APART_US = 60.0;

    private const DWELL_S = 0.3;
    private const LOW_US = 1000.0;
    private const HIGH_US = 2000.0;

    /**
     * @param list<float> $positions µs, rising
     * @param bool        $knob      whether it is cut by hand, as it stays anywhere
     */
    private function __construct(public int $channel, public array $positions, public float $jitterUs, public bool $knob)
    {
    }

    /** @param list<float> $positions µs */
    public static function at(int $channel, array $positions, float $jitterUs = 0.0, bool $knob = false): self
    {
        sort($positions);

        return new self($channel, $positions, $jitterUs, $knob);
    }

    /** A knob cut into even positions. */
    public static function knob(int $channel, int $positions, float $jitterUs = 0.0): self
    {
        $middles = [];
        $wide = (self::HIGH_US - self::LOW_US) / $positions;
        for ($i = 0; $i < $positions; ++$i) {
            $middles[] = round(self::LOW_US + ($i + 0.5) * $wide);
        }

        return new self($channel, $middles, $jitterUs, true);
    }

    /** Null when the channel was seen in fewer than two positions. */
    public static function in(StickHistory $history, int $channel): ?self
    {
        $d = Dwells::of($history->channel($channel), $history->step());
        $rests = $d->ofAtLeast(self::DWELL_S);
        usort($rests, static fn (Dwell $a, Dwell $b): int => $a->levelUs <=> $b->levelUs);
        $clusters = [];
        foreach ($rests as $rest) {
            $last = \count($clusters) - 1;
            if ($last >= 0 && $rest->levelUs - $clusters[$last][0]->levelUs < self::APART_US) {
                $clusters[$last][] = $rest;
            } else {
                $clusters[] = [$rest];
            }
        }
        if (\count($clusters) < 2) {
            return null;
        }
        $positions = $away = [];
        foreach ($clusters as $cluster) {
            $positions[] = $level = $d->level($cluster, $cluster[0]->levelUs);
            foreach ($cluster as $rest) {
                for ($i = $rest->from + 2; $i <= $rest->to - 2; ++$i) {
                    $away[] = $d->isSpike($i) ? 0.0 : abs($d->raw[$i] - $level);
                }
            }
        }

        return new self($channel, $positions, [] === $away ? 0.0 : Statistics::quantile($away, 0.995), false);
    }

    /** @return list<float> µs, midway between neighbours: one fewer than positions */
    public function edges(): array
    {
        $edges = [];
        for ($i = 1, $n = \count($this->positions); $i < $n; ++$i) {
            $edges[] = round(($this->positions[$i - 1] + $this->positions[$i]) / 2);
        }

        return $edges;
    }

    /** The zone of a position: to the middle of the way to its neighbours, open at the outer ends. */
    public function zone(int $position): Zone
    {
        $edges = $this->edges();

        return Zone::of($this->channel, $edges[$position - 1] ?? null, $edges[$position] ?? null);
    }

    /** Which position the lever stands in. */
    public function position(float $us): int
    {
        $at = 0;
        foreach ($this->edges() as $edge) {
            $at += $us >= $edge ? 1 : 0;
        }

        return $at;
    }

    /** @return array{positions: list<float>, jitter: float, knob: bool} */
    public function toArray(): array
    {
        return ['positions' => $this->positions, 'jitter' => $this->jitterUs, 'knob' => $this->knob];
    }
}
