<?php

declare(strict_types=1);

// Figures of what is reckoned often, for CompilerTest: the same with and without the just-in-time compiler.

use Ortholex\Bench\Board\Lie;
use Ortholex\Bench\Compass\Needle;
use Ortholex\Bench\Position\PlumbG2;
use Ortholex\Bench\Position\PlumbState;
use Ortholex\Bench\Sky\Marsh;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Time\ManualPace;
use Ortholex\Core\Compass\CompassFit;
use Ortholex\Core\Compass\CompassMounting;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Homing\AirLaw;
use Ortholex\Core\Homing\ReturnForecast;
use Ortholex\Core\Homing\ReturnPlan;
use Ortholex\Core\Position\Magnetic\MagneticModel;
use Ortholex\Core\Position\Nmea\NmeaReader;
use Ortholex\Core\Video\ChannelPlan;
use Ortholex\Core\Video\Heron;
use Ortholex\Demo\Scenario;

require dirname(__DIR__, 3).'/vendor/autoload.php';

$say = static function (string $what, mixed $figures): void {
    echo $what, ' ', hash('xxh64', json_encode($figures, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION)), "\n";
};
$model = MagneticModel::load();
$date = new DateTimeImmutable('2026-11-15');
$field = [];
for ($i = 0; $i < 60; ++$i) {
    $f = $model->at(-80 + 2.7 * $i, -170 + 5.5 * $i, $date);
    $field[] = [$f->northUt, $f->eastUt, $f->downUt];
}
$say('magnetic', $field);
$needle = Needle::of(Scenario::craft()['bittern']->physics->compass) ?? throw new LogicException('Bittern has a compass.');
$state = new WorldState();
$state->tumbleAt = 100.0;
$readings = $poses = [];
for ($t = 100.0; $t < 139.0; $t += 0.05) {
    $turn = Lie::of($state, $t);
    $readings[] = $needle->reads(Marsh::earth(), $turn, 0.0);
    $poses[] = $turn->undo([0.0, 0.0, -1.0]);
}
$say('needle', $readings);
$fit = CompassFit::of($readings);
$say('fit', [$fit->offset, $fit->matrix]);
$mounting = CompassMounting::of(array_map(static fn (array $r, array $up): array => [$fit->apply($r), $up], $readings, $poses), 69.0);
$say('mounting', [$mounting->residualDeg, $mounting->nextDeg]);
$plumb = new PlumbState();
$plumb->poweredAt = 1_796_000_000.0 - 100;
$said = (new PlumbG2($plumb, true, new ManualPace()))->says(1_796_000_000.0, 1_796_000_030.0);
$say('plumb', $said);
$reader = new NmeaReader();
$reader->feed($said);
$say('wander', [$reader->reading()->wander()?->cep50M, $reader->reading()->whole]);
$plan = ReturnPlan::in(SettingSet::of([]));
$air = AirLaw::of(17.0, 14.0);
$forecasts = [];
for ($i = 0; $i < 400; ++$i) {
    $forecasts[] = ReturnForecast::noReturnM($plan, $air, 0.5 + $i / 400, 20.0, ($i % 80) / 10, 0.9 * $i);
}
$say('forecast', $forecasts);
$say('channels', ChannelPlan::best(Heron::mhz(), 5, [5740.0])->mhz());
