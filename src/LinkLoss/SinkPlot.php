<?php

declare(strict_types=1);

namespace Ortholex\App\LinkLoss;

use Ortholex\Core\LinkLoss\SinkSpeed;

/** Sink speed against pack voltage for one descent throttle, as a plot; with the height from which it is too fast at the ground. */
final readonly class SinkPlot
{
    private const LEFT = 44.0;
    private const RIGHT = 400.0;
    private const TOP = 18.0;
    private const FOOT = 162.0;
    private const STEPS = 40;

    /** @var float fastest that is drawn, m/s; and climbing */
    private const MOST = 14.0;

    private const CLIMB = -5.0;

    /** Faster than this at the ground breaks a craft, m/s. */
    public const BREAKS_MS = 4.0;

    /**
     * @param float      $fullV   fullest pack
     * @param float      $emptyV  emptiest at which a loss may come
     * @param float      $output  of the descent, %
     * @param float      $idle    %
     */
    public function __construct(
        private SinkSpeed $law,
        public float $fullV,
        public float $emptyV,
        public float $output,
        private float $idle,
    ) {
    }

    /** @return array{x: list<float|string>, y: list<float|string>} how places become values */
    public function scale(): array
    {
        return [
            'x' => [self::LEFT, self::RIGHT, $this->fullV, $this->emptyV, 'V'],
            'y' => [self::FOOT, self::TOP, self::MOST, self::CLIMB, 'm/s'],
        ];
    }

    public function line(float $output): string
    {
        $line = '';
        for ($i = 0; $i <= self::STEPS; ++$i) {
            $v = $this->fullV + (($this->emptyV - $this->fullV) * $i) / self::STEPS;
            $sink = max(self::CLIMB, min(self::MOST, $this->law->steady($output, $v)));
            $line .= ('' === $line ? 'M' : 'L').$this->x($v).' '.self::y($sink);
        }

        return $line;
    }

    public function x(float $volts): float
    {
        return round(self::LEFT + ((self::RIGHT - self::LEFT) * ($this->fullV - $volts)) / max(0.1, $this->fullV - $this->emptyV), 1);
    }

    public static function y(float $sink): float
    {
        return round(self::TOP + ((self::FOOT - self::TOP) * ($sink - self::CLIMB)) / (self::MOST - self::CLIMB), 1);
    }

    /** @return list<array{v: float, x: float}> */
    public function ticks(): array
    {
        $ticks = [];
        for ($v = ceil($this->emptyV); $v <= $this->fullV; $v += $this->fullV - $this->emptyV > 4 ? 1.0 : 0.5) {
            $ticks[] = ['v' => $v, 'x' => $this->x($v)];
        }

        return $ticks;
    }

    public function atFull(): float
    {
        return $this->law->steady($this->output, $this->fullV);
    }

    public function atEmpty(): float
    {
        return $this->law->steady($this->output, $this->emptyV);
    }

    /** Seconds and speed at the ground from a height with the emptiest pack; null where it does not come down. */
    public function fromHeight(float $metres): ?string
    {
        $fall = $this->law->fall($metres, $this->output, $this->emptyV);

        return null === $fall ? null : \sprintf('%.1f s, %.1f m/s at the ground', ...$fall);
    }

    /** The height from which it is too fast at the ground, m, with the emptiest pack; null where it never is. */
    public function tooLateFrom(): ?float
    {
        if ($this->atEmpty() < self::BREAKS_MS) {
            return null;
        }
        [$low, $high] = [0.0, 200.0];
        for ($i = 0; $i < 30; ++$i) {
            $middle = ($low + $high) / 2;
            $fall = $this->law->fall($middle, $this->output, $this->emptyV);
            null !== $fall && $fall[1] > self::BREAKS_MS ? ($high = $middle) : ($low = $middle);
        }

        return $low;
    }

    /** @return array{float, float}|null throttle between which it lands softly over all voltages, % */
    public function advised(): ?array
    {
        $outputs = $this->law->advised($this->fullV, $this->emptyV);

        return null === $outputs ? null : [$this->throttle($outputs[0]), $this->throttle($outputs[1])];
    }

    /** The throttle that lands softly with the pack in the middle of what there is, %. */
    public function middling(): float
    {
        $soft = (SinkSpeed::SOFT[0] + SinkSpeed::SOFT[1]) / 2;

        return $this->throttle($this->law->output($soft, ($this->fullV + $this->emptyV) / 2));
    }

    private function throttle(float $output): float
    {
        return round(max(0.0, (100 * ($output - $this->idle)) / (100 - $this->idle)), 1);
    }
}
