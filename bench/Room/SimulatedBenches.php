<?php

declare(strict_types=1);

namespace Ortholex\Bench\Room;

use Ortholex\Bench\State\WorldStore;
use Ortholex\Bench\Time\Pace;
use Ortholex\Bench\World\World;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\World\Bench;
use Ortholex\Core\World\Benches;

/** A folder for each craft, with the simulated world around it. */
final class SimulatedBenches implements Benches
{
    /** @var array<string, array{Belongings, WorldStore}> by craft: a page asks many times for what never changes by itself */
    private array $known = [];

    public function __construct(
        private readonly Catalogue $catalogue,
        private readonly Pace $pace,
        private readonly string $folder,
        private readonly bool $sync = true,
    ) {
    }

    public function of(string $craft): Bench
    {
        $world = $this->world($craft);

        return null === $world ? new EmptyBench() : new SimulatedBench($world, $this->pace);
    }

    /** Null where nothing lies for this craft. */
    public function world(string $craft): ?World
    {
        if (!isset($this->known[$craft])) {
            $folder = $this->folderOf($craft);
            $made = Belongings::in($folder);
            if (null === $made) {
                return null;
            }
            $this->known[$craft] = [$made, new WorldStore($folder, $this->sync)];
        }
        [$made, $store] = $this->known[$craft];

        return new World($store, $made->model, $made->physics, $this->catalogue, $this->pace);
    }

    public function put(string $craft, Belongings $made): void
    {
        unset($this->known[$craft]);
        $made->putInto($this->folderOf($craft));
    }

    public function belongings(string $craft): ?Belongings
    {
        return Belongings::in($this->folderOf($craft));
    }

    /** Nothing lies there any more. */
    public function clear(string $craft): void
    {
        unset($this->known[$craft]);
        foreach (glob($this->folderOf($craft).'/{,.}[!.]*', \GLOB_BRACE) ?: [] as $file) {
            if (is_file($file)) {
                unlink($file);
            }
        }
        @rmdir($this->folderOf($craft));
    }

    public function folderOf(string $craft): string
    {
        return "$this->folder/$craft";
    }
}
