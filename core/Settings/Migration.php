<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Firmware\Version;

/**
 * Carries a set of settings from one version of Loam to another, up or down.
 *
 * Every setting of the old set ends in exactly one of kept, converted, clipped or dropped, and every setting of
 * the new version that nothing came to is new, at its default.
 */
final readonly class Migration
{
    /** Old name => [new name, factor, first version with the new one]: new = old × factor. */
    private const SUCCESSIONS = [
        'filter.gyro_hz' => ['rate_path.stage.1.cutoff_hz', 1.0, '4.1'],
        'filter.d_hz' => ['d_path.stage.1.cutoff_hz', 1.0, '4.1'],
        'motors.idle_us' => ['motors.idle_pct', 0.1, '4.2'],
        'link_loss.hold_ds' => ['link_loss.hold_s', 0.1, '4.2'],
    ];

    /**
     * @param list<Fate>                            $fates
     * @param array<string, float|int|bool|string>  $settings the full set of the new version
     */
    private function __construct(public array $fates, public array $settings)
    {
    }

    /** @param array<string, float|int|bool|string> $old */
    public static function between(Catalogue $catalogue, array $old, Version $from, Version $to): self
    {
        $fates = [];
        $settings = $catalogue->defaults($to);
        $reached = [];
        foreach ($old as $name => $value) {
            [$newName, $factor] = self::successor($name, $catalogue, $to);
            if (null === $newName) {
                $fates[] = new Fate(Fate::DROPPED, $name, $value, null, null, 'Loam '.$to->toString().' no longer has it.');
                continue;
            }
            $fate = self::carry($catalogue->get($newName, $to), $name, $value, $factor, $to);
            $fates[] = $fate;
            if (null !== $fate->newName && null !== $fate->newValue) {
                $settings[$newName] = $fate->newValue;
                $reached[$newName] = true;
            }
        }
        foreach ($settings as $name => $value) {
            if (!isset($reached[$name])) {
                $fates[] = new Fate(
                    Fate::NEW,
                    null,
                    null,
                    $name,
                    $value,
                    'Loam '.$from->toString().' did not have it; it starts at its default.',
                );
            }
        }

        return new self($fates, $settings);
    }

    /** @return list<Fate> */
    public function ofKind(string $kind): array
    {
        return array_values(array_filter($this->fates, static fn (Fate $f): bool => $f->kind === $kind));
    }

    /** @return array{?string, float} the name in the version asked for, and the factor that leads to it */
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
        $renamed = $setting->name !== $name;
        if (\is_int($value) || \is_float($value)) {
            $wanted = $value * $factor;
            [$low, $high] = $setting->range($to);
            $fitting = max($low, min($high, $wanted));
            if (Setting::WHOLE === $setting->type) {
                $fitting = (float) round($fitting);
            }
            $new = $setting->check($fitting, $to);
            if (abs($fitting - $wanted) > 1e-6 * max(1.0, abs($wanted)) && ($wanted < $low || $wanted > $high)) {
                return new Fate(
                    Fate::CLIPPED,
                    $name,
                    $value,
                    $setting->name,
                    $new,
                    \sprintf('Its range is now %s to %s %s.', $low, $high, $setting->unit),
                );
            }

            return $renamed || 1.0 !== $factor
                ? new Fate(
                    Fate::CONVERTED,
                    $name,
                    $value,
                    $setting->name,
                    $new,
                    1.0 === $factor ? 'It has a new name.' : 'It has a new name and unit.',
                )
                : new Fate(Fate::KEPT, $name, $value, $setting->name, $new, '');
        }
        try {
            $new = $setting->check($value, $to);
        } catch (SettingError $e) {
            return new Fate(
                Fate::DROPPED,
                $name,
                $value,
                null,
                null,
                'Loam '.$to->toString().' cannot take this value: '.$e->reason.'.',
            );
        }

        return new Fate($renamed ? Fate::CONVERTED : Fate::KEPT, $name, $value, $setting->name, $new, $renamed ? 'It has a new name.' : '');
    }
}
