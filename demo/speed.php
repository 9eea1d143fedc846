<?php

declare(strict_types=1);

// Times the computation and the command line against their bars; run by bin/bench.

use Ortholex\App\Work\Process\SideBySide;
use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Bench\Flight\Pilot\FlightCard;
use Ortholex\Bench\Flight\Pilot\Itinerary;
use Ortholex\Bench\Flight\Recording\CsvRecorder;
use Ortholex\Bench\Flight\Sortie;
use Ortholex\Bench\Flight\Surroundings\Wind;
use Ortholex\Bench\Radio\RadioState;
use Ortholex\Bench\Radio\Rill;
use Ortholex\Bench\Radio\Road;
use Ortholex\Core\Filters\ClosedLoop;
use Ortholex\Core\Filters\Scores;
use Ortholex\Core\Filters\TradeOff;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Report\FlightAnalysis;
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
$say('one real Fourier transform of 2048 points, median', $times[6], 'ms', 0.6);

$demo = Scenario::craft()['curlew'];
$set = Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT))->with($demo->settings);
$simulator = new FlightSimulator($demo->physics);
$fly = static function (int $seconds, string $path) use ($simulator, $set): float {
    $stream = fopen($path, 'w') ?: throw new RuntimeException($path);
    $t = hrtime(true);
    $simulator->fly(
        FlightCard::fly(Card::MixedSticks, $seconds, 150, $simulator->hoverThrottle(), 4),
        $set,
        $seconds,
        11,
        [],
        new CsvRecorder($stream),
        static fn (float $s): bool => true,
    );
    fclose($stream);

    return (hrtime(true) - $t) / 1e9;
};
$path = sys_get_temp_dir().'/ortholex-speed.csv';
$say('a flight of 40 s at 2 kHz, flown and written', $fly(40, $path), 's', 15.0);
$stream = fopen($path, 'w') ?: throw new RuntimeException($path);
$t = hrtime(true);
$armed = $set->with(['action.arm.on_in' => '5:1750-']);
$simulator->goOut(
    new Sortie(Itinerary::stay(20), Road::of(new RadioState(), Rill::C, $armed), wind: new Wind(4.0, 0.0, 1.0, 3), fromHeightM: 20),
    $armed,
    40,
    11,
    [],
    new CsvRecorder($stream),
    static fn (float $s): bool => true,
);
fclose($stream);
$say('the same in the open world, with wind and ground', (hrtime(true) - $t) / 1e9, 's', 15.0);
$fly(60, $path);
$megabytes = filesize($path) / 1e6;
$t = hrtime(true);
$log = LogReader::readFile($path);
$seconds = (hrtime(true) - $t) / 1e9;
printf("%-58s %8.1f MB/s (%.1f MB, %d columns)\n", 'reading a log', $megabytes / $seconds, $megabytes, count($log->names()) + 1);
$t = hrtime(true);
FlightAnalysis::of($log);
printf("%-58s %8.2f s\n", 'all analyses of 60 s at 2 kHz, in a warm process', (hrtime(true) - $t) / 1e9);
foreach ([30 => 1.0, 60 => 2.0] as $long => $bar) {
    $half = sys_get_temp_dir().'/ortholex-speed-half.csv';
    $fly($long, $half);
    $flight = LogReader::readFile($half);
    unlink($half);
    $loop = ClosedLoop::in($flight, $set);
    $t = hrtime(true);
    $chains = count(TradeOff::of($flight, $set, $loop, new SideBySide(), Scores::ALL)->all);
    $took = (((hrtime(true) - $t) / 1e9) * 500) / $chains;
    $say("noise against delay, 500 chains, all of $long s at 2 kHz", $took, 's', $bar);
}
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
// A five-minute flight as the bar has it: 2 kHz, 30 columns, about 100 MB.
$long = sys_get_temp_dir().'/ortholex-speed-long.csv';
$in = fopen($path, 'r') ?: throw new RuntimeException($path);
$head = '';
$rows = [];
while (false !== ($line = fgets($in))) {
    if ('#' === $line[0]) {
        continue;
    }
    $cells = explode(',', rtrim($line));
    if ('' === $head) {
        $head = implode(',', array_slice($cells, 0, 30));
    } else {
        $rows[] = implode(',', array_slice($cells, 1, 29));
    }
}
fclose($in);
$out = fopen($long, 'w') ?: throw new RuntimeException($long);
fwrite($out, "$head\n");
for ($i = 0; $i < 600_000; ++$i) {
    fwrite($out, sprintf("%.6F,%s\n", $i / 2000, $rows[$i % count($rows)]));
}
fclose($out);
unset($rows);
$megabytes = filesize($long) / 1e6;
$read =
    'require "'.
    $root.
    '/vendor/autoload.php"; $t = hrtime(true); \\Ortholex\\Core\\FlightLog\\Reading\\LogReader::readFile($argv[1]); '.
    'printf("%.3f %.1f", (hrtime(true) - $t) / 1e9, memory_get_peak_usage(true) / 1e6);';
[$seconds, $peak] = array_map(
    'floatval',
    explode(
        ' ',
        (string) shell_exec(
            PHP_BINARY.
                ' -d opcache.enable_cli=1 -d opcache.jit=1054 -d opcache.jit_buffer_size=128M -r '.
                escapeshellarg(str_replace('\\\\', '\\', $read)).
                ' '.
                escapeshellarg($long),
        ),
    ),
);
printf("%-58s %8.1f MB/s bar %6.2f   (%.0f MB)\n", 'reading a five-minute log of 30 columns', $megabytes / $seconds, 15.0, $megabytes);
$say('  peak of memory while reading it', $peak, 'MB', 128.0);
$t = hrtime(true);
exec(escapeshellarg("$root/bin/ortholex").' analyse '.escapeshellarg($long).' --json 2>&1', $lines, $code);
$say('  all analyses of it from the command line', (hrtime(true) - $t) / 1e9, 's', 12.0);
unlink($long);
unlink($path);
