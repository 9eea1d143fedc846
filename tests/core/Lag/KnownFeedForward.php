<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Lag;

use Ortholex\Tests\core\Lcg;

/**
 * A rate loop with feed-forward whose answer is known in closed form: rotation = b/(s(1 + sT))·e^(−sτ)·u, u = P·(c − r/(1 + sF)) + K·s·c.
 * Shares nothing with core.
 */
final readonly class KnownFeedForward
{
    private const HZ = 4000;

    public function __construct(
        public float $b = 1.0,
        public float $p = 25.0,
        public float $motorS = 0.02,
        public float $filterS = 0.0016,
        public float $deadS = 0.003,
    ) {
    }

    /** @return array{float, float} rotation over command */
    private function at(float $k, float $w): array
    {
        $mul = static fn (array $x, array $y): array => [$x[0] * $y[0] - $x[1] * $y[1], $x[0] * $y[1] + $x[1] * $y[0]];
        $over = static fn (array $x, array $y): array => [
            ($x[0] * $y[0] + $x[1] * $y[1]) / ($y[0] ** 2 + $y[1] ** 2),
            ($x[1] * $y[0] - $x[0] * $y[1]) / ($y[0] ** 2 + $y[1] ** 2),
        ];
        $plant = $over(
            [$this->b * cos($w * $this->deadS), -$this->b * sin($w * $this->deadS)],
            $mul([0.0, $w], [1.0, $w * $this->motorS]),
        );
        $back = $over($plant, [1.0, $w * $this->filterS]);

        return $over($mul($plant, [$this->p, $k * $w]), [1 + $this->p * $back[0], $this->p * $back[1]]);
    }

    /**
     * Feed-forward at which shifting the command by nothing fits best, of all that it holds between two frequencies: where the slope of
     * the cross-correlation, Σ ω·|C|²·|T|·sin φ, is nothing.
     *
     * @param list<float>         $command at 500 Hz, deg/s; its spectrum is summed bin by bin
     * @param array{float, float} $bandHz
     */
    public function inTime(array $command, array $bandHz): float
    {
        $power = [];
        $length = \count($command) / 500;
        for ($i = 1; $i <= 40 * $length; ++$i) {
            $w = 2 * \M_PI * $i / $length;
            [$re, $im, $c, $s, $dc, $ds] = [0.0, 0.0, 1.0, 0.0, cos($w / 500), sin($w / 500)];
            foreach ($command as $v) {
                $re += $v * $c;
                $im += $v * $s;
                [$c, $s] = [$c * $dc - $s * $ds, $c * $ds + $s * $dc];
            }
            // The band's own edges: first order below, second above.
            $passed = $w ** 2 / ($w ** 2 + (2 * \M_PI * $bandHz[0]) ** 2) / (1 + ($w / (2 * \M_PI * $bandHz[1])) ** 4);
            $power[] = [$w, $passed * ($re * $re + $im * $im)];
        }
        [$low, $high] = [0.0, 6.0];
        for ($i = 0; $i < 40; ++$i) {
            $mid = ($low + $high) / 2;
            $sum = 0.0;
            foreach ($power as [$w, $xx]) {
                [$re, $im] = $this->at($mid, $w);
                $sum -= $w * $xx * $im;
            }
            $sum > 0 ? ($low = $mid) : ($high = $mid);
        }

        return $low;
    }

    /**
     * @param float $gust deg/s² of gusts
     *
     * @return array{list<float>, list<float>} command and rotation at 500 Hz, deg/s
     */
    public function fly(float $k, float $seconds, float $size, float $gust, int $seed): array
    {
        $dice = new Lcg($seed);
        $h = 1 / self::HZ;
        $line = array_fill(0, (int) round($this->deadS * self::HZ), 0.0);
        $goal = $slow = $c = $r = $seen = $drive = $wind = $until = 0.0;
        $out = [[], []];
        for ($i = 0, $n = (int) ($seconds * self::HZ); $i < $n; ++$i) {
            if ($i * $h >= $until) {
                $goal = $size * (2 * $dice->next());
                $until = $i * $h + 0.2 + 0.5 * ($dice->next() + 0.5);
            }
            $slow += $h * ($goal - $slow) / 0.03;
            $turn = ($slow - $c) / 0.03;
            $c += $h * $turn;
            $line[] = $this->p * ($c - $seen) + $k * $turn;
            $drive += $h * ((float) array_shift($line) - $drive) / $this->motorS;
            $wind += -$wind * $h / 0.3 + $gust * sqrt(2 * $h / 0.3) * $dice->normal();
            $r += $h * ($this->b * $drive + $wind);
            $seen += $h * ($r - $seen) / $this->filterS;
            if (0 === $i % 8) {
                $out[0][] = $c;
                $out[1][] = $r + 1.5 * $dice->normal();
            }
        }

        return $out;
    }
}
