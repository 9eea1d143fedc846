<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Location;

use Ortholex\App\Location\Sky\SkyPlot;
use Ortholex\Core\Position\Nmea\Satellite;
use PHPUnit\Framework\TestCase;

/** Names in the sky cover neither marks nor each other. */
final class SkyPlotTest extends TestCase
{
    public function testNamesOfFiftyRandomSkiesStandClear(): void
    {
        $even = new \Random\Randomizer(new \Random\Engine\Mt19937(7));
        $all = $named = 0;
        for ($sky = 0; $sky < 50; ++$sky) {
            $satellites = [];
            for ($n = 1; $n <= 24; ++$n) {
                $satellites[] = new Satellite('GP', $n, $even->getInt(0, 90), $even->getInt(0, 359), $even->getInt(15, 50), true);
            }
            $marks = (new SkyPlot($satellites))->marks();
            self::assertCount(24, $marks);
            foreach ($marks as $i => $m) {
                ++$all;
                if (!$m['named']) {
                    continue;
                }
                ++$named;
                $half = 3.5 * \strlen($m['name']);
                foreach ($marks as $j => $other) {
                    $apart = abs($m['nameX'] - $other['x']) >= $half + $other['r'] - 0.2
                        || abs($m['nameY'] - 4 - $other['y']) >= 5 + $other['r'] - 0.2;
                    self::assertTrue($apart, "$m[name] covers the mark of $other[name]");
                    $clear = $i === $j || !$other['named']
                        || abs($m['nameX'] - $other['nameX']) >= $half + 3.5 * \strlen($other['name']) - 0.2
                        || abs($m['nameY'] - $other['nameY']) >= 9.8;
                    self::assertTrue($clear, "$m[name] covers $other[name]");
                }
            }
        }
        self::assertGreaterThan(0.9 * $all, $named, 'and most have room');
    }
}
