<?php

declare(strict_types=1);

namespace Ortholex\App\Shelf;

use Ortholex\App\Storage\NotWritable;
use Ortholex\App\Storage\Trouble;
use Ortholex\Core\Esc\EscManifest;
use Ortholex\Core\Firmware\BoardIdentity;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Firmware\Fit;
use Ortholex\Core\Firmware\HexImage;
use Ortholex\Core\Firmware\IntelHex;
use Ortholex\Core\Firmware\Manifest;
use Ortholex\Core\Overlay\Chip\ChipManifest;
use Symfony\Component\Filesystem\Filesystem;

/** The stand-in for a release server: a folder of images with their manifests; beside it, images from disk. */
final class Shelf
{
    /** @var array<string, list<ShelfItem>> by the names of the files: the Workshop asks for every craft */
    private array $read = [];

    public function __construct(private readonly string $dataFolder, private readonly Trouble $trouble)
    {
    }

    public function folder(): string
    {
        return "$this->dataFolder/shelf";
    }

    public function escFolder(): string
    {
        return "$this->dataFolder/shelf-escs";
    }

    public function chipFolder(): string
    {
        return "$this->dataFolder/shelf-chips";
    }

    /** @return list<ChipShelfItem> newest version first */
    public function chipItems(): array
    {
        $items = [];
        foreach (glob($this->chipFolder().'/*.json') ?: [] as $path) {
            $data = json_decode((string) file_get_contents($path), true);
            $manifest = ChipManifest::fromArray(\is_array($data) ? $data : []);
            if (null !== $manifest) {
                $items[] = new ChipShelfItem(basename($path, '.json'), substr($path, 0, -4).'hex', $manifest);
            }
        }
        usort(
            $items,
            static fn (ChipShelfItem $a, ChipShelfItem $b): int => $b->manifest->version->compare($a->manifest->version)
                ?: $a->name <=> $b->name,
        );

        return $items;
    }

    /** @throws FirmwareError when there is none */
    public function chipItem(string $name): ChipShelfItem
    {
        foreach ($this->chipItems() as $item) {
            if ($item->name === $name) {
                return $item;
            }
        }
        throw FirmwareError::because("There is no image “{$name}” for an overlay chip on the shelf.");
    }

    /** @return list<EscShelfItem> newest version first, then by switching frequency */
    public function escItems(): array
    {
        $items = [];
        foreach (glob($this->escFolder().'/*.json') ?: [] as $path) {
            $data = json_decode((string) @file_get_contents($path), true);
            try {
                $manifest = EscManifest::fromArray(\is_array($data) ? $data : []);
            } catch (FirmwareError $e) {
                $this->meet($path, $e);
                continue;
            }
            $items[] = new EscShelfItem(basename($path, '.json'), substr($path, 0, -4).'hex', $manifest);
        }
        usort(
            $items,
            static fn (EscShelfItem $a, EscShelfItem $b): int => [$b->manifest->product, 0] <=> [$a->manifest->product, 0] ?:
            $b->manifest->version->compare($a->manifest->version) ?:
            [$a->manifest->switchingKhz, $a->name] <=> [$b->manifest->switchingKhz, $b->name],
        );

        return $items;
    }

    /** @throws FirmwareError when there is none */
    public function escItem(string $name): EscShelfItem
    {
        foreach ($this->escItems() as $item) {
            if ($item->name === $name) {
                return $item;
            }
        }
        throw FirmwareError::because("There is no ESC image “{$name}” on the shelf.");
    }

    /**
     * Takes in an ESC image from disk. Which hardware it is for cannot be seen from its bytes, and on another it burns the ESC: so it is
     * taken only where the shelf knows these very bytes, or with the manifest that vouches for them.
     *
     * @param string|null $manifest JSON, as it lies beside images of the shelf
     *
     * @throws FirmwareError naming line and reason when it is not sound, or nothing vouches for it
     */
    public function takeInEsc(string $hex, ?string $manifest): EscShelfItem
    {
        $image = IntelHex::parse($hex);
        $sha = $image->sha256();
        foreach ($this->escItems() as $item) {
            if ($item->manifest->sha256 === $sha) {
                return $item;
            }
        }
        if (null === $manifest) {
            throw FirmwareError::because(
                'nothing on the shelf vouches for these bytes, and they do not tell for which layout, clock and dead time they are. '.
                    'Bring in the JSON manifest that came with the image, too',
            );
        }
        $data = json_decode($manifest, true, 8);
        $told = EscManifest::fromArray(\is_array($data) ? $data : throw FirmwareError::because('its manifest is not JSON'));
        if ($told->sha256 !== $sha) {
            throw FirmwareError::because('its manifest is of other bytes: the SHA-256 in it is not that of the image');
        }
        $name = 'disk-'.substr($sha, 0, 16);
        $files = new Filesystem();
        // The manifest last: without it the image is not there.
        $files->dumpFile("{$this->escFolder()}/$name.hex", $hex);
        $files->dumpFile("{$this->escFolder()}/$name.json", $manifest);

        return new EscShelfItem($name, "{$this->escFolder()}/$name.hex", $told);
    }

    /** @return list<ShelfItem> newest version first, then by board */
    public function items(): array
    {
        $paths = glob($this->folder().'/*.json') ?: [];

        return $this->read[implode("\n", $paths)] ??= $this->listed($paths);
    }

    /**
     * @param list<string> $paths
     *
     * @return list<ShelfItem>
     */
    private function listed(array $paths): array
    {
        $items = [];
        foreach ($paths as $path) {
            $data = json_decode((string) @file_get_contents($path), true);
            try {
                $manifest = Manifest::fromArray(\is_array($data) ? $data : []);
            } catch (FirmwareError $e) {
                $this->meet($path, $e);
                continue;
            }
            $items[] = new ShelfItem(basename($path, '.json'), substr($path, 0, -4).'hex', $manifest);
        }
        usort(
            $items,
            static fn (ShelfItem $a, ShelfItem $b): int => null === $a->manifest || null === $b->manifest
                ? 0
                : ($b->manifest->version->compare($a->manifest->version) ?:
                [$a->manifest->board, $a->name] <=> [$b->manifest->board, $b->name]),
        );

        return $items;
    }

    private function meet(string $path, FirmwareError $e): void
    {
        $this->trouble->meet("On the shelf, $path is not a sound manifest (".rtrim($e->getMessage(), '.').'), so its image is not offered');
    }

    /**
     * An item by its name; "disk-…" are images from disk, whose bytes may be known to the shelf all the same.
     *
     * @throws FirmwareError when there is none
     */
    public function item(string $name): ShelfItem
    {
        if (1 === preg_match('~^disk-[0-9a-f]{64}$~', $name)) {
            $path = "$this->dataFolder/images/".substr($name, 5).'.hex';
            if (is_file($path)) {
                return new ShelfItem($name, $path, $this->vouchedFor(self::read($path)->sha256()));
            }
        }
        foreach ($this->items() as $item) {
            if ($item->name === $name) {
                return $item;
            }
        }
        throw FirmwareError::because("There is no image “{$name}” on the shelf.");
    }

    /**
     * Takes in a HEX file from disk.
     *
     * @throws FirmwareError naming line and reason when it is not sound
     */
    public function takeIn(string $path): ShelfItem
    {
        $image = self::read($path);
        $folder = "$this->dataFolder/images";
        if ((!is_dir($folder) && !@mkdir($folder, recursive: true)) || !is_writable($folder)) {
            throw NotWritable::folder($folder);
        }
        $sha = $image->sha256();
        rename($path, "$folder/$sha.hex");

        return new ShelfItem("disk-$sha", "$folder/$sha.hex", $this->vouchedFor($sha));
    }

    /** @throws FirmwareError */
    public static function read(string $path): HexImage
    {
        return IntelHex::ofFile($path);
    }

    /** @param list<string> $needs */
    public function fit(ShelfItem $item, ?BoardIdentity $board, array $needs): Fit
    {
        return Fit::judge(self::read($item->path), $item->manifest, $board, $needs);
    }

    private function vouchedFor(string $sha): ?Manifest
    {
        foreach ($this->items() as $item) {
            if ($item->manifest?->sha256 === $sha) {
                return $item->manifest;
            }
        }

        return null;
    }
}
