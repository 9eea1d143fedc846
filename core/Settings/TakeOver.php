<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Craft\SettingSet;

/** Parts of one craft's settings, put into another's: what would change, and what cannot come along. */
final readonly class TakeOver
{
    /**
     * @param SettingSet   $changes what would be other than it is, by the names of the craft that takes
     * @param list<string> $same    taken, and alike already
     * @param list<string> $unknown settings of those parts that the craft that takes has not
     */
    private function __construct(public SettingSet $changes, public array $same, public array $unknown)
    {
    }

    /**
     * @param SettingSet         $from  both under the names of one release
     * @param list<TakeOverPart> $parts
     */
    public static function of(SettingSet $from, SettingSet $into, array $parts): self
    {
        $changes = $same = $unknown = [];
        foreach ($from as $name => $value) {
            if ([] === array_filter($parts, static fn (TakeOverPart $p): bool => $p->has($name))) {
                continue;
            }
            if (!$into->has($name)) {
                $unknown[] = $name;
            } elseif (Setting::same($value, $into[$name])) {
                $same[] = $name;
            } else {
                $changes[$name] = $value;
            }
        }

        return new self(SettingSet::of($changes), $same, $unknown);
    }
}
