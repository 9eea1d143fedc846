<?php

declare(strict_types=1);

// The analysis against numpy and scipy doing the same core work on the same files, in alternation; run by `bin/bench peers`.
// Where numpy is not there, our own figures stand alone.

use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Bench\Flight\Pilot\FlightCard;
use Ortholex\Bench\Flight\Recording\CsvRecorder;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Demo\Scenario;

$root = dirname(__DIR__);
require $root.'/vendor/autoload.php';

const ROUNDS = 3;
const BARS = ['CPU' => 1.5, 'wall' => 1.2];

/** Seconds of the processor that ended children have taken. */
function used(): float
{
    $r = array_map(static fn (mixed $v): float => is_numeric($v) ? (float) $v : 0.0, getrusage(1) ?: []);

    return $r['ru_utime.tv_sec'] + $r['ru_stime.tv_sec'] + ($r['ru_utime.tv_usec'] + $r['ru_stime.tv_usec']) / 1e6;
}

/**
 * @param list<string> $command
 *
 * @return array{cpu: float, wall: float} seconds that it takes
 */
function timed(array $command): array
{
    [$cpu, $wall] = [used(), hrtime(true)];
    $process = proc_open($command, [1 => ['file', '/dev/null', 'w'], 2 => STDERR], $pipes) ?: throw new RuntimeException($command[0]);
    if (0 !== proc_close($process)) {
        throw new RuntimeException(implode(' ', $command).' failed');
    }

    return ['cpu' => used() - $cpu, 'wall' => (hrtime(true) - $wall) / 1e9];
}

/** @param list<array{cpu: float, wall: float}> $all */
function best(array $all, string $what): float
{
    return min([INF, ...array_map(static fn (array $one): float => $one[$what] ?? INF, array_slice($all, 1))]);
}

$pythons = array_filter(['python3', '/usr/bin/python3'], static function (string $python): bool {
    exec($python.' -c "import numpy, scipy" 2>/dev/null', $out, $code);

    return 0 === $code;
});
$python = array_values($pythons)[0] ?? '';
$hasNumpy = '' !== $python;
echo $hasNumpy ? '' : "numpy and scipy are not here: our own figures alone\n";
$curlew = Scenario::craft()['curlew'];
$set = Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT))->with($curlew->settings);
$simulator = new FlightSimulator($curlew->physics);
foreach ([[30, 1000], [60, 2000], [300, 2000]] as [$seconds, $rate]) {
    $path = sys_get_temp_dir()."/ortholex-peers-$seconds.csv";
    $stream = fopen("$path.full", 'w+') ?: throw new RuntimeException($path);
    $flown = min(60, $seconds);
    $card = FlightCard::fly(Card::MixedSticks, $flown, 150, $simulator->hoverThrottle(), 4);
    $simulator->fly($card, $set, $flown, 11, [], new CsvRecorder($stream), static fn (float $s): bool => true);
    rewind($stream);
    $rows = [];
    while (false !== ($line = fgets($stream))) {
        if ('#' !== $line[0]) {
            $rows[] = substr(rtrim($line), strpos($line, ',') + 1);
        }
    }
    fclose($stream);
    unlink("$path.full");
    $head = array_shift($rows);
    $logged = count($rows) / $flown;
    $every = max(1, (int) round($logged / $rate));
    $to = fopen($path, 'w') ?: throw new RuntimeException($path);
    fwrite($to, "time_s,$head\n");
    for ($i = 0, $n = $seconds * $rate; $i < $n; ++$i) {
        fwrite($to, sprintf("%.6F,%s\n", $i / $rate, $rows[($i * $every) % count($rows)]));
    }
    fclose($to);
    unset($rows);
    $ours = $theirs = [];
    for ($round = 0; $round <= ROUNDS; ++$round) {
        // The first round only warms caches.
        $ours[] = timed([$root.'/bin/ortholex', 'analyse', $path, '--json']);
        $theirs[] = $hasNumpy ? timed([$python, $root.'/bench/peers/core_work.py', $path]) : ['cpu' => NAN, 'wall' => NAN];
    }
    foreach (['CPU' => 'cpu', 'wall' => 'wall'] as $what => $key) {
        $ratio = best($ours, $key) / best($theirs, $key);
        printf(
            "%-40s ours %6.2f s   numpy %6.2f s   ratio %.2f   goal %.1f %s\n",
            "$what of $seconds s at $rate Hz",
            best($ours, $key),
            best($theirs, $key),
            $ratio,
            BARS[$what],
            is_nan($ratio) ? '' : ($ratio <= BARS[$what] ? 'met' : 'MISSED'),
        );
    }
    unlink($path);
}
