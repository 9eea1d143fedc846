<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;

/**
 * The rounds in which changes go to a board: what others depend on first, with a restart between.
 *
 * A UART can be given the job of a feature only by a board that started with the feature on; so features stand in
 * the first round, jobs in the second. A round without settings that need it ends without a restart.
 */
final readonly class CommitPlan
{
    /** Job of a UART => [setting, value] that must stand when the board starts. */
    public const NEEDS = [
        'gps' => ['location.enabled', true],
        'telemetry' => ['telemetry.enabled', true],
        'video' => ['video.enabled', true],
        'overlay' => ['overlay.enabled', true],
        'recorder' => ['recorder.writes_to', 'wire'],
    ];

    /** @param list<array{changes: SettingSet, restart: bool}> $rounds */
    private function __construct(public array $rounds)
    {
    }

    /** @param SettingSet $changes of the board */
    public static function of(SettingSet $changes, Catalogue $catalogue, Version $version): self
    {
        $first = [];
        foreach ($changes as $name => $value) {
            $need = 1 === preg_match('~^uart\.\w+\.role$~', $name) ? self::NEEDS[(string) $value] ?? null : null;
            if (null !== $need && ($changes[$need[0]] ?? null) === $need[1]) {
                $first[$need[0]] = $need[1];
            }
        }
        $rounds = [];
        $first = SettingSet::of($first);
        foreach ([$first, $changes->except($first)] as $round) {
            if (!$round->isEmpty()) {
                $restart = false;
                foreach ($round->names() as $name) {
                    $restart = $restart || $catalogue->get($name, $version)->restart;
                }
                $rounds[] = ['changes' => $round, 'restart' => $restart];
            }
        }

        return new self($rounds);
    }

    public function restarts(): int
    {
        return \count(array_filter($this->rounds, static fn (array $r): bool => $r['restart']));
    }
}
