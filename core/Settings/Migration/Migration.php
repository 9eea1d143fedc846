<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Migration;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingError;
use Ortholex\Core\Settings\SettingType;

/**
 * Carries a set of settings from one release of Loam to another, up or down.
 *
 * Every setting of the old set ends in exactly one of kept, converted, clipped or dropped, and every setting of
 * the new release that nothing came to is new, at its default.
 */
final readonly class Migration
{
    /** Old name => [new name, factor, first release with the new one]: new = old × factor. */
    private const SUCCESSIONS = [
        'filter.gyro_hz' => ['rate_path.stage.1.cutoff_hz', 1.0, '25.08'],
        'filter.d_hz' => ['d_path.stage.1.cutoff_hz', 1.0, '25.08'],
        'motors.idle_permille' => ['motors.idle_pct', 0.1, '26.01'],
        'link_loss.hold_ms' => ['link_loss.hold_s', 0.001, '26.01'],
    ];

    /**
     * @param list<Fate> $fates
     * @param SettingSet $settings the full set of the new release
     */
    private function __construct(public array $fates, public SettingSet $settings)
    {
    }

    /** Only what the old set has, as the new release names it: of a part, nothing is filled up with defaults. Of one release, as it is. */
    public static function carried(Catalogue $catalogue, SettingSet $old, Version $from, Version $to): SettingSet
    {
        if (0 === $from->compare($to)) {
            return $old;
        }
        $kept = [];
        foreach (self::between($catalogue, $old, $from, $to)->fates as $fate) {
            if (FateKind::New !== $fate->kind && null !== $fate->newName && null !== $fate->newValue) {
                $kept[$fate->newName] = $fate->newValue;
            }
        }

        return SettingSet::of($kept);
    }

    public static function between(Catalogue $catalogue, SettingSet $old, Version $from, Version $to): self
    {
        $fates = [];
        $settings = $catalogue->defaults($to);
        $reached = [];
        foreach ($old as $name => $value) {
            [$newName, $factor] = self::successor($name, $catalogue, $to);
            $fate = null === $newName
                ? self::dropped($name, $value, Fact::of(FateReason::NoLongerThere, release: $to->toString()))
                : self::carry($catalogue->get($newName, $to), $name, $value, $factor, $to);
            $fates[] = $fate;
            if (null !== $fate->newName && null !== $fate->newValue) {
                $reached[$fate->newName] = $fate->newValue;
            }
        }
        $settings = $settings->with($reached);
        foreach ($settings as $name => $value) {
            if (!isset($reached[$name])) {
                $reason = Fact::of(FateReason::NotThereBefore, release: $from->toString());
                $fates[] = new Fate(FateKind::New, null, null, $name, $value, $reason);
            }
        }

        return new self($fates, $settings);
    }

    /** @return list<Fate> */
    public function ofKind(FateKind $kind): array
    {
        return array_values(array_filter($this->fates, static fn (Fate $f): bool => $f->kind === $kind));
    }

    /** @return array{?string, float} the name in the release asked for, and the factor that leads to it */
    private static function successor(string $name, Catalogue $catalogue, Version $to): array
    {
        if ($catalogue->has($name, $to)) {
            return [$name, 1.0];
        }
        foreach (self::SUCCESSIONS as $oldName => [$newName, $factor, $since]) {
            if ($name === $oldName && $to->hasReached(Version::parse($since))) {
                return $catalogue->has($newName, $to) ? [$newName, $factor] : [null, 1.0];
            }
            if ($name === $newName && !$to->hasReached(Version::parse($since))) {
                return $catalogue->has($oldName, $to) ? [$oldName, 1.0 / $factor] : [null, 1.0];
            }
        }

        return [null, 1.0];
    }

    private static function carry(Setting $setting, string $name, float|int|bool|string $value, float $factor, Version $to): Fate
    {
        if (\is_int($value) || \is_float($value)) {
            return self::carryNumber($setting, $name, $value, $factor, $to);
        }
        try {
            $new = $setting->check($value, $to);
        } catch (SettingError) {
            return self::dropped($name, $value, self::refusal($setting, $to));
        }

        return $setting->name !== $name
            ? new Fate(FateKind::Converted, $name, $value, $setting->name, $new, Fact::of(FateReason::NewName))
            : new Fate(FateKind::Kept, $name, $value, $setting->name, $new, null);
    }

    private static function carryNumber(Setting $setting, string $name, float|int $value, float $factor, Version $to): Fate
    {
        $wanted = $value * $factor;
        [$low, $high] = $setting->range($to);
        $fitting = max($low, min($high, $wanted));
        if (SettingType::Whole === $setting->type) {
            $fitting = (float) round($fitting);
        }
        $new = $setting->check($fitting, $to);
        if (abs($fitting - $wanted) > 1e-6 * max(1.0, abs($wanted)) && ($wanted < $low || $wanted > $high)) {
            $reason = Fact::of(FateReason::RangeNow, low: $low, high: $high, unit: $setting->unit);

            return new Fate(FateKind::Clipped, $name, $value, $setting->name, $new, $reason);
        }
        if ($setting->name === $name && 1.0 === $factor) {
            return new Fate(FateKind::Kept, $name, $value, $setting->name, $new, null);
        }
        $reason = Fact::of(1.0 === $factor ? FateReason::NewName : FateReason::NewNameAndUnit);

        return new Fate(FateKind::Converted, $name, $value, $setting->name, $new, $reason);
    }

    private static function refusal(Setting $setting, Version $to): Fact
    {
        return match ($setting->type) {
            SettingType::Choice => Fact::of(FateReason::NotAChoice, release: $to->toString(), choices: $setting->choices),
            SettingType::Flag => Fact::of(FateReason::NotOnOrOff, release: $to->toString()),
            SettingType::Integers,
            SettingType::Band,
            SettingType::Zones,
            SettingType::Cells,
            SettingType::Times => Fact::of(FateReason::NotAList, release: $to->toString()),
            SettingType::Number, SettingType::Whole => Fact::of(FateReason::NotANumber, release: $to->toString()),
        };
    }

    private static function dropped(string $name, float|int|bool|string $value, Fact $reason): Fate
    {
        return new Fate(FateKind::Dropped, $name, $value, null, null, $reason);
    }
}
