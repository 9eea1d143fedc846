<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\AirframeError;
use Ortholex\Core\Airframe\Mixer;
use Ortholex\Core\Control\Feel;
use Ortholex\Core\Control\FeelError;
use Ortholex\Core\Drive\LoopLoad;
use Ortholex\Core\Drive\SignalTiming;
use Ortholex\Core\Firmware\Version;

/** Whether a full set of settings holds together; each setting alone is checked by the catalogue. */
final readonly class Consistency
{
    /**
     * @param array<string, float|int|bool|string> $settings
     * @param list<string>                         $leftOut what the running build leaves out
     *
     * @return list<Clash>
     */
    public static function of(array $settings, Version $version, int $motors, string $processor, array $leftOut = []): array
    {
        $s = Migration::between(Catalogue::loam(), $settings, $version, Version::parse(Catalogue::CURRENT))->settings;
        $clashes = [];
        $number = static fn (string $name): float => (float) ($s[$name] ?? 0);
        $loopHz = (float) (string) ($s['motors.loop_rate_hz'] ?? '2000');
        foreach (['rate_path', 'd_path'] as $path) {
            foreach ([1, 2] as $n) {
                if ('off' !== ($s["$path.stage.$n.kind"] ?? 'off') && $number("$path.stage.$n.cutoff_hz") >= 0.48 * $loopHz) {
                    $clashes[] = new Clash(
                        Clash::REFUSE,
                        "$path.stage.$n.cutoff_hz",
                        \sprintf(
                            'A cutoff of %g Hz needs a loop rate above %g Hz.',
                            $number("$path.stage.$n.cutoff_hz"),
                            $number("$path.stage.$n.cutoff_hz") / 0.48,
                        ),
                    );
                }
            }
        }
        if ('' !== ($s['notch.motor.orders'] ?? '') && true !== ($s['motors.rpm_feedback'] ?? false)) {
            $clashes[] = new Clash(Clash::WARN, 'notch.motor.orders', 'Motor notches follow nothing while rpm feedback is off.');
        }
        if (true === ($s['motors.rpm_feedback'] ?? false) && !str_starts_with((string) ($s['motors.protocol'] ?? ''), 'dshot')) {
            $clashes[] = new Clash(Clash::REFUSE, 'motors.rpm_feedback', 'Rpm feedback needs a DShot signal.');
        }
        $protocol = (string) ($s['motors.protocol'] ?? 'dshot300');
        $feedback = true === ($s['motors.rpm_feedback'] ?? false) && str_starts_with($protocol, 'dshot');
        $timing = SignalTiming::of($protocol, $feedback);
        if (!$timing->fits($loopHz)) {
            $clashes[] = new Clash(
                Clash::REFUSE,
                'motors.loop_rate_hz',
                \sprintf(
                    'One %s signal%s takes %.1f µs, which does not fit into a loop of %g Hz; %d Hz is the highest that does.',
                    $protocol,
                    $feedback ? ' with its answer' : '',
                    $timing->frameUs,
                    $loopHz,
                    $timing->highestLoopHz(),
                ),
            );
        }
        if ($number('notch.tracking.count') > 0 && $number('notch.tracking.low_hz') >= $number('notch.tracking.high_hz')) {
            $clashes[] = new Clash(
                Clash::REFUSE,
                'notch.tracking.low_hz',
                'The tracking notches\' lowest frequency lies above their highest.',
            );
        }
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            try {
                Feel::of($number("feel.$axis.centre_dps"), $number("feel.$axis.half_stick_dps"), $number("feel.$axis.full_stick_dps"));
            } catch (FeelError $e) {
                $clashes[] = new Clash(Clash::REFUSE, "feel.$axis.half_stick_dps", $e->getMessage());
            }
        }
        foreach (['roll', 'pitch', 'throttle', 'yaw'] as $c) {
            if (
                $number("channel.$c.low_us") >= $number("channel.$c.middle_us")
                || $number("channel.$c.middle_us") >= $number("channel.$c.high_us")
            ) {
                $clashes[] = new Clash(Clash::REFUSE, "channel.$c.middle_us", "The span of $c must rise from low through middle to high.");
            }
        }
        foreach ($s as $name => $value) {
            $need = 1 === preg_match('~^uart\.(\w+)\.role$~', $name) ? CommitPlan::NEEDS[(string) $value] ?? null : null;
            if (null !== $need && ($s[$need[0]] ?? null) !== $need[1]) {
                $clashes[] = new Clash(
                    Clash::REFUSE,
                    $need[0],
                    "A UART has the job “{$value}”, which needs {$need[0]} to be ".(true === $need[1] ? 'on' : "“{$need[1]}”").'.',
                );
            }
        }
        try {
            $frame = Airframe::of($s);
            $driven = [];
            for ($pad = 1; $pad <= 8; ++$pad) {
                $driven[] = $s["pad.$pad.drives"] ?? 'none';
            }
            $left = array_diff($frame->places(), $driven);
            if ([] !== $left && \count($left) < \count($frame->motors)) {
                $clashes[] = new Clash(
                    Clash::WARN,
                    'frame.layout',
                    'No output drives the '.str_replace('_', ' ', implode(' and the ', $left)).' motor of this frame.',
                );
            }
            Mixer::of($frame);
        } catch (AirframeError $e) {
            $clashes[] = new Clash(Clash::REFUSE, 'frame.layout', $e->getMessage());
        }
        if ($number('pack.land_now_cell_v') >= $number('pack.warn_cell_v')) {
            $clashes[] = new Clash(
                Clash::WARN,
                'pack.land_now_cell_v',
                'The land-now level is not below the warning level, so there is no warning.',
            );
        }
        $load = LoopLoad::of($s, $motors, $processor, $leftOut);
        if ($load->percent > LoopLoad::WARN_PCT) {
            $refuse = $load->percent > LoopLoad::REFUSE_PCT;
            $clashes[] = new Clash(
                $refuse ? Clash::REFUSE : Clash::WARN,
                'motors.loop_rate_hz',
                \sprintf('Loop load would be %.0f %%%s.', $load->percent, $refuse ? '; above 95 % the loop misses its beat' : ''),
            );
        }

        return $clashes;
    }
}
