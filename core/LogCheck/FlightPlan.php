<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\Control\Feel;
use Ortholex\Core\Control\FeelError;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Setting;

/**
 * Which card to fly next, and with which settings, so that the log can be used: noise before response, as filters are
 * tuned before gains; response with P and D alone and with a feel whose large moves stay safe.
 */
final readonly class FlightPlan
{
    /** Faster than this at full stick, large random moves in line of sight are not safe, deg/s. */
    private const SAFE_DPS = 450.0;

    /** Below this at a twentieth of the stick, small moves do not excite the craft, deg/s. */
    private const LEAST_AT_TWENTIETH_DPS = 7.0;

    /** Straight: strong around centre, low at the end. Quarter, half and full stick, deg/s. */
    private const TEST_FEEL = ['roll' => [100.0, 200.0, 400.0], 'pitch' => [100.0, 200.0, 400.0], 'yaw' => [55.0, 110.0, 220.0]];

    /**
     * @param Card|null            $card   null where something else comes first, or nothing more can be learnt
     * @param array<string, float> $change settings that this flight wants otherwise
     * @param SinceGood|null       $since  what was changed since it flew well, where the newest flight did not
     */
    private function __construct(public ?Card $card, public PlanReason $why, public array $change, public ?SinceGood $since = null)
    {
    }

    /**
     * @param SettingSet     $settings on the craft
     * @param list<FlownLog> $flown    newest first
     */
    public static function of(SettingSet $settings, array $flown): self
    {
        $hinders = self::hindrance($settings, $flown);
        if (null !== $hinders) {
            $since = PlanReason::SettingsFirst === $hinders ? SinceGood::of($flown[0], \array_slice($flown, 1)) : null;

            return new self(null, null === $since ? $hinders : PlanReason::TakeBackFirst, [], $since);
        }
        if (!self::known($flown, AdequacyCode::NoiseAgainstThrottle, $settings, ['rate_path.', 'd_path.', 'notch.'])) {
            return new self(Card::HoverAndClimb, [] === $flown ? PlanReason::NothingKnown : PlanReason::NoiseUnknown, []);
        }
        $change = self::forResponse($settings);
        if (!self::known($flown, AdequacyCode::StepResponse, $settings, ['gain.', 'rate_path.', 'd_path.', 'notch.'])) {
            return new self(Card::MixedSticks, PlanReason::ResponseUnknown, $change);
        }

        // Gains, filters and what they do are known, hard flying too: another flight would tell the same.
        foreach ($flown as $flight) {
            if (Card::FlipSet === $flight->card && self::isSame($flight, $settings, ['gain.', 'rate_path.', 'd_path.', 'notch.'])) {
                return new self(null, PlanReason::NothingMore, []);
            }
        }

        return new self(Card::FlipSet, PlanReason::BothKnown, []);
    }

    /**
     * What a flight for response wants otherwise: feed-forward and added D off, and the test feel.
     *
     * @return array<string, float>
     */
    public static function forResponse(SettingSet $settings): array
    {
        $change = [];
        foreach (self::TEST_FEEL as $axis => [$quarter, $half, $full]) {
            foreach (['ff', 'added_d'] as $gain) {
                if ($settings->number("gain.$axis.$gain") > 0) {
                    $change["gain.$axis.$gain"] = 0.0;
                }
            }
            $now = array_map(static fn (string $part): mixed => $settings["feel.$axis.$part"] ?? null, [
                'quarter_dps',
                'half_dps',
                'full_dps',
            ]);
            if (!is_numeric($now[0]) || !is_numeric($now[1]) || !is_numeric($now[2])) {
                continue;
            }
            try {
                $feel = Feel::of((float) $now[0], (float) $now[1], (float) $now[2]);
                $suits =
                    (float) $now[2] <= self::SAFE_DPS
                    && $feel->rate(0.05) >= (Axis::Yaw->value === $axis ? 0.5 : 1.0) * self::LEAST_AT_TWENTIETH_DPS;
            } catch (FeelError) {
                // A feel that cannot be is no reason to fly with it.
                $suits = false;
            }
            if (!$suits) {
                $change += ["feel.$axis.quarter_dps" => $quarter, "feel.$axis.half_dps" => $half, "feel.$axis.full_dps" => $full];
            }
        }

        return $change;
    }

    /**
     * What the newest flight showed that comes before any other: a repair always, settings until they are changed.
     *
     * @param list<FlownLog> $flown
     */
    private static function hindrance(SettingSet $settings, array $flown): ?PlanReason
    {
        if ([] === $flown) {
            return null;
        }

        return match ($flown[0]->hinders) {
            Hindrance::Broken => PlanReason::RepairFirst,
            Hindrance::Unstable => self::isSame($flown[0], $settings, ['gain.', 'rate_path.', 'd_path.', 'notch.'])
                ? PlanReason::SettingsFirst
                : null,
            default => null,
        };
    }

    /** @param list<string> $groups beginnings of names */
    private static function isSame(FlownLog $flight, SettingSet $settings, array $groups): bool
    {
        foreach ($flight->settings as $name => $value) {
            foreach ($groups as $group) {
                if (str_starts_with($name, $group) && isset($settings[$name]) && !Setting::same($value, $settings[$name])) {
                    return false;
                }
            }
        }

        return !$flight->settings->isEmpty();
    }

    /**
     * Whether a flight with the same settings of some groups can be used for something.
     *
     * @param list<FlownLog> $flown
     * @param list<string>                                                                   $groups beginnings of names
     */
    private static function known(array $flown, AdequacyCode $what, SettingSet $settings, array $groups): bool
    {
        foreach ($flown as $flight) {
            if ($flight->adequacy->allows($what) && self::isSame($flight, $settings, $groups)) {
                return true;
            }
        }

        return false;
    }
}
