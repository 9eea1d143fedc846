<?php

declare(strict_types=1);

namespace Ortholex\Bench\Room;

use Ortholex\Bench\Flash\FlashFile;
use Ortholex\Bench\Overlay\ScryChip;
use Ortholex\Bench\Shelf\ShelfMaker;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Storage\NotKept;
use Ortholex\Bench\World\World;
use Ortholex\Core\Firmware\IntelHex;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Overlay\Font\ChipPages;
use Ortholex\Core\Overlay\Font\Font;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Migration\Migration;

/** Puts a craft together on its bench. */
final readonly class Assembly
{
    /** Lies beside the flash while it is being soldered. */
    private const AT_WORK = '.at-work';

    private function __construct(private World $world, private Catalogue $catalogue, private Build $build)
    {
    }

    /** What the craft is, laid on its bench. */
    public static function of(SimulatedBenches $rooms, Catalogue $catalogue, string $slug, Build $build): self
    {
        $rooms->put($slug, new Belongings($build->model, $build->physics));

        return new self(
            $rooms->world($slug) ?? throw new \LogicException("What was laid down for $slug is not there."),
            $catalogue,
            $build,
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
        $build = $this->build;
        $atWork = $this->world->store->flashPath().self::AT_WORK;
        if (!@touch($atWork)) {
            throw NotKept::noPlace($atWork);
        }
        $image = $this->image($shelf, strtolower("loam-$build->version-{$build->model->hardwareId}"));
        (new FlashFile($this->world->store->flashPath(), $build->model->flashBytes()))->write(0, $image);
        foreach ($build->escs as $pad => [$family, $version, $khz]) {
            $esc = $build->physics->escs[$pad];
            $image = ShelfMaker::escImage($family, $version, $esc->layout, $esc->clockMhz, $esc->deadTimeNs, $khz);
            $name = ShelfMaker::escName($esc->maker, $family, $version, $image);
            $this->world->drive->escFlash($pad)->write(0, $this->image($escShelf, $name));
        }
        $current = Version::parse(Catalogue::CURRENT);
        $settings = Migration::between(
            $this->catalogue,
            $this->catalogue->defaults($current)->with($build->settings),
            $current,
            Version::parse($build->version),
        )->settings;
        $this->world->store->change(static function (WorldState $s) use ($settings, $build): void {
            $s->kept = $settings->toArray();
            $s->keptVersion = $build->version;
            $s->soldered = $build->wires;
            $s->bridged = $build->bridged;
            $s->radio = ['model' => $build->name, 'boundTo' => $build->name, 'models' => $build->memories] + $s->radio()->toArray();
            $s->radio = array_replace($s->radio, $build->radio);
        });
        if ('' !== $build->chip[0]) {
            $flash = $this->world->chipFlash();
            $flash->write(0, ShelfMaker::chipImage(...$build->chip)->flat());
            foreach (ChipPages::of(Font::shipped(), ScryChip::FIRMWARE_END, ScryChip::PAGE_BYTES) as $address => $page) {
                $flash->write($address, $page);
            }
        }
        // Powered once, each ESC lays out its settings; then the builder's own are put in.
        $this->world->move('pack', '1');
        $this->world->store->change(static function (WorldState $s) use ($build): void {
            foreach ($build->escs as $pad => [,,, $settings]) {
                $esc = $s->esc($pad);
                $esc->settings = array_merge($esc->settings, $settings);
                $s->putEsc($pad, $esc);
            }
        });
        $this->world->move('pack', '0');
        unlink($atWork);
    }

    private function image(string $folder, string $name): string
    {
        return IntelHex::parse((string) file_get_contents("$folder/$name.hex"))->flat();
    }
}
