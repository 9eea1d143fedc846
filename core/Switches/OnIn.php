<?php

declare(strict_types=1);

namespace Ortholex\Core\Switches;

/**
 * When an action is on: in any of some alternatives, each of zones that must all hold together.
 *
 * Written `5:1700- with 6:-1300, 7:1200-1800`: alternatives by commas, zones that hold together by “with”.
 */
final readonly class OnIn
{
    private const LOWEST_US = 800;
    private const HIGHEST_US = 2200;

    /** @param list<list<Zone>> $alternatives none: never on */
    private function __construct(public array $alternatives)
    {
    }

    public static function never(): self
    {
        return new self([]);
    }

    /** @param list<list<Zone>> $alternatives empty ones are left out, and one that stands twice stands once */
    public static function of(array $alternatives): self
    {
        $kept = [];
        foreach ($alternatives as $zones) {
            if ([] !== $zones) {
                usort($zones, static fn (Zone $a, Zone $b): int => [$a->channel, $a->fromUs ?? 0] <=> [$b->channel, $b->fromUs ?? 0]);
                $kept[implode(' ', array_map(static fn (Zone $z): string => $z->text(), $zones))] = $zones;
            }
        }
        ksort($kept, \SORT_NATURAL);

        return new self(array_values($kept));
    }

    /** @throws ZoneError naming what cannot be read */
    public static function parse(string $text): self
    {
        $alternatives = [];
        foreach (array_filter(array_map('trim', explode(',', $text)), static fn (string $one): bool => '' !== $one) as $one) {
            $alternatives[] = array_map(self::zone(...), preg_split('~\s+with\s+~', $one) ?: [$one]);
        }

        return self::of($alternatives);
    }

    private static function zone(string $text): Zone
    {
        if (1 !== preg_match('~^(\d{1,2})\s*:\s*(\d{1,5})?\s*(?:-|–|\.\.)\s*(\d{1,5})?$~u', trim($text), $m)) {
            throw ZoneError::unreadable($text);
        }
        $edge = static fn (string $digits): ?float => '' === $digits ? null : (float) $digits;
        [$from, $to] = [$edge($m[2] ?? ''), $edge($m[3] ?? '')];
        foreach ([$from, $to] as $us) {
            if (null !== $us && ($us < self::LOWEST_US || $us > self::HIGHEST_US)) {
                throw ZoneError::outside($text);
            }
        }

        return Zone::of((int) $m[1], $from, $to);
    }

    public function text(): string
    {
        return implode(
            ', ',
            array_map(
                static fn (array $zones): string => implode(' with ', array_map(static fn (Zone $z): string => $z->text(), $zones)),
                $this->alternatives,
            ),
        );
    }

    public function isNever(): bool
    {
        return [] === $this->alternatives;
    }

    /** @param array<int, float> $us by channel; one that never spoke turns nothing on */
    public function holds(array $us): bool
    {
        foreach ($this->alternatives as $zones) {
            foreach ($zones as $zone) {
                if (!isset($us[$zone->channel]) || !$zone->holds($us[$zone->channel])) {
                    continue 2;
                }
            }

            return true;
        }

        return false;
    }

    /** @return list<int> channels it looks at */
    public function channels(): array
    {
        $channels = [];
        foreach ($this->alternatives as $zones) {
            foreach ($zones as $zone) {
                $channels[$zone->channel] = $zone->channel;
            }
        }
        ksort($channels);

        return array_values($channels);
    }
}
