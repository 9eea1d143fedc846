<?php

declare(strict_types=1);

namespace Ortholex\App\Pack;

use Ortholex\Core\Pack\Discharge;
use Ortholex\Core\Signal\Statistics;

/** Voltage of a cell against charge used: at rest, and under the currents that were flown. */
final readonly class DischargePlot
{
    private const LEFT = 52.0;
    private const RIGHT = 846.0;
    private const TOP = 24.0;
    private const FOOT = 300.0;
    private const HIGH_V = 4.25;
    private const LOW_V = 3.0;
    private const STEPS = 80;

    public float $low;
    public float $middle;
    public float $high;

    public function __construct(public Discharge $pack)
    {
        $this->low = Statistics::quantile($pack->amperes, 0.25);
        $this->middle = Statistics::median($pack->amperes);
        $this->high = Statistics::quantile($pack->amperes, 0.75);
    }

    /** @param float $amperes 0 at rest */
    public function line(float $amperes): string
    {
        $line = '';
        for ($i = 0; $i <= self::STEPS; ++$i) {
            $ah = ($this->pack->fullAh * $i) / self::STEPS;
            $line .= ('' === $line ? 'M' : 'L').$this->x($ah).' '.self::y($this->pack->restAt($ah) - $this->pack->ohm * $amperes);
        }

        return $line;
    }

    public function x(float $ah): float
    {
        return round(self::LEFT + ((self::RIGHT - self::LEFT) * $ah) / $this->pack->fullAh, 1);
    }

    public static function y(float $volts): float
    {
        $v = max(self::LOW_V, min(self::HIGH_V, $volts));

        return round(self::FOOT - ((self::FOOT - self::TOP) * ($v - self::LOW_V)) / (self::HIGH_V - self::LOW_V), 1);
    }

    /** Where the usual current comes down to a level, Ah. */
    public function usedAt(float $cellV): float
    {
        return $this->pack->usedAt($cellV, $this->middle);
    }

    /** @return list<array{ah: float, x: float}> */
    public function ticks(): array
    {
        $step = 0.1;
        foreach ([0.1, 0.2, 0.5, 1.0, 2.0, 5.0] as $step) {
            if ($this->pack->fullAh / $step <= 9) {
                break;
            }
        }
        $ticks = [];
        for ($ah = 0.0; $ah <= $this->pack->fullAh + 1e-6; $ah += $step) {
            $ticks[] = ['ah' => round($ah, 2), 'x' => $this->x($ah)];
        }

        return $ticks;
    }

    /** @return array{x: list<float|string>, y: list<float|string>} how places become values, for reading */
    public function read(): array
    {
        return [
            'x' => [self::LEFT, self::RIGHT, 0.0, $this->pack->fullAh, 'Ah'],
            'y' => [self::FOOT, self::TOP, self::LOW_V, self::HIGH_V, 'V'],
        ];
    }

    /** @return array<string, float> */
    public function scale(): array
    {
        return ['foot' => self::FOOT, 'top' => self::TOP, 'low' => self::LOW_V, 'high' => self::HIGH_V];
    }
}
