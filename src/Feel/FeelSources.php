<?php

declare(strict_types=1);

namespace Ortholex\App\Feel;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Crafts;
use Ortholex\App\Settings\Snapshot;
use Ortholex\Core\Craft\SettingSet;

/** Where a feel can be copied from: any other craft of the book, and any snapshot. */
final readonly class FeelSources
{
    private const MOST_SNAPSHOTS = 40;

    public function __construct(private Crafts $crafts, private EntityManagerInterface $entities)
    {
    }

    /** @return array<string, string> what each is called, by key */
    public function of(Craft $craft): array
    {
        $sources = [];
        foreach ($this->crafts->all() as $other) {
            if ($other->slug !== $craft->slug && $other->settings->has('feel.roll.full_dps')) {
                $sources["craft:$other->slug"] = "$other->name, as last read";
            }
        }
        $kept = $this->entities->getRepository(Snapshot::class);
        foreach ($kept->findBy(['putAwayAt' => null], ['id' => 'DESC'], self::MOST_SNAPSHOTS) as $snapshot) {
            $sources["snapshot:$snapshot->id"] = "{$snapshot->craft->name}, “{$snapshot->name}”";
        }

        return $sources;
    }

    /** The feel that stands there, of the settings that this craft has; null for no such source. */
    public function feel(Craft $craft, string $key): ?SettingSet
    {
        if (!isset($this->of($craft)[$key])) {
            return null;
        }
        [$kind, $which] = explode(':', $key, 2);
        $from = 'craft' === $kind
            ? $this->crafts->named($which)->settings
            : $this->entities->find(Snapshot::class, (int) $which)->settings ?? SettingSet::none();

        return $from->where(static fn (string $n): bool => str_starts_with($n, 'feel.'))->among($craft->settings);
    }
}
