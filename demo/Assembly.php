<?php

declare(strict_types=1);

namespace Ortholex\Demo;

use Ortholex\Bench\Flash\FlashFile;
use Ortholex\Bench\Overlay\ScryChip;
use Ortholex\Bench\Position\PlumbState;
use Ortholex\Bench\Room\Belongings;
use Ortholex\Bench\Room\SimulatedBenches;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Storage\NotKept;
use Ortholex\Bench\World\World;
use Ortholex\Core\Firmware\IntelHex;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Overlay\Font\ChipPages;
use Ortholex\Core\Overlay\Font\Font;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Migration\Migration;

/** Puts a craft of the scenario on its bench. */
final readonly class Assembly
{
    /** Lies beside the flash while it is being soldered. */
    private const AT_WORK = '.at-work';

    private function __construct(private World $world, private Catalogue $catalogue, private DemoCraft $demo)
    {
    }

    /** What the craft is, laid on its bench. */
    public static function of(SimulatedBenches $rooms, Catalogue $catalogue, DemoCraft $demo): self
    {
        $rooms->put($demo->slug, new Belongings($demo->model, $demo->physics));

        return new self(
            $rooms->world($demo->slug) ?? throw new \LogicException("What was laid down for $demo->slug is not there."),
            $catalogue,
            $demo,
        );
    }

    /** Whether it was soldered, to the end. */
    public function isSoldered(): bool
    {
        return $this->world->store->exists() && !is_file($this->world->store->flashPath().self::AT_WORK);
    }

    /** Firmware into the board and the ESCs, and the builder's own settings into both; begun anew where it was broken off. */
    public function solder(string $shelf, string $escShelf): void
    {
        $demo = $this->demo;
        $atWork = $this->world->store->flashPath().self::AT_WORK;
        if (!@touch($atWork)) {
            throw NotKept::noPlace($atWork);
        }
        $image = $this->image($shelf, strtolower("loam-$demo->version-{$demo->model->hardwareId}"));
        (new FlashFile($this->world->store->flashPath(), $demo->model->flashBytes()))->write(0, $image);
        foreach ($demo->escs as $pad => [$family, $version, $khz]) {
            $esc = $demo->physics->escs[$pad];
            $image = ShelfMaker::escImage($family, $version, $esc->layout, $esc->clockMhz, $esc->deadTimeNs, $khz);
            $name = ShelfMaker::escName($esc->maker, $family, $version, $image);
            $this->world->drive->escFlash($pad)->write(0, $this->image($escShelf, $name));
        }
        $current = Version::parse(Catalogue::CURRENT);
        $settings = Migration::between(
            $this->catalogue,
            $this->catalogue->defaults($current)->with($demo->settings),
            $current,
            Version::parse($demo->version),
        )->settings;
        $this->world->store->change(static function (WorldState $s) use ($settings, $demo): void {
            $s->kept = $settings->toArray();
            $s->keptVersion = $demo->version;
            $s->soldered = [...$demo->wires['wires'], ...$demo->soldered];
            $s->bridged = $demo->wires['bridged'];
            $s->radio = ['model' => $demo->name, 'boundTo' => $demo->name, 'models' => self::memories()] + $s->radio()->toArray();
            $s->radio = array_replace($s->radio, $demo->radio);
        });
        if ('' !== $demo->chip[0]) {
            $flash = $this->world->chipFlash();
            $flash->write(0, ShelfMaker::chipImage(...$demo->chip)->flat());
            foreach (ChipPages::of(Font::shipped(), ScryChip::FIRMWARE_END, ScryChip::PAGE_BYTES) as $address => $page) {
                $flash->write($address, $page);
            }
        }
        // Powered once, each ESC lays out its settings; then the builder's own are put in.
        $this->world->move('pack', '1');
        $this->world->store->change(static function (WorldState $s) use ($demo): void {
            foreach ($demo->escs as $pad => [,,, $settings]) {
                $esc = $s->esc($pad);
                $esc->settings = array_merge($esc->settings, $settings);
                $s->putEsc($pad, $esc);
            }
        });
        $this->world->move('pack', '0');
        unlink($atWork);
    }

    /** What became of it after its last flight. */
    public function leave(): void
    {
        $baud = $this->demo->moduleBaud;
        if (null !== $baud) {
            $this->world->store->change(static function (WorldState $s) use ($baud): void {
                $plumb = PlumbState::fromArray($s->plumb);
                $plumb->baud = $baud;
                $plumb->keep();
                $s->plumb = $plumb->toArray();
            });
        }
    }

    /** @return array<string, array<string, mixed>> the transmitter has a memory for each craft */
    private static function memories(): array
    {
        $memories = [];
        foreach (Scenario::craft() as $craft) {
            $memories[$craft->name] = $craft->memory;
        }

        return $memories;
    }

    private function image(string $folder, string $name): string
    {
        return IntelHex::parse((string) file_get_contents("$folder/$name.hex"))->flat();
    }
}
