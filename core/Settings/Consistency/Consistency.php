<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings\Consistency;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Migration\Migration;

/** Whether a full set of settings holds together; each setting alone is checked by the catalogue. */
final readonly class Consistency
{
    /** @return list<Clash> */
    public static function of(SettingSet $settings, Version $version, Circumstances $of): array
    {
        $current = Migration::between(Catalogue::loam(), $settings, $version, Version::parse(Catalogue::CURRENT))->settings;
        $clashes = [];
        foreach (self::rules() as $rule) {
            array_push($clashes, ...$rule->broken($current, $of));
        }

        return $clashes;
    }

    /** @return list<Rule> in the order that clashes are told */
    private static function rules(): array
    {
        return [
            new Rule\CutoffsBelowLoop(),
            new Rule\NotchesNeedFeedback(),
            new Rule\FeedbackNeedsDigitalSignal(),
            new Rule\SignalFitsLoop(),
            new Rule\EndPointsMeetOutputs(),
            new Rule\FeelHasCurve(),
            new Rule\ThrottleHasCurve(),
            new Rule\SpansRise(),
            new Rule\ChannelsApart(),
            new Rule\RolesHaveNeeds(),
            new Rule\FrameCanFly(),
            new Rule\PropsClear(),
            new Rule\WarningBeforeFlightEnd(),
            new Rule\LoadFitsProcessor(),
        ];
    }
}
