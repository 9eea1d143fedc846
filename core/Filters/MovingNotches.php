<?php

declare(strict_types=1);

namespace Ortholex\Core\Filters;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Signal\FilterChain;
use Ortholex\Core\Signal\FilterStage;

/**
 * The notches of a board run over a logged rate sample by sample: those at the motors' logged speeds, then those that track peaks.
 *
 * A log has fewer samples than the loop. A notch here has the zero and the −3 dB width that the board's has at its own rate (its width
 * is 2·atan α, α = sin ω/(2Q), of the bilinear transform), so that it takes out the same band.
 */
final readonly class MovingNotches
{
    /** Motor notches are moved at most so often, Hz: rotors change their speed far more slowly. */
    private const MOVED_HZ = 500.0;

    /** Motor notches stand at whole parts of a Hz, so many. */
    private const PLACES_PER_HZ = 8;

    /** A log holds notches up to this share of its rate. */
    private const HIGHEST_SHARE = 0.48;

    /**
     * @param list<int> $orders harmonics of the motors
     */
    private function __construct(
        private float $loopHz,
        public array $orders,
        private float $floorHz,
        private float $widthPct,
        public int $peaks,
        private float $lowHz,
        private float $highHz,
        private float $trackWidthPct,
    ) {
    }

    /** @param SettingSet $set names of the current catalogue; what it leaves out is off */
    public static function of(SettingSet $set, float $loopHz): self
    {
        [$low, $high] = $set->band('notch.tracking.band_hz', 85, 340);

        return new self(
            $loopHz,
            RateFilters::orders($set),
            $set->number('notch.motor.floor_hz', 80.0),
            $set->number('notch.motor.width_pct', 23.0),
            $set->whole('notch.tracking.peaks'),
            $low,
            $high,
            $set->number('notch.tracking.width_pct', 20.0),
        );
    }

    public function areOff(): bool
    {
        return [] === $this->orders && 0 === $this->peaks;
    }

    /**
     * @param list<float>       $rate    gap-free, deg/s
     * @param list<list<float>> $rotorHz of each motor, of the same time; empty where speeds are not known
     * @param float             $logHz   samples per second
     *
     * @return array{list<float>, list<list<float>>} what is left, deg/s; and the middles of the tracking notches each time they moved, Hz
     */
    public function run(array $rate, array $rotorHz, float $logHz): array
    {
        $rate = $this->atMotors($rate, $rotorHz, $this->orders, $logHz);

        return $this->tracked($rate, $logHz);
    }

    /**
     * Behind the motor notches of some orders.
     *
     * @param list<float>       $rate
     * @param list<list<float>> $rotorHz
     * @param list<int>         $orders
     *
     * @return list<float>
     */
    public function atMotors(array $rate, array $rotorHz, array $orders, float $logHz): array
    {
        $every = max(1, (int) round($logHz / self::MOVED_HZ));
        foreach ($orders as $order) {
            foreach ($rotorHz as $hz) {
                $rate = $this->atMotor($rate, $hz, $order, $logHz, $every);
            }
        }

        return $rate;
    }

    /**
     * What makes these notches differ from others.
     *
     * @param list<int>|null $orders of the motor notches alone; null for all, with those that track
     */
    public function key(?array $orders = null): string
    {
        $motors = implode(',', $orders ?? $this->orders)."|$this->widthPct|$this->floorHz";

        return null === $orders ? "$motors|$this->peaks|$this->lowHz|$this->highHz|$this->trackWidthPct" : $motors;
    }

    /**
     * All notches as they stand in one moment, at the loop's rate.
     *
     * @param list<float> $rotorHz of each motor; empty where speeds are not known
     * @param list<float> $peaksHz where those that track stand
     */
    public function at(array $rotorHz, array $peaksHz): FilterChain
    {
        $stages = [];
        foreach ($rotorHz as $hz) {
            foreach ($this->orders as $order) {
                $stages[] = FilterStage::notch($this->centreHz($order, $hz), $this->widthPct, $this->loopHz);
            }
        }
        foreach ($peaksHz as $hz) {
            $stages[] = FilterStage::notch(min($hz, RateFilters::highestHz($this->loopHz)), $this->trackWidthPct, $this->loopHz);
        }

        return FilterChain::of($this->loopHz, ...$stages);
    }

    /** Where a motor's notch stands, Hz. */
    public function centreHz(int $order, float $rotorHz): float
    {
        return min(RateFilters::highestHz($this->loopHz), max($this->floorHz, $order * $rotorHz));
    }

    private function topHz(float $logHz): float
    {
        return min(self::HIGHEST_SHARE * $logHz, RateFilters::highestHz($this->loopHz));
    }

    /** @return array{float, float, float} b0, b1 and a2 of a notch in the log's rate; its a1 is b1 and its b2 is b0 */
    private function notch(float $hz, float $widthPct, float $logHz): array
    {
        $at = (2 * \M_PI * min($hz, RateFilters::highestHz($this->loopHz))) / $this->loopHz;
        $wide = 2 * atan((sin($at) * $widthPct) / 200);
        $alpha = tan(min(1.5, ($wide * $this->loopHz) / $logHz / 2));
        $inverse = 1 / (1 + $alpha);

        return [$inverse, -2 * cos((2 * \M_PI * $hz) / $logHz) * $inverse, (1 - $alpha) * $inverse];
    }

    /**
     * @param list<float> $rate
     * @param list<float> $rotorHz
     *
     * @return list<float>
     */
    private function atMotor(array $rate, array $rotorHz, int $order, float $logHz, int $every): array
    {
        $top = $this->topHz($logHz);
        $highest = RateFilters::highestHz($this->loopHz);
        $floor = $this->floorHz;
        // A notch is many Hz wide: made once for each part of a Hz where it stands.
        $b0 = $b1 = $a2 = [];
        // Kept as what went in and came out, as on the board: a notch that moves then leaves no knock behind.
        $x1 = $x2 = $y1 = $y2 = $rate[0] ?? 0.0;
        for ($i = 0, $last = \count($rate); $i < $last;) {
            $end = min($last, $i + $every);
            // As in centreHz(), which would be called a million times.
            $centre = $order * $rotorHz[$i];
            $centre = $centre < $floor ? $floor : $centre;
            $centre = $centre > $highest ? $highest : $centre;
            if ($centre >= $top) {
                // Above what the log can show, it is not there to be cut.
                for (; $i < $end; ++$i) {
                    $x2 = $x1;
                    $y2 = $y1;
                    $x1 = $y1 = $rate[$i];
                }
                continue;
            }
            $part = (int) ($centre * self::PLACES_PER_HZ + 0.5);
            if (!isset($b0[$part])) {
                [$b0[$part], $b1[$part], $a2[$part]] = $this->notch($part / self::PLACES_PER_HZ, $this->widthPct, $logHz);
            }
            $p0 = $b0[$part];
            $p1 = $b1[$part];
            $p2 = $a2[$part];
            do {
                $x = $rate[$i];
                $rate[$i] = $y = $p0 * ($x + $x2) + $p1 * ($x1 - $y1) - $p2 * $y2;
                $x2 = $x1;
                $x1 = $x;
                $y2 = $y1;
                $y1 = $y;
            } while (++$i < $end);
        }

        return array_values($rate);
    }

    /**
     * Behind the notches that track.
     *
     * @param list<float> $rate
     *
     * @return array{list<float>, list<list<float>>} what is left; and where they stood, each time that they moved, Hz
     */
    public function tracked(array $rate, float $logHz): array
    {
        if (0 === $this->peaks) {
            return [$rate, []];
        }
        $tracker = new TrackingNotches($this->peaks, $this->lowHz, min($this->highHz, $this->topHz($logHz)), $logHz);
        $at = $tracker->over($rate);
        $last = \count($rate);
        $from = array_keys($at);
        for ($n = 0; $n < $this->peaks; ++$n) {
            $x1 = $x2 = $y1 = $y2 = $rate[0] ?? 0.0;
            foreach ($from as $j => $i) {
                [$b0, $b1, $a2] = $this->notch($at[$i][$n], $this->trackWidthPct, $logHz);
                for ($end = $from[$j + 1] ?? $last; $i < $end; ++$i) {
                    $x = $rate[$i];
                    $rate[$i] = $y = $b0 * ($x + $x2) + $b1 * ($x1 - $y1) - $a2 * $y2;
                    $x2 = $x1;
                    $x1 = $x;
                    $y2 = $y1;
                    $y1 = $y;
                }
            }
        }

        return [array_values($rate), array_map(array_values(...), array_values($at))];
    }
}
