<?php

declare(strict_types=1);

// Times the computation and the command line against their bars; run by bin/bench.

use Ortholex\Bench\Flight\FlightCard;
use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Core\Analysis\FlightAnalysis;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\LogReader;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Signal\RealFft;
use Ortholex\Demo\Scenario;

$root = dirname(__DIR__);
require $root.'/vendor/autoload.php';

$say = static function (string $what, float $value, string $unit, float $bar): void {
    printf("%-58s %8.2f %-4s bar %6.2f   ratio %.2f\n", $what, $value, $unit, $bar, $value / $bar);
};

$fft = RealFft::ofSize(2048);
$x = array_map(static fn (int $i): float => sin($i * 0.37) + ($i % 7) * 0.1, range(0, 2047));
$times = [];
for ($round = 0; $round < 12; ++$round) {
    $t = hrtime(true);
    for ($i = 0; $i < 100; ++$i) {
        [$re] = $fft->forward($x);
        $x[0] += 1e-12 * $re[0];
    }
    $times[] = (hrtime(true) - $t) / 1e8;
}
sort($times);
$say('one real Fourier transform of 2048 points, median', $times[6], 'ms', 1.0);

$demo = Scenario::craft()['curlew'];
$set = array_merge(Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT)), $demo->settings);
$simulator = new FlightSimulator($demo->physics);
$fly = static function (int $seconds, string $path) use ($simulator, $set): float {
    $stream = fopen($path, 'w') ?: throw new RuntimeException($path);
    $t = hrtime(true);
    $simulator->fly(FlightCard::fly('mixed_sticks', $seconds, 150, $simulator->hoverThrottle(), 4), $set, $seconds, 11, [], $stream, '', static fn (float $s): bool => true);
    fclose($stream);

    return (hrtime(true) - $t) / 1e9;
};
$path = sys_get_temp_dir().'/ortholex-speed.csv';
$say('a flight of 40 s at 2 kHz, flown and written', $fly(40, $path), 's', 15.0);
$fly(60, $path);
$megabytes = filesize($path) / 1e6;
$t = hrtime(true);
$log = LogReader::readFile($path);
$seconds = (hrtime(true) - $t) / 1e9;
printf("%-58s %8.1f MB/s (%.1f MB, %d columns)\n", 'reading a log', $megabytes / $seconds, $megabytes, count($log->names()) + 1);
$t = hrtime(true);
FlightAnalysis::of($log);
printf("%-58s %8.2f s\n", 'all analyses of 60 s at 2 kHz, in a warm process', (hrtime(true) - $t) / 1e9);
$best = INF;
for ($i = 0; $i < 3; ++$i) {
    $t = hrtime(true);
    exec(escapeshellarg("$root/bin/ortholex").' analyse '.escapeshellarg($path).' --json 2>&1', $out, $code);
    $best = min($best, (hrtime(true) - $t) / 1e9);
    if (0 !== $code) {
        throw new RuntimeException(implode("\n", $out));
    }
}
$say('command line, 60 s at 2 kHz, three axes, everything', $best, 's', 3.0);
unlink($path);
