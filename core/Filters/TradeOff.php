<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\Signal\Spectrum;
use Ortholex\Core\Together\OneByOne;
use Ortholex\Core\Together\Together;

/**
 * Noise that is left against delay, over some hundreds of chains: those that no other beats in both, from the quickest to the quietest,
 * and the knee between them.
 */
final readonly class TradeOff
{
    private const WIDTHS_PCT = [15.0, 25.0];

    /** Low-passes: kinds and cutoffs, Hz, of one stage or two. */
    private const CUTOFFS_HZ = [55, 60, 65, 70, 75, 80, 90, 100, 110, 120, 135, 150, 170, 190, 215, 250, 300, 360, 430, 500];

    private const TWO_STAGES_HZ = [100, 130, 170, 220, 300, 420];

    /**
     * @param list<Candidate> $all
     * @param list<Candidate> $front undominated, by rising delay
     * @param int|null        $knee  which of the front; null where it has no bend
     * @param float           $part  which share of the flight was run
     */
    private function __construct(public array $all, public array $front, public ?int $knee, public float $part)
    {
    }

    /**
     * @param SettingSet              $base     of which all but the filters of the rate path stay
     * @param ClosedLoop|null         $loop     how the craft would fly otherwise; where it is not known, it shakes as it did
     * @param int                     $atMost   samples of each axis that are run; of a longer log stretches are, weighed to the whole
     * @param array<string, Spectrum> $measured of the whole flight, by axis, where it is known already
     */
    public static function of(
        FlightLog $log,
        SettingSet $base,
        ?ClosedLoop $loop = null,
        Together $together = new OneByOne(),
        int $atMost = Scores::QUICK,
        array $measured = [],
    ): self {
        $scores = Scores::of($log, $base, $loop, $atMost, $measured);
        $all = $scores->all(iterator_to_array(self::candidates($base, $scores->hasSpeeds()), false), $together);
        $front = self::undominated($all);

        return new self($all, $front, self::knee($front), $scores->part);
    }

    /** Without those that are beaten, to be kept. */
    public function frontAlone(): self
    {
        return new self($this->front, $this->front, $this->knee, $this->part);
    }

    /**
     * @param list<Candidate> $all
     *
     * @return list<Candidate> by rising delay; of equals the first
     */
    public static function undominated(array $all): array
    {
        usort($all, static fn (Candidate $a, Candidate $b): int => [$a->delayMs, $a->residualDps] <=> [$b->delayMs, $b->residualDps]);
        $front = [];
        $least = \INF;
        foreach ($all as $one) {
            if ($one->residualDps < $least) {
                $front[] = $one;
                $least = $one->residualDps;
            }
        }

        return $front;
    }

    /**
     * The one farthest below the chord between the two ends.
     *
     * @param list<Candidate> $front by rising delay
     */
    public static function knee(array $front): ?int
    {
        $last = \count($front) - 1;
        if ($last < 2) {
            return null;
        }
        [$a, $b] = [$front[0], $front[$last]];
        [$dx, $dy] = [$b->delayMs - $a->delayMs, $b->residualDps - $a->residualDps];
        $knee = null;
        $farthest = 0.0;
        foreach ($front as $i => $one) {
            // The order of distances from a line does not depend on the units of either axis.
            $below = $dy * ($one->delayMs - $a->delayMs) - $dx * ($one->residualDps - $a->residualDps);
            if ($below > $farthest) {
                [$knee, $farthest] = [$i, $below];
            }
        }

        return $knee;
    }

    /** @return iterable<SettingSet> */
    private static function candidates(SettingSet $base, bool $hasSpeeds): iterable
    {
        $notches = [['notch.motor.orders' => '']];
        foreach ($hasSpeeds ? ['1', '1,2', '1,2,3'] : [] as $orders) {
            foreach (self::WIDTHS_PCT as $width) {
                $notches[] = ['notch.motor.orders' => $orders, 'notch.motor.width_pct' => $width, 'motors.rpm_feedback' => true];
            }
        }
        $stages = array_map(
            static fn (array $kind): array => array_map(static fn (int $hz): array => [[$kind[0], $hz]], self::CUTOFFS_HZ),
            [['first_order'], ['second_order']],
        );
        $two = array_map(static fn (int $hz): array => [['first_order', $hz], ['first_order', $hz]], self::TWO_STAGES_HZ);
        foreach ($notches as $notch) {
            // Those that track are tried beside the narrow ones: what the wide ones leave, they do not find.
            foreach (($notch['notch.motor.width_pct'] ?? self::WIDTHS_PCT[0]) === self::WIDTHS_PCT[0] ? [0, 2] : [0] as $peaks) {
                foreach ([[], ...$stages[0], ...$stages[1], ...$two] as $lowPasses) {
                    yield $base->with($notch + ['notch.tracking.peaks' => $peaks] + self::stages($lowPasses));
                }
            }
        }
    }

    /**
     * @param list<array{string, int}> $lowPasses kind and cutoff of each stage
     *
     * @return array<string, string|float>
     */
    private static function stages(array $lowPasses): array
    {
        $out = [];
        for ($n = 1; $n <= 4; ++$n) {
            $out["rate_path.stage.$n.kind"] = $lowPasses[$n - 1][0] ?? 'off';
            if (isset($lowPasses[$n - 1])) {
                $out["rate_path.stage.$n.cutoff_hz"] = (float) $lowPasses[$n - 1][1];
            }
        }

        return $out;
    }
}
