<?php

declare(strict_types=1);

namespace Ortholex\App\Overlay;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Overlay\Font\Font;
use Ortholex\Core\Overlay\OverlayError;
use Symfony\Component\Filesystem\Filesystem;

/** The letters of a craft's overlay: the set that ships, or another that was read. */
final readonly class Fonts
{
    public function __construct(private string $dataFolder)
    {
    }

    public function of(Craft $craft): Font
    {
        $text = @file_get_contents($this->path($craft));
        if (false === $text) {
            return Font::shipped();
        }
        try {
            return Font::read($text);
        } catch (OverlayError) {
            return Font::shipped();
        }
    }

    public function isShipped(Craft $craft): bool
    {
        return !is_file($this->path($craft));
    }

    /** @throws OverlayError naming the line that cannot be read; nothing is changed then */
    public function take(Craft $craft, string $text): Font
    {
        $font = Font::read($text);
        (new Filesystem())->dumpFile($this->path($craft), $font->write());

        return $font;
    }

    public function ship(Craft $craft): void
    {
        (new Filesystem())->remove($this->path($craft));
    }

    private function path(Craft $craft): string
    {
        return "$this->dataFolder/fonts/$craft->slug.txt";
    }
}
