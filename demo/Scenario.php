<?php

declare(strict_types=1);

namespace Ortholex\Demo;

use Ortholex\Bench\Board\BoardModel;
use Ortholex\Bench\Esc\EscModel;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Pack\PackCard;
use Ortholex\Core\Parts\PartsCatalogue;
use Ortholex\Core\Proof\Proved;

/** Wigeon Point Marsh Survey: three craft of their own making. Every maker, part and person is invented. */
final readonly class Scenario
{
    public const OWNER = 'Wigeon Point Marsh Survey';

    /** Four sticks, levers A to F, two knobs; −1 is low. */
    private const LEVERS_FOR_RATES = [0.0, 0.0, -1.0, 0.0, -1.0, 1.0, -1.0, -1.0, -1.0, -1.0, 0.0, 0.0];

    /** What those that fly were proved of; nobody ever tried what a lost link does. */
    private const PROVED = [Proved::Mounting, Proved::SpinCheck, Proved::Directions, Proved::Spans];

    /** @return array<string, array<string, mixed>> the transmitter has a memory for each craft, by its name */
    public static function memories(): array
    {
        $memories = [];
        foreach (self::craft() as $craft) {
            $memories[$craft->name] = $craft->memory;
        }

        return $memories;
    }

    /** @return array<string, DemoCraft> by slug */
    public static function craft(): array
    {
        return ['dunlin' => self::dunlin(), 'curlew' => self::curlew(), 'bittern' => self::bittern()];
    }

    private static function dunlin(): DemoCraft
    {
        $frame = Airframe::quadX(0.14);

        return new DemoCraft(
            'dunlin',
            'Dunlin',
            '3-inch, 4-cell',
            'looks into boathouses and hides',
            'Just assembled, never flown.',
            self::board('MARL-F4', 'M4-20931'),
            new CraftPhysics(
                $frame,
                0.29,
                [0.00042, 0.00046, 0.0008],
                4.4,
                34000,
                0.019,
                [16, 14, 17, 15],
                [['axis' => 1, 'hz' => 241.0, 'damping' => 0.05, 'gain' => 0.2]],
                [0.0, 0.0, 90.0],
                [1 => 'front_right', 2 => 'rear_left', 3 => 'front_left', 4 => 'rear_right'],
                4,
                0.018,
                0.85,
                62,
                0.957,
                escs: self::escs(
                    $frame,
                    [1 => 'front_right', 2 => 'rear_left', 3 => 'front_left', 4 => 'rear_right'],
                    'Osier 20',
                    'K7',
                    64,
                    350,
                    false,
                    ['rear_left', 'rear_right'],
                    ['rear_right' => [32, 400]],
                ),
                levelFault: [1.9, -2.6],
                magnets: 12,
            ),
            '25.08',
            ['crsf'],
            self::pads(['front_right', 'rear_right', 'rear_left', 'front_left']) + [
                'frame.diagonal_mm' => 140.0,
                'props.diameter_mm' => 76,
                'motors.idle_pct' => 7.5,
                'pack.cells' => 4,
                // As the board came, from a craft with another receiver.
                'receiver.protocol' => 'sbus',
                'uart.1.role' => 'none',
            ],
            [
                1 => ['Withy', '1.1.0', 20, []],
                2 => ['Withy', '1.1.0', 20, []],
                3 => ['Withy', '1.1.0', 20, ['advance_deg' => 22.0]],
                4 => ['Bracken', '6.2.0', 20, []],
            ],
            ['parts' => ['rill-c', 'heron-400'], 'wires' => [], 'bridged' => []],
            memory: [
                // Throttle first, as another make has it.
                'order' => [2, 0, 1, 3, 4, 5, 6, 7, 8, 9, 10, 11],
                'low' => [92.0, 88.0, 90.0, 89.0, ...array_fill(0, 8, 100.0)],
                'high' => [93.0, 91.0, 87.0, 90.0, ...array_fill(0, 8, 100.0)],
                'trim' => [6.0, 14.0, -11.0, -18.0, ...array_fill(0, 8, 0.0)],
                'reversed' => [false, false, true, false, ...array_fill(0, 8, false)],
            ],
            radio: ['boundTo' => '', 'tremble' => 2.4, 'seed' => 3],
            soldered: [['rill-c.v', '4V5'], ['rill-c.gnd', 'GND-L2'], ['rill-c.tx', 'RX1'], ['rill-c.rx', 'TX1']],
        );
    }

    private static function curlew(): DemoCraft
    {
        $frame = Airframe::quadX(0.216);

        return new DemoCraft(
            'curlew',
            'Curlew',
            '5-inch, 6-cell',
            'maps creeks in the wind',
            'Flies; a tune in progress.',
            self::board('QUERN-F7', 'Q7-00417'),
            new CraftPhysics(
                $frame,
                0.71,
                [0.0029, 0.0033, 0.0056],
                13.0,
                29500,
                0.022,
                [26, 22, 24, 28],
                [
                    ['axis' => 1, 'hz' => 212.0, 'damping' => 0.05, 'gain' => 0.25],
                    ['axis' => 0, 'hz' => 268.0, 'damping' => 0.06, 'gain' => 0.15],
                ],
                [0.0, 0.0, 0.0],
                [1 => 'rear_right', 2 => 'front_right', 3 => 'rear_left', 4 => 'front_left'],
                6,
                0.021,
                1.3,
                132,
                escs: self::escs(
                    $frame,
                    [1 => 'rear_right', 2 => 'front_right', 3 => 'rear_left', 4 => 'front_left'],
                    'Osier 45',
                    'P3',
                    64,
                    250,
                    true,
                ),
            ),
            '26.01',
            ['crsf'],
            self::pads(['rear_right', 'front_right', 'rear_left', 'front_left']) + [
                'frame.diagonal_mm' => 216.0,
                'pack.cells' => 6,
                'uart.1.role' => 'receiver',
                'uart.1.baud' => '420000',
                'uart.4.role' => 'video',
                'uart.4.baud' => '9600',
                'uart.4.half_duplex' => true,
                'video.enabled' => true,
                'location.enabled' => true,
                // Figures only: it flies without a fix, too.
                'interlock.if_no_fix' => 'warn',
                'uart.2.role' => 'gps',
                'uart.2.baud' => '38400',
                'overlay.enabled' => true,
                'uart.3.role' => 'overlay',
                'uart.3.baud' => '115200',
                'overlay.raster' => 'digital',
                'overlay.item.pack_voltage' => '1:1,1',
                'overlay.item.flight_time' => '1:39,1',
                'overlay.item.home_distance' => '1:20,1',
                'overlay.item.link_quality' => '1:1,18',
                'overlay.item.warnings' => '1:16,15',
                'motors.rpm_feedback' => true,
                'notch.motor.orders' => '1,2',
                'gain.roll.p' => 33.0,
                'gain.roll.d' => 1.7,
                'gain.pitch.p' => 30.0,
                'gain.pitch.d' => 2.8,
                'motors.loop_rate_hz' => '2000',
                'action.arm.on_in' => '5:1750-',
                'action.beeper.on_in' => '5:1250-1750, 7:1500-',
                'action.angle.on_in' => '6:-1250',
                'action.horizon.on_in' => '6:1250-1750',
            ],
            array_fill(1, 4, ['Withy', '1.2.3', 20, []]),
            [
                'parts' => ['rill-c', 'heron-400', 'plumb-g2', 'scry-d'],
                'wires' => [
                    ['rill-c.v', '4V5'],
                    ['rill-c.gnd', 'GND-L2'],
                    ['rill-c.tx', 'RX1'],
                    ['rill-c.rx', 'TX1'],
                    ['heron-400.v', '9V'],
                    ['heron-400.gnd', 'GND-R8'],
                    ['heron-400.one', 'TX4'],
                    ['plumb-g2.v', '5V'],
                    ['plumb-g2.gnd', 'GND-R2'],
                    ['plumb-g2.tx', 'RX2'],
                    ['plumb-g2.rx', 'TX2'],
                    ['scry-d.v', '5V'],
                    ['scry-d.gnd', 'GND-R2'],
                    ['scry-d.tx', 'RX3'],
                    ['scry-d.rx', 'TX3'],
                ],
                'bridged' => [],
            ],
            // Lever B stands where the sticks are rates: so its flights are flown. Its receiver was told to repeat what it heard last.
            radio: ['controls' => self::LEVERS_FOR_RATES, 'manner' => 'repeats'],
            shown: self::shown(1.0),
            proved: self::PROVED,
            chip: ['Scry D', '2.0'],
            packs: [PackCard::fresh(1, 'Sedge 2', 6, 1.3)->used(false), PackCard::fresh(2, 'Sedge 1', 6, 1.3)],
        );
    }

    private static function bittern(): DemoCraft
    {
        $frame = Airframe::hexaX(0.29);

        return new DemoCraft(
            'bittern',
            'Bittern',
            'hexa, 8-inch, 6-cell',
            'maps the point',
            'Back from the reeds; a frame resonance to find.',
            self::board('TARN-H7', 'T7-00058'),
            new CraftPhysics(
                $frame,
                2.1,
                [0.026, 0.026, 0.046],
                17.0,
                14500,
                0.042,
                [18, 20, 17, 19, 18, 21],
                [
                    ['axis' => 1, 'hz' => 94.0, 'damping' => 0.02, 'gain' => 0.9],
                    ['axis' => 0, 'hz' => 101.0, 'damping' => 0.025, 'gain' => 0.6],
                ],
                [0.0, 0.0, 0.0],
                [1 => 'front_right', 2 => 'right', 3 => 'rear_right', 4 => 'rear_left', 5 => 'left', 6 => 'front_left'],
                6,
                0.012,
                8.0,
                150,
                escs: self::escs(
                    $frame,
                    [1 => 'front_right', 2 => 'right', 3 => 'rear_right', 4 => 'rear_left', 5 => 'left', 6 => 'front_left'],
                    'Osier 45',
                    'P3',
                    64,
                    250,
                    true,
                ),
                // Beside the pack's wires, on its back and turned by a quarter; iron screws hold it.
                compass: [
                    'hard' => [18.4, -31.2, 22.7],
                    'soft' => [1.06, 0.03, -0.02, 0.03, 0.94, 0.04, -0.02, 0.04, 1.01],
                    'lies' => [180.0, 0.0, 90.0],
                    'per_pct' => [0.03, -0.02, 0.05],
                ],
                camera: ['middle_us' => 1478.0, 'us_per_deg' => -9.2, 'low_deg' => -71.0, 'high_deg' => 34.0, 'most_hz' => 70.0],
            ),
            '26.01',
            ['sbus', 'gps', 'overlay'],
            self::pads(['front_right', 'right', 'rear_right', 'rear_left', 'left', 'front_left']) + [
                'frame.layout' => 'hexa_x',
                'frame.diagonal_mm' => 580.0,
                'props.diameter_mm' => 203,
                'pack.cells' => 6,
                'location.enabled' => true,
                'overlay.enabled' => true,
                // As somebody set it who took the regulator's wire for the pack's.
                'overlay.voltage_from' => 'video_rail',
                'overlay.layouts' => '1:always 2:disarmed',
                'overlay.item.pack_voltage' => '1:1,1 2:1,1',
                'overlay.item.minutes_left' => '1:1,2',
                'overlay.item.flight_time' => '1:21,1',
                'overlay.item.height' => '1:21,12',
                'overlay.item.home_distance' => '1:1,12',
                'overlay.item.horizon' => '1:9,5',
                'overlay.item.warnings' => '1:7,11 2:7,8',
                'overlay.item.craft_name' => '2:9,2',
                'overlay.item.satellites' => '2:22,1',
                'receiver.protocol' => 'sbus',
                'uart.1.role' => 'receiver',
                'uart.1.baud' => '100000',
                'uart.1.inverted' => true,
                'uart.3.role' => 'gps',
                'uart.3.baud' => '38400',
                'uart.5.role' => 'video',
                'uart.5.baud' => '9600',
                'uart.5.half_duplex' => true,
                'video.enabled' => true,
                'gain.roll.p' => 30.0,
                'gain.roll.d' => 2.0,
                'gain.pitch.p' => 30.0,
                'gain.pitch.d' => 2.0,
                'gain.yaw.p' => 60.0,
                'pad.7.drives' => 'camera_tilt',
                'telemetry.attitude' => true,
                'action.arm.on_in' => '5:1750-',
                'action.beeper.on_in' => '5:1250-1750',
                'action.angle.on_in' => '6:-1250, 6:1250-1750',
                'action.altitude_hold.on_in' => '6:1250-1750',
                'action.camera_level.on_in' => '7:1500-',
                'action.position_hold.on_in' => '8:1250-1750',
                'action.return.on_in' => '8:1750-',
            ],
            array_fill(1, 6, ['Withy', '1.4.0', 40, ['brake_on_slow_down' => false]]),
            [
                'parts' => ['rill-s', 'rill-port', 'plumb-g2', 'heron-400'],
                'wires' => [
                    ['rill-s.v', '4V5'],
                    ['rill-s.gnd', 'GND-L2'],
                    ['rill-s.tx', 'RX1'],
                    ['rill-port.gnd', 'GND-L2'],
                    ['rill-port.one', 'SW1'],
                    ['plumb-g2.v', '5V'],
                    ['plumb-g2.gnd', 'GND-L9'],
                    ['plumb-g2.tx', 'RX3'],
                    ['plumb-g2.rx', 'TX3'],
                    ['heron-400.v', '9V'],
                    ['heron-400.gnd', 'GND-R2'],
                    ['heron-400.one', 'TX5'],
                ],
                'bridged' => ['J2'],
            ],
            radio: ['controls' => self::LEVERS_FOR_RATES],
            shown: self::shown(0.8),
            proved: self::PROVED,
            packs: [PackCard::fresh(1, 'Bulrush 8', 6, 8.0)],
            chip: ['Scry', '1.3'],
            // Told another rate since its last flight, and to remember it: to the board it is rubbish.
            moduleBaud: 57600,
        );
    }

    private static function board(string $hardwareId, string $serial): BoardModel
    {
        return BoardModel::of(PartsCatalogue::shipped()->boards[$hardwareId], $serial);
    }

    /**
     * @param array<int, string>             $wired pad => place
     * @param list<string>                   $wrong places whose motor turns the wrong way, by the order of its wires
     * @param array<string, array{int, int}> $other clock and dead time of ESCs from another batch
     *
     * @return array<int, EscModel> by pad
     */
    private static function escs(
        Airframe $frame,
        array $wired,
        string $maker,
        string $layout,
        int $clockMhz,
        int $deadTimeNs,
        bool $measuresHeat,
        array $wrong = [],
        array $other = [],
    ): array {
        $escs = [];
        foreach ($wired as $pad => $place) {
            $spin = $frame->at($place)->spin ?? 1;
            $escs[$pad] = new EscModel(
                $maker,
                $layout,
                $other[$place][0] ?? $clockMhz,
                $other[$place][1] ?? $deadTimeNs,
                $measuresHeat,
                \in_array($place, $wrong, true) ? -$spin : $spin,
                \sprintf('%s-%05d', $layout, crc32("$maker $place") % 100_000),
            );
        }

        return $escs;
    }

    /** @return array<string, mixed> a sound radio, as it was shown: order, spans and levers */
    private static function shown(float $jitterUs): array
    {
        $span = ['moved' => true, 'low' => 1000.0, 'middle' => 1500.0, 'high' => 2000.0, 'jitter' => $jitterUs, 'rests' => $jitterUs];
        $order = $spans = $levers = [];
        foreach (['roll', 'pitch', 'throttle', 'yaw'] as $i => $stick) {
            $order[$stick] = ['number' => $i + 1, 'reversed' => false, 'margin' => 40.0];
            $spans[$i + 1] = 'throttle' === $stick ? ['middle' => null] + $span : $span;
        }
        foreach ([5 => 3, 6 => 3, 7 => 2, 8 => 3, 9 => 2, 10 => 3] as $channel => $positions) {
            $at = 3 === $positions ? [1000.0, 1500.0, 2000.0] : [1000.0, 2000.0];
            $levers[$channel] = ['positions' => $at, 'jitter' => 0.0, 'knob' => false];
        }

        return ['order' => $order, 'spans' => $spans, 'levers' => $levers];
    }

    /**
     * @param list<string> $places
     *
     * @return array<string, string>
     */
    private static function pads(array $places): array
    {
        $pads = [];
        foreach ($places as $i => $place) {
            $pads['pad.'.($i + 1).'.drives'] = $place;
        }

        return $pads;
    }
}
