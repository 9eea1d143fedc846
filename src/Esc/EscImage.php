<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Ortholex\App\Shelf\EscShelfItem;
use Ortholex\Core\Drive\SwitchingTrade;
use Ortholex\Core\Firmware\Fit;
use Ortholex\Core\Firmware\Version;

/** One release at one switching frequency: for each ESC the image made for its hardware, and how it fits. */
final readonly class EscImage
{
    /**
     * @param array<string, EscShelfItem> $items by place: the image that comes nearest to its hardware
     * @param array<string, Fit>          $fits  by place
     * @param int                         $steps of output in a period, on the slowest processor of the ESCs there
     */
    public function __construct(
        public string $product,
        public Version $version,
        public int $switchingKhz,
        public string $date,
        public string $notes,
        public array $items,
        public array $fits,
        public SwitchingTrade $trade,
        public float $flightTimePct,
        public int $steps,
        public bool $runsNow,
    ) {
    }

    public function key(): string
    {
        return self::keyOf($this->product, $this->version, $this->switchingKhz);
    }

    public static function keyOf(string $product, Version $version, int $khz): string
    {
        return strtolower("$product-{$version->toString()}-$khz");
    }

    /** @return list<string> places it can be written to */
    public function writable(): array
    {
        return array_keys(array_filter($this->fits, static fn (Fit $f): bool => $f->mayBeWritten()));
    }
}
