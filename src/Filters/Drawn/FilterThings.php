<?php

declare(strict_types=1);

namespace Ortholex\App\Filters\Drawn;

use Ortholex\Core\Control\LowPass;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Setting;

/** The filters that a craft has, as staged, and what can be added. */
final readonly class FilterThings
{
    /**
     * @param list<FilterThing>                                            $all
     * @param array<string, array<string, float|int|bool|string>>          $addable what adds one, by lane
     * @param list<FilterLane>                                             $lanes   that this craft has
     */
    private function __construct(public array $all, public array $addable, public array $lanes)
    {
    }

    /**
     * @param array<string, Setting> $known  settings of the craft's firmware
     * @param SettingSet             $now    of the craft
     * @param SettingSet             $staged what is staged of it
     */
    public static function of(array $known, SettingSet $now, SettingSet $staged): self
    {
        $wanted = $now->with($staged);
        $has = static fn (string $name): bool => isset($known[$name]) && $now->has($name);
        $all = $addable = [];
        foreach ([FilterLane::RatePath, FilterLane::DPath] as $lane) {
            foreach (RateFilters::STAGES as $n) {
                $kind = "{$lane->value}.stage.$n.kind";
                if (!$has($kind)) {
                    continue;
                }
                $cutoff = "{$lane->value}.stage.$n.cutoff_hz";
                if (LowPass::Off !== LowPass::of($wanted, $lane->value, $n)) {
                    $grips = [$cutoff => 'cutoff'];
                    $away = [$kind => LowPass::Off->value];
                    $title = self::lowPass($wanted, $lane, $n);
                    $all[] = self::thing($lane, "$lane->value-$n", $title, $grips, [$kind, $cutoff], $known, $staged, $away);
                } elseif (!isset($addable[$lane->value])) {
                    $addable[$lane->value] = [$kind => LowPass::FirstOrder->value, $cutoff => FilterLane::DPath === $lane ? 100.0 : 200.0];
                }
            }
        }
        foreach (['filter.gyro_hz' => FilterLane::RatePath, 'filter.d_hz' => FilterLane::DPath] as $name => $lane) {
            if ($has($name)) {
                $title = \sprintf('%.0f Hz', $wanted->number($name));
                $all[] = self::thing($lane, strtr($name, '._', '--'), $title, [$name => 'cutoff'], [$name], $known, $staged, []);
            }
        }
        if ($has('notch.motor.orders')) {
            $orders = $wanted->text('notch.motor.orders');
            if ('' !== $orders) {
                $names = ['notch.motor.orders', 'notch.motor.floor_hz', 'notch.motor.width_pct'];
                $off = 'They do nothing while the motors report no speed: rpm feedback is off.';
                $need = $wanted->flag('motors.rpm_feedback') ? null : $off;
                $all[] = self::thing(FilterLane::Motors, 'motors', strtr($orders, [',' => ', ']).' × speed', [
                    'notch.motor.floor_hz' => 'floor',
                ], $names, $known, $staged, ['notch.motor.orders' => ''], $need);
            } else {
                $addable[FilterLane::Motors->value] = ['notch.motor.orders' => '1'];
            }
        }
        if ($has('notch.tracking.peaks')) {
            $peaks = $wanted->whole('notch.tracking.peaks');
            if ($peaks > 0) {
                $names = ['notch.tracking.peaks', 'notch.tracking.band_hz', 'notch.tracking.width_pct'];
                $all[] = self::thing(FilterLane::Tracking, 'tracking', 1 === $peaks ? '1 peak' : "$peaks peaks", [
                    'notch.tracking.band_hz' => 'band',
                ], $names, $known, $staged, ['notch.tracking.peaks' => 0]);
            } else {
                $addable[FilterLane::Tracking->value] = ['notch.tracking.peaks' => 1];
            }
        }
        if ($has('command_low_pass.cutoff_hz')) {
            $name = 'command_low_pass.cutoff_hz';
            $title = \sprintf('%.0f Hz', $wanted->number($name));
            $all[] = self::thing(FilterLane::Command, 'command', $title, [$name => 'cutoff'], [$name], $known, $staged, []);
        }
        $lanes = array_filter(
            FilterLane::cases(),
            static fn (FilterLane $l): bool => isset($addable[$l->value]) || \in_array($l, array_column($all, 'lane'), true),
        );

        return new self($all, $addable, array_values($lanes));
    }

    /** @return list<FilterThing> */
    public function on(FilterLane $lane): array
    {
        return array_values(array_filter($this->all, static fn (FilterThing $t): bool => $t->lane === $lane));
    }

    private static function lowPass(SettingSet $set, FilterLane $lane, int $n): string
    {
        $order = LowPass::FirstOrder === LowPass::of($set, $lane->value, $n) ? '1st' : '2nd';

        return \sprintf('%.0f Hz, %s order', $set->number("{$lane->value}.stage.$n.cutoff_hz"), $order);
    }

    /**
     * @param array<string, string>                $grips
     * @param list<string>                         $names
     * @param array<string, Setting>               $known
     * @param array<string, float|int|bool|string> $away
     */
    private static function thing(
        FilterLane $lane,
        string $id,
        string $title,
        array $grips,
        array $names,
        array $known,
        SettingSet $staged,
        array $away,
        ?string $need = null,
    ): FilterThing {
        $changed = [] !== array_filter($names, $staged->has(...));
        $settings = array_values(array_intersect_key($known, array_flip($names)));

        return new FilterThing($lane, $id, $title, $grips, $settings, $away, $changed, $need);
    }
}
