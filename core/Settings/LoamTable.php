<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

/**
 * The catalogue itself: every setting of Loam, once. Forms, checks, YAML, migration and docs/settings.md all
 * come from here. Gains are in physical units: output in %, rates in deg/s.
 */
final readonly class LoamTable
{
    private const AXES = ['roll', 'pitch', 'yaw'];
    private const UARTS = [
        '1' => 'UART 1',
        '2' => 'UART 2',
        '3' => 'UART 3',
        '4' => 'UART 4',
        '5' => 'UART 5',
        '6' => 'UART 6',
        'software_1' => 'Software UART 1',
        'software_2' => 'Software UART 2',
    ];

    /** @return list<Setting> */
    public static function rows(): array
    {
        return [
            ...self::gains(),
            ...self::filters(),
            ...self::feel(),
            ...self::motors(),
            ...self::frame(),
            ...self::wiring(),
            ...self::radio(),
            ...self::guard(),
            ...self::aids(),
            ...self::former(),
        ];
    }

    /** @return list<Setting> */
    private static function gains(): array
    {
        $rows = [];
        $defaults = ['roll' => [24.0, 70.0, 2.4, 0.0], 'pitch' => [27.0, 80.0, 2.8, 0.0], 'yaw' => [40.0, 90.0, 0.0, 0.0]];
        foreach (self::AXES as $axis) {
            [$p, $i, $d, $ff] = $defaults[$axis];
            $rows[] = self::number(
                "gain.$axis.p",
                "P, $axis",
                'gains',
                '% per 100 deg/s',
                $p,
                0,
                120,
                0.5,
                'Output against the error of the rate. More follows faster, until the axis rings at one frequency.',
            );
            $rows[] = self::number(
                "gain.$axis.i",
                "I, $axis",
                'gains',
                '% per 100 deg',
                $i,
                0,
                400,
                1,
                'Output against the error gathered over time. Holds the attitude against wind and an uneven pack.',
            );
            $rows[] = new Setting(
                "gain.$axis.d",
                Setting::NUMBER,
                "D, $axis",
                'gains',
                '% per 1000 deg/s²',
                $d,
                ['4.0' => [0, 12], '4.3' => [0, 8]],
                0.1,
                [],
                '4.0',
                null,
                false,
                'Output against the change of the rate. Damps overshoot; too much turns gyro noise into motor heat.',
            );
            $rows[] = self::number(
                "gain.$axis.ff",
                "Feed-forward, $axis",
                'gains',
                '% per 1000 deg/s²',
                $ff,
                0,
                6,
                0.05,
                'Output against the change of the command. Takes lag away; too much makes rotation come before the command.',
            );
            if ('yaw' !== $axis) {
                $rows[] = self::number(
                    "gain.$axis.added_d",
                    "Added D, $axis",
                    'gains',
                    '% per 1000 deg/s²',
                    0.0,
                    0,
                    6,
                    0.1,
                    'D added while stick or craft move fast. Zero keeps D at rest throughout, as a test flight wants.',
                );
            }
        }
        $rows[] = self::number(
            'gain.throttle_fall_pct',
            'Gains fall with throttle',
            'gains',
            '%',
            0.0,
            0,
            80,
            5,
            'How much P and D fall from half to full throttle, against ringing at full power.',
            since: '4.3',
        );
        $rows[] = self::number(
            'gain.sag_rise_pct',
            'Gains rise as the pack sags',
            'gains',
            '%',
            0.0,
            0,
            100,
            5,
            'How far gains make up for falling voltage; 100 makes up for all of it.',
            since: '4.2',
        );

        return $rows;
    }

    /** @return list<Setting> */
    private static function filters(): array
    {
        $rows = [];
        foreach ([1 => ['second_order', 180.0], 2 => ['off', 350.0]] as $n => [$kind, $hz]) {
            $rows[] = self::choice(
                "rate_path.stage.$n.kind",
                "Gyro low-pass $n, kind",
                'filters',
                $kind,
                ['off', 'first_order', 'second_order'],
                'First order is gentler and later falls; second order cuts harder for more delay.',
                since: '4.1',
            );
            $rows[] = self::number(
                "rate_path.stage.$n.cutoff_hz",
                "Gyro low-pass $n, cutoff",
                'filters',
                'Hz',
                $hz,
                20,
                900,
                1,
                'Frequency above which the rate is quietened. Lower is quieter and later.',
                since: '4.1',
            );
        }
        foreach ([1 => ['second_order', 95.0], 2 => ['off', 200.0]] as $n => [$kind, $hz]) {
            $rows[] = self::choice(
                "d_path.stage.$n.kind",
                "D low-pass $n, kind",
                'filters',
                $kind,
                ['off', 'first_order', 'second_order'],
                'D multiplies noise by its frequency, so it is filtered once more.',
                since: '4.1',
            );
            $rows[] = self::number(
                "d_path.stage.$n.cutoff_hz",
                "D low-pass $n, cutoff",
                'filters',
                'Hz',
                $hz,
                20,
                900,
                1,
                'Lower: cooler motors, later damping.',
                since: '4.1',
            );
        }
        $rows[] = new Setting(
            'notch.motor.orders',
            Setting::LIST,
            'Motor notch orders',
            'filters',
            '× motor speed',
            '',
            ['4.0' => [1, 6]],
            1,
            [],
            '4.0',
            null,
            false,
            'Harmonics of each motor to cut out, as 1,2,3; empty for none. Needs rpm feedback.',
        );
        $rows[] = self::number(
            'notch.motor.width_q',
            'Motor notch Q',
            'filters',
            '',
            5.0,
            1,
            15,
            0.5,
            'Higher is narrower, with less delay and less tolerance.',
        );
        $rows[] = self::number(
            'notch.motor.floor_hz',
            'Motor notch floor',
            'filters',
            'Hz',
            80.0,
            40,
            300,
            5,
            'Notches never go below this, where they would delay flight itself.',
        );
        $rows[] = self::whole(
            'notch.tracking.count',
            'Tracking notches',
            'filters',
            0,
            0,
            3,
            'Notches per axis that follow the strongest peaks.',
        );
        $rows[] = self::number('notch.tracking.width_q', 'Tracking notch Q', 'filters', '', 4.0, 1, 15, 0.5, 'Higher is narrower.');
        $rows[] = self::number(
            'notch.tracking.low_hz',
            'Tracking notch, lowest',
            'filters',
            'Hz',
            100.0,
            60,
            400,
            5,
            'They look for peaks from here.',
        );
        $rows[] = self::number(
            'notch.tracking.high_hz',
            'Tracking notch, highest',
            'filters',
            'Hz',
            500.0,
            200,
            900,
            10,
            'They look for peaks up to here.',
        );
        $rows[] = self::number(
            'command_low_pass.cutoff_hz',
            'Command low-pass',
            'filters',
            'Hz',
            40.0,
            5,
            250,
            1,
            'Smooths the steps of receiver frames out of the command.',
        );

        return $rows;
    }

    /** @return list<Setting> */
    private static function feel(): array
    {
        $rows = [];
        foreach (['roll' => [150, 230, 600], 'pitch' => [150, 230, 600], 'yaw' => [120, 180, 420]] as $axis => [$centre, $half, $full]) {
            $rows[] = self::number(
                "feel.$axis.centre_dps",
                "Centre rate, $axis",
                'feel',
                'deg/s',
                $centre,
                10,
                800,
                5,
                'Slope around centre, as the rate it would reach at full stick.',
            );
            $rows[] = self::number(
                "feel.$axis.half_stick_dps",
                "Half-stick rate, $axis",
                'feel',
                'deg/s',
                $half,
                10,
                1000,
                5,
                'Rotation at half stick.',
            );
            $rows[] = self::number(
                "feel.$axis.full_stick_dps",
                "Full-stick rate, $axis",
                'feel',
                'deg/s',
                $full,
                20,
                2000,
                5,
                'Rotation at full stick.',
            );
        }

        return $rows;
    }

    /** @return list<Setting> */
    private static function motors(): array
    {
        $rows = [
            self::choice(
                'motors.protocol',
                'Motor signal',
                'motors',
                'dshot300',
                ['pwm', 'oneshot125', 'dshot150', 'dshot300', 'dshot600'],
                'How outputs are sent to the ESCs.',
                true,
            ),
            self::choice(
                'motors.loop_rate_hz',
                'Loop rate',
                'motors',
                '2000',
                ['1000', '2000', '4000', '8000'],
                'How often rates are controlled, per second.',
                true,
                'Hz',
            ),
            self::flag(
                'motors.rpm_feedback',
                'Rpm feedback',
                'motors',
                false,
                'ESCs answer with their rotor speed on the signal wire.',
                true,
            ),
            self::number(
                'motors.idle_pct',
                'Idle output',
                'motors',
                '%',
                5.5,
                0,
                20,
                0.1,
                'What motors get when armed at zero throttle.',
                since: '4.2',
            ),
            self::flag(
                'motors.still_when_armed',
                'Still when armed',
                'motors',
                false,
                'Motors stand still at zero throttle, even when armed.',
            ),
            self::whole(
                'motors.rotor_magnets',
                'Rotor magnets',
                'motors',
                14,
                4,
                36,
                'Pole count of a motor; wrong, and every rpm is wrong by one factor.',
            ),
            self::flag('motors.air_mode', 'Air mode', 'motors', true, 'Keeps full authority at zero throttle.'),
            self::choice(
                'props.direction',
                'Prop direction',
                'motors',
                'props_in',
                ['props_in', 'props_out'],
                'At the nose the blades sweep inward, or outward.',
            ),
        ];
        for ($pad = 1; $pad <= 8; ++$pad) {
            $rows[] = self::choice(
                "pad.$pad.drives",
                "Output pad $pad drives",
                'motors',
                'none',
                ['none', ...EscTable::PLACES, 'camera_tilt'],
                'Which motor or servo hangs on this pad.',
                true,
            );
        }

        return $rows;
    }

    /** @return list<Setting> */
    private static function frame(): array
    {
        $rows = [
            self::choice(
                'frame.layout',
                'Airframe',
                'frame',
                'quad_x',
                ['quad_x', 'quad_plus', 'quad_stretched', 'hexa_x', 'custom'],
                'Where the motors sit.',
                true,
            ),
        ];
        foreach (self::AXES as $axis) {
            $rows[] = self::number(
                "mounting.{$axis}_deg",
                "Mounting, $axis",
                'frame',
                'deg',
                0.0,
                -180,
                180,
                1,
                'Rotation of the board against the craft.',
                true,
            );
        }
        foreach (['roll', 'pitch'] as $axis) {
            $rows[] = self::number(
                "level.{$axis}_deg",
                "Level, $axis",
                'frame',
                'deg',
                0.0,
                -10,
                10,
                0.1,
                'What the board reads while the craft lies level, taken off; found by level calibration.',
            );
        }
        $rows[] = self::number(
            'frame.diagonal_mm',
            'Diagonal',
            'frame',
            'mm',
            220.0,
            40,
            2000,
            1,
            'Motor centre to the motor centre across; of a stretched frame, of the diagonal too.',
            true,
        );
        $rows[] = self::number(
            'frame.stretch',
            'Length over width',
            'frame',
            '',
            1.3,
            0.5,
            2.5,
            0.01,
            'Of a stretched frame: how much longer the motors stand apart than wide.',
            true,
        );
        foreach (EscTable::PLACES as $place) {
            $words = str_replace('_', ' ', $place);
            $rows[] = self::number(
                "arm.$place.forward_mm",
                ucfirst($words).' motor, forward',
                'frame',
                'mm',
                0.0,
                -1000,
                1000,
                1,
                'Of a custom frame: how far ahead of the middle this motor sits; forward and right both zero for none.',
                true,
            );
            $rows[] = self::number(
                "arm.$place.right_mm",
                ucfirst($words).' motor, to the right',
                'frame',
                'mm',
                0.0,
                -1000,
                1000,
                1,
                'Of a custom frame: how far to the right of the middle this motor sits.',
                true,
            );
        }

        return $rows;
    }

    /** @return list<Setting> */
    private static function wiring(): array
    {
        $rows = [];
        foreach (self::UARTS as $uart => $words) {
            $rows[] = self::choice(
                "uart.$uart.role",
                "$words, job",
                'wiring',
                'none',
                ['none', 'receiver', 'gps', 'telemetry', 'video', 'recorder', 'overlay'],
                'What hangs on this serial port.',
                true,
            );
            $rows[] = self::choice(
                "uart.$uart.baud",
                "$words, rate",
                'wiring',
                '115200',
                ['9600', '19200', '38400', '57600', '100000', '115200', '230400', '420000'],
                'Both ends must use the same.',
                true,
                'baud',
            );
            $rows[] = self::flag("uart.$uart.inverted", "$words, inverted", 'wiring', false, 'For protocols that idle low.', true);
            $rows[] = self::flag(
                "uart.$uart.half_duplex",
                "$words, half-duplex",
                'wiring',
                false,
                'Both directions on the transmit pad, one after the other.',
                true,
            );
        }

        return $rows;
    }

    /** @return list<Setting> */
    private static function radio(): array
    {
        $rows = [
            self::choice(
                'receiver.protocol',
                'Receiver protocol',
                'radio',
                'crsf',
                ['none', 'ppm', 'sbus', 'crsf'],
                'What the receiver speaks.',
                true,
            ),
        ];
        foreach (['roll', 'pitch', 'throttle', 'yaw'] as $channel) {
            $rows[] = self::number(
                "channel.$channel.low_us",
                "Channel $channel, low",
                'radio',
                'µs',
                1000.0,
                800,
                1400,
                1,
                'Where the stick rests at its low end.',
            );
            $rows[] = self::number(
                "channel.$channel.middle_us",
                "Channel $channel, middle",
                'radio',
                'µs',
                1500.0,
                1300,
                1700,
                1,
                'Where the stick rests in the middle.',
            );
            $rows[] = self::number(
                "channel.$channel.high_us",
                "Channel $channel, high",
                'radio',
                'µs',
                2000.0,
                1600,
                2200,
                1,
                'Where the stick rests at its high end.',
            );
            $rows[] = self::flag("channel.$channel.reversed", "Channel $channel, reversed", 'radio', false, 'The channel runs backwards.');
        }
        $rows[] = self::number(
            'channel.dead_band_us',
            'Dead band',
            'radio',
            'µs',
            2.0,
            0,
            60,
            1,
            'Movement around the middle that is taken for none.',
        );

        return $rows;
    }

    /** @return list<Setting> */
    private static function guard(): array
    {
        return [
            self::number(
                'link_loss.hold_s',
                'Hold last command',
                'guard',
                's',
                0.5,
                0.1,
                10,
                0.1,
                'How long the last command stands after the link is lost.',
                since: '4.2',
            ),
            self::choice('link_loss.then', 'After holding', 'guard', 'cut', ['cut', 'descend', 'return'], 'What happens after the hold.'),
            self::number('link_loss.descend_throttle_pct', 'Descent throttle', 'guard', '%', 28.0, 0, 80, 1, 'Throttle while descending.'),
            self::whole('pack.cells', 'Cells', 'guard', 6, 1, 12, 'Cells in series.'),
            self::number('pack.divider_scale', 'Divider scale', 'guard', '', 11.0, 5, 25, 0.01, 'What the voltmeter calibrates.'),
            self::number('pack.warn_cell_v', 'Warning level', 'guard', 'V per cell', 3.6, 2.8, 4.2, 0.01, 'Voltage per cell that warns.'),
            self::number(
                'pack.land_now_cell_v',
                'Land-now level',
                'guard',
                'V per cell',
                3.4,
                2.8,
                4.2,
                0.01,
                'Voltage per cell at which the flight must end.',
            ),
            self::number(
                'pack.current_scale_mv_per_a',
                'Current sensor scale',
                'guard',
                'mV/A',
                10.0,
                0.5,
                100,
                0.1,
                'Millivolts per ampere of the sensor.',
            ),
        ];
    }

    /** @return list<Setting> */
    private static function aids(): array
    {
        return [
            self::flag('location.enabled', 'Location', 'aids', false, 'Position from a GPS receiver.', true),
            self::flag('telemetry.enabled', 'Telemetry', 'aids', false, 'Voltage, link and position sent back to the radio.', true),
            self::flag('video.enabled', 'Video transmitter control', 'aids', false, 'Channel and power set over a serial port.', true),
            self::choice(
                'recorder.kind',
                'Recorder',
                'aids',
                'flash',
                ['none', 'flash', 'serial'],
                'Where flight logs go: the memory on the board, or a recorder on a serial port.',
                true,
            ),
            self::flag('overlay.enabled', 'Overlay', 'aids', false, 'Figures on the video picture.', true),
            self::whole('location.least_satellites', 'Satellites for home', 'aids', 8, 5, 20, 'Home is not set with fewer.'),
            self::choice(
                'recorder.rate_hz',
                'Recorder rate',
                'aids',
                '2000',
                ['500', '1000', '2000', '4000'],
                'Samples per second in the flight log.',
                false,
                'Hz',
            ),
        ];
    }

    /** @return list<Setting> what earlier versions had under other names or units, or what is gone */
    private static function former(): array
    {
        return [
            self::number(
                'filter.gyro_hz',
                'Gyro filter',
                'filters',
                'Hz',
                180.0,
                20,
                900,
                1,
                'The one gyro low-pass of Loam 4.0.',
                until: '4.1',
            ),
            self::number('filter.d_hz', 'D filter', 'filters', 'Hz', 95.0, 20, 900, 1, 'The one D low-pass of Loam 4.0.', until: '4.1'),
            self::whole(
                'motors.idle_us',
                'Idle output',
                'motors',
                55,
                0,
                200,
                'Above 1000 µs, before idle was in percent.',
                until: '4.2',
                unit: 'µs',
            ),
            self::whole(
                'link_loss.hold_ds',
                'Hold last command',
                'guard',
                5,
                1,
                100,
                'In tenths of a second, before seconds.',
                until: '4.2',
                unit: '0.1 s',
            ),
            self::flag('link_loss.tone', 'Tone on link loss', 'guard', true, 'Gone with Loam 4.3: the beeper always sounds.', until: '4.3'),
            self::whole(
                'gain.attenuation',
                'Gain attenuation',
                'gains',
                0,
                0,
                100,
                'Gone with Loam 4.3, which falls gains with throttle by another law.',
                until: '4.3',
                unit: '%',
            ),
        ];
    }

    private static function number(
        string $name,
        string $label,
        string $group,
        string $unit,
        float $default,
        float $low,
        float $high,
        float $step,
        string $help,
        bool $restart = false,
        string $since = '4.0',
        ?string $until = null,
    ): Setting {
        return new Setting(
            $name,
            Setting::NUMBER,
            $label,
            $group,
            $unit,
            $default,
            ['4.0' => [$low, $high]],
            $step,
            [],
            $since,
            $until,
            $restart,
            $help,
        );
    }

    private static function whole(
        string $name,
        string $label,
        string $group,
        int $default,
        int $low,
        int $high,
        string $help,
        ?string $until = null,
        string $unit = '',
    ): Setting {
        return new Setting(
            $name,
            Setting::WHOLE,
            $label,
            $group,
            $unit,
            $default,
            ['4.0' => [$low, $high]],
            1,
            [],
            '4.0',
            $until,
            false,
            $help,
        );
    }

    private static function flag(
        string $name,
        string $label,
        string $group,
        bool $default,
        string $help,
        bool $restart = false,
        ?string $until = null,
    ): Setting {
        return new Setting($name, Setting::SWITCH, $label, $group, '', $default, [], 1, [], '4.0', $until, $restart, $help);
    }

    /** @param list<string> $choices */
    private static function choice(
        string $name,
        string $label,
        string $group,
        string $default,
        array $choices,
        string $help,
        bool $restart = false,
        string $unit = '',
        string $since = '4.0',
    ): Setting {
        return new Setting($name, Setting::CHOICE, $label, $group, $unit, $default, [], 1, $choices, $since, null, $restart, $help);
    }
}
