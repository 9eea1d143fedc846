<?php

declare(strict_types=1);

namespace Ortholex\Bench\Room;

use Ortholex\Bench\Board\BoardModel;
use Ortholex\Bench\Esc\EscModel;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Radio\Model;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Parts\Plan\BuildFault;
use Ortholex\Core\Parts\Plan\CraftFigures;
use Ortholex\Core\Parts\Plan\CraftPlan;
use Ortholex\Core\Parts\Plan\Soldering;
use Ortholex\Core\Parts\Plan\StartSettings;
use Ortholex\Core\Settings\Catalogue;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/** A craft as it comes from its parts: by their figures, with the tolerances of a seed and the mistakes of who built it. */
final class FromParts
{
    private const FIRMWARE = '26.01';
    private const ESC_FIRMWARE = ['Withy', '1.2.3'];
    private const OLDER_ESC_FIRMWARE = ['Bracken', '6.2.0'];

    /** Of the overlay chip on a board that has one. */
    private const CHIP_FIRMWARE = '2.0';

    private const SHUNT_WRONG = 1.18;

    private readonly Randomizer $dice;

    /** @var array<int, string> which motor hangs on each pad; drawn once, as ESCs and motors hang on the same */
    private readonly array $pads;

    /** @param list<BuildFault> $faults */
    private function __construct(
        private readonly string $name,
        private readonly CraftPlan $plan,
        private readonly array $faults,
        int $seed,
    ) {
        $this->dice = new Randomizer(new Xoshiro256StarStar(1000 + $seed));
        $this->pads = $this->pads();
    }

    /** @param list<BuildFault> $faults */
    public static function build(string $name, CraftPlan $plan, array $faults, int $seed): Build
    {
        return (new self($name, $plan, $faults, $seed))->made();
    }

    private function made(): Build
    {
        $plan = $this->plan;
        $figures = CraftFigures::of($plan);
        $soldering = Soldering::of($plan->board->id, $plan->extras);
        $settings = $this->settings($figures, $soldering);
        [$escs, $firmware] = $this->escs();

        return new Build(
            $this->name,
            BoardModel::of($plan->board, $this->serial($plan->board->name)),
            $this->physics($figures, $escs),
            self::FIRMWARE,
            $settings,
            $firmware,
            $soldering->wires,
            $soldering->bridged,
            [$this->name => $this->memory()],
            ['seed' => $this->dice->getInt(1, 9999)],
            '' === $plan->board->chip ? ['', ''] : [$plan->board->chip, self::CHIP_FIRMWARE],
        );
    }

    /** @return array<string, float|int|bool|string> */
    private function settings(CraftFigures $figures, Soldering $soldering): array
    {
        $known = Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT));
        $wired = $soldering->wiring?->settings($known)->toArray() ?? [];
        $settings = array_merge(StartSettings::of($this->plan, $figures), $wired);
        if ($this->has(BuildFault::MagnetsMiscounted)) {
            $settings['motors.rotor_magnets'] = 14 === $this->plan->motor->magnets ? 12 : 14;
        }
        if ($this->has(BuildFault::ReceiverUnset)) {
            foreach (array_keys($settings, 'receiver', true) as $role) {
                $settings[$role] = 'none';
            }
            $settings['receiver.protocol'] = 'none';
        }

        return SettingSet::of($settings)->among($known)->toArray();
    }

    /** @param array<int, EscModel> $escs */
    private function physics(CraftFigures $figures, array $escs): CraftPhysics
    {
        $plan = $this->plan;
        $frame = $plan->frame->airframe();
        $loose = $this->has(BuildFault::ArmLoose);
        $resonances = [];
        foreach ($plan->frame->ringsHz as $i => $hz) {
            $resonances[] = [
                'axis' => 0 === $i % 2 ? 1 : 0,
                'hz' => round($hz * $this->between($loose && 0 === $i ? 0.68 : 0.97, $loose && 0 === $i ? 0.76 : 1.03), 1),
                'damping' => $plan->frame->damping * ($loose && 0 === $i ? 0.4 : 1.0),
                'gain' => $loose && 0 === $i ? 0.9 : round($this->between(0.12, 0.25), 2),
            ];
        }
        $bent = $this->has(BuildFault::PropUnbalanced) ? $this->dice->getInt(0, $plan->motors() - 1) : -1;
        $imbalance = [];
        foreach (array_keys($frame->motors) as $i) {
            $imbalance[] = round($this->between(13.0, 24.0), 1) * ($i === $bent ? 3.5 : 1.0);
        }
        $sensors = $plan->board->sensors;

        return new CraftPhysics(
            $frame,
            $figures->massKg,
            $figures->inertia,
            $figures->thrustN,
            $figures->maxRpm,
            $figures->lagS,
            $imbalance,
            $resonances,
            $this->has(BuildFault::BoardTurned) ? [0.0, 0.0, 90.0 * $this->dice->getInt(1, 3)] : [0.0, 0.0, 0.0],
            $this->pads,
            $plan->pack->cells,
            $plan->pack->ohm(),
            $plan->pack->ah,
            $figures->fullA,
            $this->has(BuildFault::VoltageWrong) ? round($this->between(0.94, 0.97), 3) : 1.0,
            escs: $escs,
            levelFault: $this->has(BuildFault::BoardCrooked)
                ? [round($this->between(1.2, 2.8), 1), -round($this->between(1.2, 2.8), 1)]
                : [0.0, 0.0],
            magnets: $plan->motor->magnets,
            terminalMs: $figures->terminalMs,
            tilted45Ms: $figures->tilted45Ms,
            currentFault: $this->has(BuildFault::CurrentWrong) ? self::SHUNT_WRONG : 1.0,
            compass: \in_array('compass', $sensors, true) ? ['hard' => $this->iron()] : [],
        );
    }

    /** @return array<int, string> by pad: three of them in a ring where they were mixed */
    private function pads(): array
    {
        $places = $this->plan->frame->airframe()->places();
        if ($this->has(BuildFault::OutputsMixed)) {
            [$a, $b, $c] = $this->dice->shuffleArray(array_keys($places));
            [$places[$a], $places[$b], $places[$c]] = [$places[$b], $places[$c], $places[$a]];
        }

        return array_combine(range(1, \count($places)), $places);
    }

    /** @return array{array<int, EscModel>, array<int, array{string, string, int, array<string, float|int|bool|string>}>} by pad */
    private function escs(): array
    {
        $esc = $this->plan->esc;
        $frame = $this->plan->frame->airframe();
        $pads = $this->pads;
        $odd = $this->has(BuildFault::OddEsc) ? $this->dice->getInt(1, \count($pads)) : 0;
        $wrong = $this->has(BuildFault::DirectionsWrong) ? \array_slice($this->dice->shuffleArray(array_keys($pads)), 0, 2) : [];
        $models = $firmware = [];
        foreach ($pads as $pad => $place) {
            $spin = $frame->at($place)->spin ?? 1;
            $turns = \in_array($pad, $wrong, true) ? -$spin : $spin;
            $serial = $this->serial($esc->layout);
            $models[$pad] = new EscModel($esc->name, $esc->layout, $esc->clockMhz, $esc->deadTimeNs, $esc->measuresHeat, $turns, $serial);
            [$family, $version] = $pad === $odd ? self::OLDER_ESC_FIRMWARE : self::ESC_FIRMWARE;
            $firmware[$pad] = [$family, $version, $esc->switchingKhz, []];
        }

        return [$models, $firmware];
    }

    /** @return array<string, mixed> the memory of the transmitter for this craft, where it is not a sound one */
    private function memory(): array
    {
        $sound = Model::sound();
        $memory = [];
        if ($this->has(BuildFault::ChannelOrder)) {
            // Throttle first, as another make has it.
            $memory['order'] = [2, 0, 1, ...\array_slice($sound->order, 3)];
        }
        if ($this->has(BuildFault::SpansShort)) {
            foreach (range(0, 3) as $channel) {
                $memory['low'][] = round($this->between(86.0, 93.0));
                $memory['high'][] = round($this->between(86.0, 93.0));
            }
            $memory['low'] = [...$memory['low'], ...\array_slice($sound->lowPct, 4)];
            $memory['high'] = [...$memory['high'], ...\array_slice($sound->highPct, 4)];
        }
        if ($this->has(BuildFault::ChannelReversed)) {
            $memory['reversed'] = [1 => true] + $sound->reversed;
            ksort($memory['reversed']);
        }

        return $memory;
    }

    /** @return list<float> iron near the needle, µT */
    private function iron(): array
    {
        return array_map(fn (): float => round($this->between(-22.0, 22.0), 1), [0, 1, 2]);
    }

    private function serial(string $of): string
    {
        return \sprintf('%s-%05d', strtoupper(substr($of, 0, 2)), $this->dice->getInt(0, 99_999));
    }

    private function has(BuildFault $fault): bool
    {
        return \in_array($fault, $this->faults, true);
    }

    private function between(float $a, float $b): float
    {
        return $a + ($b - $a) * ($this->dice->getInt(0, 1_000_000) / 1e6);
    }
}
