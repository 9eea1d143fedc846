<?php

declare(strict_types=1);

namespace Ortholex\App\FlightLog;

use Ortholex\Core\Control\GainSetB;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Migration\FormerNames;
use Symfony\Component\Yaml\Exception\ParseException;
use Symfony\Component\Yaml\Yaml;

/** What the head of a log says that it was flown with. */
final readonly class HeadSettings
{
    /** None when the head is no flat YAML. */
    public static function of(string $head): SettingSet
    {
        try {
            $data = Yaml::parse($head);
            $data = \is_array($data) ? FormerNames::carry($data) : $data;
        } catch (ParseException) {
            // Someone else's comments are no settings; the head itself is kept as it was.
            return SettingSet::none();
        }
        $settings = [];
        foreach (\is_array($data) ? $data : [] as $name => $value) {
            if (\is_string($name) && \is_scalar($value)) {
                $settings[$name] = $value;
            }
        }
        $set = SettingSet::of($settings);

        // What flew counts, not what stood beside it.
        return 'b' === ($settings['flight.gain_set'] ?? null) ? GainSetB::applied($set) : $set;
    }
}
