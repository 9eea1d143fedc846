<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Airframe\Layout;
use Ortholex\Core\Airframe\PropDirection;
use Ortholex\Core\Arming\Bar;
use Ortholex\Core\Arming\Condition;
use Ortholex\Core\Arming\IfUnmet;
use Ortholex\Core\Control\GainSetB;
use Ortholex\Core\Control\LowPass;
use Ortholex\Core\Craft\ArmedBy;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Craft\MotorTurn;
use Ortholex\Core\Craft\PadLoad;
use Ortholex\Core\Craft\Place;
use Ortholex\Core\Craft\RecorderTarget;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\LinkLoss\LossPlan;
use Ortholex\Core\LinkLoss\Then;
use Ortholex\Core\Radio\Protocol\Protocol;
use Ortholex\Core\Radio\Protocol\RadioFrame;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\Wiring\PartRole;

/**
 * The catalogue itself: every setting of Loam, once. Forms, checks, YAML, migration and docs/settings.md all
 * come from here. Gains are in physical units: output in %, rates in deg/s.
 */
final readonly class LoamTable
{
    /** Stages of the filter paths: kind, cutoff in Hz, and the release that brought them. */
    private const STAGES = [
        'rate_path' => [
            1 => ['second_order', 180.0, '25.08'],
            2 => ['off', 350.0, '25.08'],
            3 => ['off', 350.0, '26.06'],
            4 => ['off', 350.0, '26.06'],
        ],
        'd_path' => [
            1 => ['second_order', 95.0, '25.08'],
            2 => ['off', 200.0, '25.08'],
            3 => ['off', 200.0, '26.06'],
            4 => ['off', 200.0, '26.06'],
        ],
    ];

    private const AXES = ['roll', 'pitch', 'yaw'];
    private const UARTS = ['1', '2', '3', '4', '5', '6', 'software_1', 'software_2'];

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
            ...self::switches(),
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
            $rows[] = Setting::number("gain.{$axis}.p", SettingGroup::Gains, '% per 100 deg/s', $p, 0, 120, 0.5);
            $rows[] = Setting::number("gain.{$axis}.i", SettingGroup::Gains, '% per 100 deg', $i, 0, 400, 1);
            $rows[] = Setting::number("gain.{$axis}.d", SettingGroup::Gains, '% per 1000 deg/s²', $d, 0, 12, 0.1)->within(
                0,
                8,
                since: '26.06',
            );
            $rows[] = Setting::number("gain.{$axis}.ff", SettingGroup::Gains, '% per 1000 deg/s²', $ff, 0, 6, 0.05);
            if (Axis::Yaw->value !== $axis) {
                $rows[] = Setting::number("gain.{$axis}.added_d", SettingGroup::Gains, '% per 1000 deg/s²', 0.0, 0, 6, 0.1);
            }
        }
        foreach (self::AXES as $axis) {
            foreach (GainSetB::TERMS as $term) {
                $rows[] = Setting::number(GainSetB::setting(Axis::from($axis), $term), SettingGroup::Gains, '% of A', 100.0, 0, 300, 5);
            }
        }
        $rows[] = Setting::number('gain.throttle_fall_pct', SettingGroup::Gains, '%', 0.0, 0, 80, 5, since: '26.06');
        $rows[] = Setting::number('gain.sag_rise_pct', SettingGroup::Gains, '%', 0.0, 0, 100, 5, since: '25.08');

        return $rows;
    }

    /** @return list<Setting> */
    private static function filters(): array
    {
        $rows = [];
        $kinds = array_column(LowPass::cases(), 'value');
        foreach (self::STAGES as $path => $stages) {
            foreach ($stages as $n => [$kind, $hz, $since]) {
                $stage = "$path.stage.$n";
                $rows[] = Setting::choice("$stage.kind", SettingGroup::Filters, $kind, $kinds, since: $since);
                $rows[] = Setting::number("$stage.cutoff_hz", SettingGroup::Filters, 'Hz', $hz, 20, 900, 1, since: $since);
            }
        }
        $rows[] = Setting::integers('notch.motor.orders', SettingGroup::Filters, '× motor speed', '', 1, 6);
        $rows[] = Setting::number('notch.motor.width_pct', SettingGroup::Filters, '% of centre', 23.0, 5, 100, 0.1);
        $rows[] = Setting::number('notch.motor.floor_hz', SettingGroup::Filters, 'Hz', 80.0, 40, 300, 5);
        $rows[] = Setting::whole('notch.tracking.peaks', SettingGroup::Filters, 0, 0, 3);
        $rows[] = Setting::band('notch.tracking.band_hz', SettingGroup::Filters, 'Hz', '85,340', 60, 900);
        $rows[] = Setting::number('notch.tracking.width_pct', SettingGroup::Filters, '% of centre', 20.0, 5, 100, 0.1);
        $rows[] = Setting::number('command_low_pass.cutoff_hz', SettingGroup::Filters, 'Hz', 40.0, 5, 250, 1);

        return $rows;
    }

    /** @return list<Setting> */
    private static function feel(): array
    {
        $rows = [];
        foreach (['roll' => [90, 230, 600], 'pitch' => [90, 230, 600], 'yaw' => [70, 180, 420]] as $axis => [$quarter, $half, $full]) {
            $rows[] = Setting::number("feel.{$axis}.quarter_dps", SettingGroup::Feel, 'deg/s', $quarter, 5, 800, 1);
            $rows[] = Setting::number("feel.{$axis}.half_dps", SettingGroup::Feel, 'deg/s', $half, 10, 1200, 1);
            $rows[] = Setting::number("feel.{$axis}.full_dps", SettingGroup::Feel, 'deg/s', $full, 20, 2000, 1);
        }
        $rows[] = Setting::number('throttle.hover_stick_pct', SettingGroup::Feel, '% of travel', 50.0, 15, 85, 1);
        $rows[] = Setting::number('throttle.hover_output_pct', SettingGroup::Feel, '%', 50.0, 5, 90, 1);
        $rows[] = Setting::number('throttle.softness_pct', SettingGroup::Feel, '%', 0.0, 0, 80, 1);
        $rows[] = Setting::number('throttle.limit_pct', SettingGroup::Feel, '%', 100.0, 30, 100, 1);

        return $rows;
    }

    /** @return list<Setting> */
    private static function motors(): array
    {
        $rows = [
            Setting::choice(
                'motors.protocol',
                SettingGroup::Motors,
                'dshot300',
                array_column(MotorSignal::cases(), 'value'),
                restart: true,
            ),
            Setting::choice(
                'motors.loop_rate_hz',
                SettingGroup::Motors,
                '2000',
                ['50', '100', '250', '500', '1000', '2000', '4000', '8000'],
                restart: true,
                unit: 'Hz',
            ),
            Setting::flag('motors.rpm_feedback', SettingGroup::Motors, false, restart: true),
            Setting::number('motors.idle_pct', SettingGroup::Motors, '%', 5.0, 0, 20, 0.1, since: '26.01'),
            Setting::number('motors.top_pct', SettingGroup::Motors, '%', 100.0, 75, 100, 0.5, since: '26.01'),
            Setting::flag('motors.still_when_armed', SettingGroup::Motors, false),
            Setting::whole('motors.rotor_magnets', SettingGroup::Motors, 14, 4, 36),
            Setting::flag('motors.air_mode', SettingGroup::Motors, true),
            Setting::choice(
                'props.direction',
                SettingGroup::Motors,
                PropDirection::PropsIn->value,
                array_column(PropDirection::cases(), 'value'),
            ),
        ];
        $loads = [PadLoad::None->value, ...Place::names(), PadLoad::CameraTilt->value];
        for ($pad = 1; $pad <= SettingSet::PADS; ++$pad) {
            $rows[] = Setting::choice(
                "pad.{$pad}.drives",
                SettingGroup::Motors,
                'none',
                ['none', ...Place::names(), 'camera_tilt'],
                restart: true,
            );
        }

        return $rows;
    }

    /** @return list<Setting> */
    private static function frame(): array
    {
        $rows = [Setting::choice('frame.layout', SettingGroup::Frame, 'quad_x', array_column(Layout::cases(), 'value'), restart: true)];
        foreach (self::AXES as $axis) {
            $rows[] = Setting::number("mounting.{$axis}_deg", SettingGroup::Frame, 'deg', 0.0, -180, 180, 1, restart: true);
        }
        foreach (['roll', 'pitch'] as $axis) {
            $rows[] = Setting::number("level.{$axis}_deg", SettingGroup::Frame, 'deg', 0.0, -10, 10, 0.01);
        }
        $rows[] = Setting::number('frame.diagonal_mm', SettingGroup::Frame, 'mm', 220.0, 40, 2000, 1, restart: true);
        $rows[] = Setting::whole('props.diameter_mm', SettingGroup::Frame, 127, 20, 500, unit: 'mm');
        $rows[] = Setting::number('frame.stretch', SettingGroup::Frame, '', 1.3, 0.5, 2.5, 0.01, restart: true);
        foreach (Place::names() as $place) {
            $rows[] = Setting::number("motor_place.{$place}.forward_mm", SettingGroup::Frame, 'mm', 0.0, -1000, 1000, 1, restart: true);
            $rows[] = Setting::number("motor_place.{$place}.right_mm", SettingGroup::Frame, 'mm', 0.0, -1000, 1000, 1, restart: true);
            $rows[] = Setting::choice(
                "motor_place.{$place}.turns",
                SettingGroup::Frame,
                MotorTurn::AgainstNeighbours->value,
                array_column(MotorTurn::cases(), 'value'),
                restart: true,
                since: '26.01',
            );
        }

        return $rows;
    }

    /** @return list<Setting> */
    private static function wiring(): array
    {
        $rows = [];
        foreach (self::UARTS as $uart) {
            $rows[] = Setting::choice(
                "uart.{$uart}.role",
                SettingGroup::Wiring,
                'none',
                ['none', ...array_column(PartRole::cases(), 'value')],
                restart: true,
            );
            $rows[] = Setting::choice(
                "uart.{$uart}.baud",
                SettingGroup::Wiring,
                '115200',
                ['9600', '19200', '38400', '57600', '100000', '115200', '230400', '420000'],
                restart: true,
                unit: 'baud',
            );
            $rows[] = Setting::flag("uart.{$uart}.inverted", SettingGroup::Wiring, false, restart: true);
            $rows[] = Setting::flag("uart.{$uart}.half_duplex", SettingGroup::Wiring, false, restart: true);
        }

        return $rows;
    }

    /** @return list<Setting> */
    private static function radio(): array
    {
        $protocols = ['none', ...array_column(Protocol::cases(), 'value')];
        $rows = [Setting::choice('receiver.protocol', SettingGroup::Radio, Protocol::Crsf->value, $protocols, restart: true)];
        foreach (Channel::cases() as $stick) {
            $channel = $stick->value;
            $rows[] = Setting::whole("channel.{$channel}.number", SettingGroup::Radio, $stick->usual(), 1, RadioFrame::CHANNELS);
            $rows[] = Setting::number("channel.{$channel}.low_us", SettingGroup::Radio, 'µs', 1000.0, 800, 1400, 1);
            $rows[] = Setting::number("channel.{$channel}.middle_us", SettingGroup::Radio, 'µs', 1500.0, 1300, 1700, 1);
            $rows[] = Setting::number("channel.{$channel}.high_us", SettingGroup::Radio, 'µs', 2000.0, 1600, 2200, 1);
            $rows[] = Setting::flag("channel.{$channel}.reversed", SettingGroup::Radio, false);
        }
        $rows[] = Setting::number('channel.dead_band_us', SettingGroup::Radio, 'µs', 2.0, 0, 60, 1);
        foreach (['battery' => true, 'position' => true, 'attitude' => false] as $what => $on) {
            $rows[] = Setting::flag("telemetry.$what", SettingGroup::Radio, $on);
        }

        return $rows;
    }

    /** @return list<Setting> */
    private static function switches(): array
    {
        $rows = array_map(static fn (Action $a): Setting => Setting::zones($a->setting(), SettingGroup::Switches), Action::cases());
        $rows[] = Setting::choice('arming.by', SettingGroup::Switches, ArmedBy::Switch->value, array_column(ArmedBy::cases(), 'value'));
        $rows[] = Setting::flag('arming.off_needs_low_throttle', SettingGroup::Switches, false);
        $rows[] = Setting::number('interlock.most_tilt_deg', SettingGroup::Switches, 'deg', 25.0, 5, 60, 1);
        foreach (Bar::cases() as $bar) {
            if (null !== $bar->setting()) {
                $usual = Condition::usual($bar)->value;
                $rows[] = Setting::choice($bar->setting(), SettingGroup::Switches, $usual, array_column(IfUnmet::cases(), 'value'));
            }
        }
        $rows[] = Setting::number('disarm.upside_down_s', SettingGroup::Switches, 's', 3.0, 0, 30, 0.5);
        $rows[] = Setting::number('disarm.still_s', SettingGroup::Switches, 's', 30.0, 0, 300, 1);
        $rows[] = Setting::number('disarm.unasked_turn_s', SettingGroup::Switches, 's', 0.4, 0, 5, 0.1);
        $rows[] = Setting::number('angle.full_tilt_deg', SettingGroup::Switches, 'deg', 50.0, 10, 80, 1);
        $rows[] = Setting::number('angle.strength_per_s', SettingGroup::Switches, 'deg/s per deg', 5.0, 1, 15, 0.1);
        $rows[] = Setting::flag('angle.throttle_lift', SettingGroup::Switches, false);
        $rows[] = Setting::number('horizon.back_per_s', SettingGroup::Switches, 'deg/s per deg', 5.0, 1, 15, 0.1);
        $rows[] = Setting::number('horizon.level_until_pct', SettingGroup::Switches, '% of stick', 70.0, 10, 100, 1);

        return $rows;
    }

    /** @return list<Setting> */
    private static function guard(): array
    {
        return [
            Setting::number('link_loss.hold_s', SettingGroup::Guard, 's', 0.5, 0.2, 10, 0.1, since: '26.01'),
            Setting::choice('link_loss.then', SettingGroup::Guard, Then::Cut->value, array_column(Then::cases(), 'value')),
            Setting::number('link_loss.descend_throttle_pct', SettingGroup::Guard, '%', 28.0, 0, 80, 0.1),
            Setting::number('link_loss.descend_s', SettingGroup::Guard, 's', 20.0, 1, 120, 1),
            Setting::number('link_loss.throttle_below_us', SettingGroup::Guard, 'µs', LossPlan::NEVER_BELOW_US, 800, 1100, 1),
            Setting::whole('pack.cells', SettingGroup::Guard, 6, 1, 12),
            Setting::number('pack.divider_scale', SettingGroup::Guard, '', 11.0, 5, 25, 0.01),
            Setting::number('pack.warn_cell_v', SettingGroup::Guard, 'V per cell', 3.6, 2.8, 4.2, 0.01),
            Setting::number('pack.flight_end_cell_v', SettingGroup::Guard, 'V per cell', 3.4, 2.8, 4.2, 0.01),
            Setting::number('pack.current_scale_mv_per_a', SettingGroup::Guard, 'mV/A', 10.0, 0.5, 100, 0.1),
        ];
    }

    /** @return list<Setting> */
    private static function aids(): array
    {
        $memory = RecorderTarget::BoardMemory->value;
        $targets = array_column(RecorderTarget::cases(), 'value');

        return [
            Setting::flag('location.enabled', SettingGroup::Aids, false, restart: true),
            Setting::flag('telemetry.enabled', SettingGroup::Aids, false, restart: true),
            Setting::flag('video.enabled', SettingGroup::Aids, false, restart: true),
            Setting::choice('recorder.writes_to', SettingGroup::Aids, $memory, $targets, restart: true),
            Setting::flag('overlay.enabled', SettingGroup::Aids, false, restart: true),
            Setting::whole('location.least_satellites', SettingGroup::Aids, 8, 5, 20),
            Setting::choice('recorder.rate_hz', SettingGroup::Aids, '2000', ['500', '1000', '2000', '4000'], restart: false, unit: 'Hz'),
            ...AidsTable::location(),
            ...AidsTable::overlay(),
            ...AidsTable::camera(),
        ];
    }

    /** @return list<Setting> what earlier versions had under other names or units, or what is gone */
    private static function former(): array
    {
        return [
            Setting::number('filter.gyro_hz', SettingGroup::Filters, 'Hz', 180.0, 20, 900, 1, until: '25.08'),
            Setting::number('filter.d_hz', SettingGroup::Filters, 'Hz', 95.0, 20, 900, 1, until: '25.08'),
            Setting::whole('motors.idle_permille', SettingGroup::Motors, 50, 0, 200, until: '26.01', unit: '‰'),
            Setting::whole('link_loss.hold_ms', SettingGroup::Guard, 500, 100, 10000, until: '26.01', unit: 'ms'),
            Setting::flag('link_loss.tone', SettingGroup::Guard, true, until: '26.06'),
            Setting::whole('gain.throttle_fall_older_pct', SettingGroup::Gains, 0, 0, 100, until: '26.06', unit: '%'),
        ];
    }
}
