<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Sensors;

use Random\Engine\Xoshiro256StarStar;

/** Gaussian noise in blocks, from a seed; Box–Muller on a standard generator. */
final class Noise
{
    private Xoshiro256StarStar $engine;

    public function __construct(int $seed)
    {
        $this->engine = new Xoshiro256StarStar($seed);
    }

    /** @return list<float> zero mean, unit deviation; $count even */
    public function block(int $count): array
    {
        $bytes = '';
        for ($i = 0; $i < $count; $i += 2) {
            $bytes .= $this->engine->generate();
        }
        /** @var array<int, int> $raw */
        $raw = unpack('V*', $bytes);
        $out = [];
        for ($i = 1, $n = \count($raw); $i < $n; $i += 2) {
            $r = sqrt(-2.0 * log(($raw[$i] + 1.0) / 4294967297.0));
            $a = (2.0 * \M_PI * $raw[$i + 1]) / 4294967296.0;
            $out[] = $r * cos($a);
            $out[] = $r * sin($a);
        }

        return $out;
    }
}
