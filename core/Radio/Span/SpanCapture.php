<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Span;

use Ortholex\Core\Signal\Statistics;

/**
 * Learns each channel's real span from how it was moved: low and high from where it stays at its ends, so that a brief touch
 * counts and a spike does not; the middle from where it comes to rest between them.
 */
final readonly class SpanCapture
{
    /** A channel whose ends are nearer than this was not moved. */
    public const MOVED_US = 100.0;

    private const REST_S = 0.3;

    /** Share of the span next to an end in which no middle is looked for. */
    private const END_SHARE = 0.12;

    /** Rests within so much of one another are the same middle, a little beside it. */
    private const SAME_REST_US = 30.0;

    /** A rest that lasted a smaller share of the rest at an end was a pause. */
    private const PAUSE_SHARE = 0.4;

    private const JITTER_QUANTILE = 0.995;

    /** @param array<int, CapturedChannel> $channels by number, from 1 */
    private function __construct(public array $channels)
    {
    }

    public static function of(StickHistory $history): self
    {
        $step = $history->step();
        $channels = [];
        foreach ($history->channels as $number => $us) {
            $channels[$number] = \count($us) < 3
                ? new CapturedChannel(false, null, null, null, 0.0, 0.0)
                : self::channel(Dwells::of($us, $step));
        }

        return new self($channels);
    }

    private static function channel(Dwells $d): CapturedChannel
    {
        $rests = $d->ofAtLeast(self::REST_S);
        if ([] === $d->dwells) {
            return new CapturedChannel(false, null, null, null, 0.0, 0.0);
        }
        $levels = array_map(static fn (Dwell $one): float => $one->levelUs, $d->dwells);
        [$low, $high] = [min($levels), max($levels)];
        if ($high - $low < self::MOVED_US) {
            $still = [] === $rests ? $d->dwells : $rests;
            $middle = self::middleOf($d, self::fullest($still));

            return new CapturedChannel(false, null, $middle, null, self::jitter($d, $still, null), self::jitter($d, $still, $middle));
        }
        $within = self::END_SHARE * ($high - $low);
        $between = array_values(
            array_filter($rests, static fn (Dwell $r): bool => $r->levelUs > $low + $within && $r->levelUs < $high - $within),
        );
        $middles = self::fullest($between);
        // What springs back rests in its middle; a throttle rests at an end, and where it paused between is no middle.
        $atEnds = max(self::seconds($rests, $low, $within), self::seconds($rests, $high, $within));
        if ([] !== $middles && self::seconds($middles, $middles[0]->levelUs, \INF) < self::PAUSE_SHARE * $atEnds) {
            $middles = [];
        }
        $middle = [] === $middles ? null : self::middleOf($d, $middles);
        $still = [] !== $middles ? $middles : ([] === $rests ? $d->dwells : $rests);

        return new CapturedChannel(
            true,
            $d->level(self::near($d, $low), $low),
            $middle,
            $d->level(self::near($d, $high), $high),
            self::jitter($d, $still, null),
            self::jitter($d, $still, $middle),
        );
    }

    /**
     * @param list<Dwell> $rests
     *
     * @return float seconds of rest within so much of a level
     */
    private static function seconds(array $rests, float $levelUs, float $within): float
    {
        $seconds = 0.0;
        foreach ($rests as $rest) {
            $seconds += abs($rest->levelUs - $levelUs) <= $within ? $rest->seconds : 0.0;
        }

        return $seconds;
    }

    /** @return list<Dwell> those at a level */
    private static function near(Dwells $d, float $levelUs): array
    {
        $width = max(6.0, 4 * $d->tremble);

        return array_values(array_filter($d->dwells, static fn (Dwell $one): bool => abs($one->levelUs - $levelUs) <= $width));
    }

    /**
     * @param list<Dwell> $rests
     *
     * @return list<Dwell> of those that are near one another, the ones with most time
     */
    private static function fullest(array $rests): array
    {
        $best = [];
        $longest = 0.0;
        foreach ($rests as $about) {
            $group = array_values(
                array_filter($rests, static fn (Dwell $r): bool => abs($r->levelUs - $about->levelUs) <= self::SAME_REST_US),
            );
            $seconds = array_sum(array_map(static fn (Dwell $r): float => $r->seconds, $group));
            if ($seconds > $longest + 1e-9) {
                [$best, $longest] = [$group, $seconds];
            }
        }

        return $best;
    }

    /** @param list<Dwell> $rests */
    private static function middleOf(Dwells $d, array $rests): ?float
    {
        $samples = [];
        foreach ($rests as $rest) {
            for ($i = $rest->from; $i <= $rest->to; ++$i) {
                if (!$d->isSpike($i)) {
                    $samples[] = $d->raw[$i];
                }
            }
        }

        return [] === $samples ? null : Statistics::median($samples);
    }

    /**
     * @param list<Dwell> $rests
     * @param float|null  $about null for each rest about its own level
     */
    private static function jitter(Dwells $d, array $rests, ?float $about): float
    {
        $away = [];
        foreach ($rests as $rest) {
            // The first and last frames of a rest belong to the way there and back.
            for ($i = $rest->from + 2; $i <= $rest->to - 2; ++$i) {
                if (!$d->isSpike($i)) {
                    $away[] = abs($d->raw[$i] - ($about ?? $rest->levelUs));
                }
            }
        }

        return [] === $away ? 0.0 : Statistics::quantile($away, self::JITTER_QUANTILE);
    }
}
