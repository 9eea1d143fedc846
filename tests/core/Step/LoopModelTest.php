<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Step;

use Ortholex\Core\Signal\Statistics;
use Ortholex\Core\Step\LoopModel;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

/** A loop is found again in its own response, and follows a response that is a little different. */
final class LoopModelTest extends TestCase
{
    /** Rad/s at which a response is known: to 80 Hz. */
    private const OMEGA = 6.283185307179586;

    public function testALoopIsFoundAgainInItsResponse(): void
    {
        $dice = new Lcg(74);
        $off = [];
        $share = static fn (float $from, float $to): float => $from + ($to - $from) * $dice->whole(0, 10_000) / 10_000;
        for ($k = 0; $k < 25; ++$k) {
            $is = [$share(0.8, 1.1), log($share(40, 220)), log($share(0.3, 1.2)), $share(0.002, 0.012), $share(-0.002, 0.006), 0.002];
            [$omega, $re, $im] = self::response($is);
            $found = LoopModel::fit($omega, $re, $im, array_fill(0, 80, 1e4));
            $worst = 0.0;
            foreach ($omega as $i => $w) {
                [$r, $j] = $found->response($w);
                $worst = max($worst, hypot($r - $re[$i], $j - $im[$i]));
            }
            // Dead time, zero and pole can stand in for one another: none is far off for that.
            self::assertLessThan(0.05, $worst, "loop $k");
            $off[] = $worst;
        }
        self::assertLessThan(0.01, Statistics::median($off));
    }

    public function testItFollowsAResponseThatDiffersALittle(): void
    {
        $before = LoopModel::known([1.0, log(90.0), log(0.6), 0.005, 0.002, 0.001]);
        $is = [0.96, log(97.0), log(0.55), 0.0055, 0.0025, 0.001];
        [$omega, $re, $im] = self::response($is);
        $weight = array_fill(0, 80, 1e4);
        $followed = $before->refit($omega, $re, $im, $weight);
        self::assertLessThan(1e-3 * self::apart($before, $omega, $re, $im), self::apart($followed, $omega, $re, $im));
        self::assertEqualsWithDelta($is[0], $followed->parameters()[0], 2e-3);
    }

    /**
     * By complex numbers written out, another way than the model's own.
     *
     * @param list<float> $p K, ln ω, ln ζ, τ, Tz, Tp
     *
     * @return array{list<float>, list<float>, list<float>}
     */
    private static function response(array $p): array
    {
        $omega = $re = $im = [];
        for ($i = 1; $i <= 80; ++$i) {
            $w = self::OMEGA * $i;
            $natural = exp($p[1]);
            $size = $p[0] * $natural ** 2 * hypot(1, $w * $p[4]);
            $size /= hypot($natural ** 2 - $w ** 2, 2 * exp($p[2]) * $natural * $w) * hypot(1, $w * $p[5]);
            $angle = -$w * $p[3] + atan($w * $p[4]) - atan2(2 * exp($p[2]) * $natural * $w, $natural ** 2 - $w ** 2) - atan($w * $p[5]);
            $omega[] = $w;
            $re[] = $size * cos($angle);
            $im[] = $size * sin($angle);
        }

        return [$omega, $re, $im];
    }

    /**
     * @param list<float> $omega
     * @param list<float> $re
     * @param list<float> $im
     */
    private static function apart(LoopModel $model, array $omega, array $re, array $im): float
    {
        $sum = 0.0;
        foreach ($omega as $i => $w) {
            [$r, $j] = $model->response($w);
            $sum += ($r - $re[$i]) ** 2 + ($j - $im[$i]) ** 2;
        }

        return $sum;
    }
}
