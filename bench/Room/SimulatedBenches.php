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
final readonly class SimulatedBenches implements Benches
{
    public function __construct(private Catalogue $catalogue, private Pace $pace, private string $folder, private bool $sync = true)
    {
    }

    public function of(string $craft): Bench
    {
        $world = $this->world($craft);

        return null === $world ? new EmptyBench() : new SimulatedBench($world, $this->pace);
    }

    /** Null where nothing lies for this craft. */
    public function world(string $craft): ?World
    {
        $made = Belongings::in($this->folderOf($craft));

        return null === $made
            ? null
            : new World(new WorldStore($this->folderOf($craft), $this->sync), $made->model, $made->physics, $this->catalogue, $this->pace);
    }

    public function put(string $craft, Belongings $made): void
    {
        $made->putInto($this->folderOf($craft));
    }

    private function folderOf(string $craft): string
    {
        return "$this->folder/$craft";
    }
}
