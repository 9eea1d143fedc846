<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\Settings\Setting;

/**
 * What was changed between the last flight that went well and one whose loop does not: the first cause to think of, and what to take
 * back before anything else is turned.
 */
final readonly class SinceGood
{
    /** What makes the loop. */
    private const LOOP = ['gain.', 'rate_path.', 'd_path.', 'notch.', 'loop.'];

    /** @param array<string, array{float|int|bool|string, float|int|bool|string}> $changed what it was and what it became, by setting */
    private function __construct(public FlownLog $good, public array $changed)
    {
    }

    /**
     * @param list<FlownLog> $before flights before it, newest first
     *
     * @return self|null null where it flew well itself, nothing flew well before, or nothing that makes the loop was changed
     */
    public static function of(FlownLog $flight, array $before): ?self
    {
        if (Hindrance::Unstable !== $flight->hinders) {
            return null;
        }
        foreach ($before as $one) {
            if (null !== $one->hinders || $one->settings->isEmpty()) {
                continue;
            }
            $changed = [];
            foreach ($flight->settings as $name => $value) {
                $was = $one->settings[$name] ?? null;
                $makes = array_filter(self::LOOP, static fn (string $group): bool => str_starts_with($name, $group));
                if (null !== $was && [] !== $makes && !Setting::same($was, $value)) {
                    $changed[$name] = [$was, $value];
                }
            }

            return [] === $changed ? null : new self($one, $changed);
        }

        return null;
    }
}
