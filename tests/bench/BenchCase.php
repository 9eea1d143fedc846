<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench;

use Ortholex\Bench\Flash\FlashFile;
use Ortholex\Bench\Link\WorldLink;
use Ortholex\Bench\Shelf\ShelfMaker;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\State\WorldStore;
use Ortholex\Bench\Time\ManualPace;
use Ortholex\Bench\World\World;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Migration\Migration;
use Ortholex\Demo\DemoCraft;
use Ortholex\Demo\Scenario;
use PHPUnit\Framework\TestCase;

/** A bench of its own for each test, on a clock that only waiting moves. */
abstract class BenchCase extends TestCase
{
    protected World $world;
    protected ManualPace $pace;
    protected DemoCraft $demo;
    private string $folder;

    /** Whose bench it is. */
    protected string $slug = 'curlew';

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/bench-'.bin2hex(random_bytes(6));
        $this->demo = Scenario::craft()[$this->slug];
        $this->pace = new ManualPace();
        $store = new WorldStore($this->folder, false);
        $this->world = new World($store, $this->demo->model, $this->demo->physics, Catalogue::loam(), $this->pace);
        $this->solder($this->demo->model->hardwareId, '26.01');
        $this->world->store->change(fn (WorldState $s) => ($s->kept = $this->settings('26.01')));
        foreach (array_keys($this->demo->physics->escs) as $pad) {
            $this->solderEsc($pad, 'Withy', '1.4.0');
        }
    }

    protected function solderEsc(int $pad, string $family, string $version, string $layout = 'P3'): void
    {
        $this->world->drive->escFlash($pad)->write(0, ShelfMaker::escImage($family, $version, $layout, 64, 250, 20)->flat());
    }

    protected function tearDown(): void
    {
        foreach (glob("$this->folder/*") ?: [] as $file) {
            unlink($file);
        }
        rmdir($this->folder);
    }

    protected function solder(string $hardwareId, string $version): void
    {
        $image = ShelfMaker::image($hardwareId, $version, '', $this->demo->model->flashFrom, 40);
        (new FlashFile($this->world->store->flashPath(), $this->demo->model->flashBytes()))->write(0, $image->flat());
    }

    /** @return array<string, float|int|bool|string> */
    protected function settings(string $version): array
    {
        $current = Version::parse(Catalogue::CURRENT);

        return Migration::between(
            Catalogue::loam(),
            Catalogue::loam()->defaults($current)->with($this->demo->settings),
            $current,
            Version::parse($version),
        )->settings->toArray();
    }

    protected function client(): BoardClient
    {
        return new BoardClient(new WorldLink($this->world, $this->pace));
    }

    /** Linked first, then the pack: the order in which ESCs listen. */
    protected function power(): BoardClient
    {
        $client = $this->plug();
        $client->identity();
        $this->world->move('props', '0');
        $this->world->move('pack', '1');

        return $client;
    }

    /** Cable in, and the board given its time to start. */
    protected function plug(): BoardClient
    {
        $this->world->move('cable', '1');
        $this->pace->wait(1);

        return $this->client();
    }
}
