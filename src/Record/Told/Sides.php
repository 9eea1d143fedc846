<?php

declare(strict_types=1);

namespace Ortholex\App\Record\Told;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Settings\File\SettingsFile;
use Ortholex\App\Settings\File\SettingsFileError;
use Ortholex\App\Settings\Snapshot;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Migration\Migration;

/** Settings as the command line names them: a craft, one of its snapshots as “craft:name”, or a YAML file; all under current names. */
final readonly class Sides
{
    public function __construct(private EntityManagerInterface $entities, private Catalogue $catalogue, private SettingsFile $files)
    {
    }

    /** @throws SettingsFileError that says what there is */
    public function craft(string $slug): Craft
    {
        $repository = $this->entities->getRepository(Craft::class);
        $all = implode(', ', array_map(static fn (Craft $c): string => $c->slug, $repository->findAll()));

        return $repository->findOneBy(['slug' => $slug])
            ?? throw SettingsFileError::of("There is no craft “{$slug}”. There are: $all.");
    }

    /** @throws SettingsFileError that says what, where and what to do */
    public function named(string $side): SettingSet
    {
        [$slug, $snapshot] = [...explode(':', $side, 2), ''];
        $craft = $this->entities->getRepository(Craft::class)->findOneBy(['slug' => $slug]);
        if (null === $craft) {
            $isPath = is_file($side) || str_contains($side, '.') || str_contains($side, '/');

            return $isPath ? $this->files->read($side) : $this->craft($slug)->settings;
        }
        if ('' === $snapshot) {
            return $this->current($this->read($craft)->settings, $craft->version());
        }
        $kept = $this->entities->getRepository(Snapshot::class)->findOneBy(['craft' => $craft, 'name' => $snapshot], ['id' => 'DESC'])
            ?? throw SettingsFileError::of("$craft->name has no snapshot “{$snapshot}”. Sheet 72 lists them.");

        return $this->current($kept->settings, Version::parse($kept->version));
    }

    /** @throws SettingsFileError */
    public function read(Craft $craft): Craft
    {
        return $craft->settings->isEmpty()
            ? throw SettingsFileError::of("$craft->name has never been read: link it once on sheet 11.")
            : $craft;
    }

    private function current(SettingSet $set, Version $from): SettingSet
    {
        return Migration::carried($this->catalogue, $set, $from, Version::parse(Catalogue::CURRENT));
    }
}
