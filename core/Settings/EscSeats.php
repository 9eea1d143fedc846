<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Craft\SettingSet;

/**
 * Which ESC sits at which place, by its serial number: settings are named by place, `esc.PLACE.KEY`, but belong to the ESC.
 *
 * One whose serial number is not known, then or now, is taken for the one of its place.
 */
final readonly class EscSeats
{
    /** @param array<string, string> $serials by place; '' or nothing where it is not known */
    private function __construct(public array $serials)
    {
    }

    /** @param array<mixed> $serials by place */
    public static function of(array $serials): self
    {
        $known = [];
        foreach ($serials as $place => $serial) {
            if (\is_string($serial) && '' !== $serial) {
                $known[(string) $place] = $serial;
            }
        }

        return new self($known);
    }

    /** Where the ESC sits now that sat at a place then; null when it is no longer on the craft. */
    public function placeOf(string $then, self $before): ?string
    {
        $serial = $before->serials[$then] ?? '';
        if ('' === $serial) {
            return $then;
        }
        $now = array_search($serial, $this->serials, true);

        return false !== $now ? $now : (isset($this->serials[$then]) ? null : $then);
    }

    /** The same for the full name of a setting; one that is none of an ESC stays. */
    public function nameOf(string $then, self $before): ?string
    {
        if (!EscTable::owns($then)) {
            return $then;
        }
        [$place, $key] = EscTable::parts($then);
        $now = $this->placeOf($place, $before);

        return null === $now ? null : "esc.$now.$key";
    }

    /** Settings named by the places of before, under the places of now; without those of ESCs that are gone. */
    public function carry(SettingSet $settings, self $before): SettingSet
    {
        $carried = [];
        foreach ($settings as $name => $value) {
            $now = $this->nameOf($name, $before);
            if (null !== $now) {
                $carried[$now] = $value;
            }
        }

        return SettingSet::of($carried);
    }

    /**
     * @param list<string> $names of settings, by the places of before
     *
     * @return array<string, string> serial numbers of ESCs among them that are no longer on the craft, by the place of before
     */
    public function gone(array $names, self $before): array
    {
        $gone = [];
        foreach ($names as $name) {
            $place = EscTable::parts($name)[0];
            if (EscTable::owns($name) && null === $this->placeOf($place, $before)) {
                $gone[$place] = $before->serials[$place];
            }
        }

        return $gone;
    }
}
