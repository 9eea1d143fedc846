<?php

declare(strict_types=1);

namespace Ortholex\Bench\Room;

use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Storage\NotKept;
use Ortholex\Core\Parts\Plan\CraftPlan;
use Ortholex\Core\Parts\Plan\Workbench;
use Ortholex\Core\Settings\Catalogue;

/** Puts simulated craft together, a folder each. */
final readonly class SimulatedWorkbench implements Workbench
{
    public function __construct(
        private SimulatedBenches $rooms,
        private Catalogue $catalogue,
        private string $shelf,
        private string $escShelf,
    ) {
    }

    public function put(string $craft, string $name, CraftPlan $plan, array $faults, int $seed): void
    {
        $this->whole($craft, function () use ($craft, $name, $plan, $faults, $seed): void {
            $build = FromParts::build($name, $plan, $faults, $seed);
            Assembly::of($this->rooms, $this->catalogue, $craft, $build)->solder($this->shelf, $this->escShelf);
        });
    }

    public function copy(string $from, string $to): void
    {
        $world = $this->rooms->world($from);
        $made = $this->rooms->belongings($from);
        if (null === $world || null === $made) {
            return;
        }
        $this->whole($to, function () use ($from, $to, $world, $made): void {
            // Held meanwhile, so that what is copied is of one moment.
            $world->store->change(function () use ($from, $to): void {
                foreach (glob("{$this->rooms->folderOf($from)}/*") ?: [] as $file) {
                    if (is_file($file) && !\in_array(basename($file), ['lock', 'recorder'], true)
                        && !@copy($file, "{$this->rooms->folderOf($to)}/".basename($file))) {
                        throw NotKept::noPlace("{$this->rooms->folderOf($to)}/".basename($file));
                    }
                }
            });
            $this->rooms->put($to, $made->withSerial(substr(hash('crc32b', $to), 0, 2).'-'.(crc32($to) % 100_000)));
            $copy = $this->rooms->world($to) ?? throw NotKept::noPlace($this->rooms->folderOf($to));
            $copy->store->change(static function (WorldState $s): void {
                $s->cable = $s->pack = false;
                $s->faults = [];
            });
        });
    }

    /** @param \Closure(): void $lay what lays it there: to the end, or nothing lies there */
    private function whole(string $craft, \Closure $lay): void
    {
        $folder = $this->rooms->folderOf($craft);
        $this->rooms->clear($craft);
        if (!is_dir($folder) && !@mkdir($folder, 0o775, true)) {
            throw NotKept::noPlace($folder);
        }
        try {
            $lay();
        } catch (\Throwable $e) {
            $this->rooms->clear($craft);
            throw $e;
        }
    }
}
