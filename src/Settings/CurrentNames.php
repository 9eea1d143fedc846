<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Migration\Migration;
use Symfony\Contracts\Cache\CacheInterface;

/** A craft's settings under the names of the current firmware, which the rules know. */
final class CurrentNames
{
    /** @var \WeakMap<SettingSet, array<string, SettingSet>> by release: a page asks for the same set again and again */
    private \WeakMap $known;

    public function __construct(private readonly Catalogue $catalogue, private readonly CacheInterface $cache)
    {
        $this->known = new \WeakMap();
    }

    /** @param SettingSet $settings of the craft's own firmware */
    public function of(Craft $craft, SettingSet $settings): SettingSet
    {
        $from = $craft->version();
        $known = $this->known[$settings] ?? [];
        if (!isset($known[$from->toString()])) {
            // Kept until the code changes; reckoned out it would be the better part of a page.
            $now = $this->cache->get(
                'current_names.'.hash('xxh128', serialize([$from, $settings])),
                fn (): SettingSet => Migration::between($this->catalogue, $settings, $from, Version::parse(Catalogue::CURRENT))->settings,
            );
            $this->known[$settings] = $known = [$from->toString() => $now] + $known;
        }

        return $known[$from->toString()];
    }
}
