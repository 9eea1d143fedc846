<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay\Font;

/** Letters as they lie in the flash of an overlay chip: 64 bytes each, the picture first. */
final readonly class ChipPages
{
    public const EACH = 64;
    private const LETTERS = 256;

    /** @return array<int, string> pages by address */
    public static function of(Font $font, int $from, int $pageBytes): array
    {
        $flat = '';
        for ($code = 0; $code < self::LETTERS; ++$code) {
            $flat .= str_pad($font->bytes($code), self::EACH, "\0");
        }
        $pages = [];
        foreach (str_split($flat, max(1, $pageBytes)) as $i => $page) {
            $pages[$from + $i * $pageBytes] = str_pad($page, $pageBytes, "\0");
        }

        return $pages;
    }

    /** The letters in a chip, those that show anything. */
    public static function font(string $flat): Font
    {
        $bytes = [];
        foreach (str_split($flat, self::EACH) as $code => $one) {
            $picture = substr($one, 0, (int) Font::BYTES);
            if ('' !== trim($picture, "\0") && \strlen($picture) === (int) Font::BYTES) {
                $bytes[$code] = $picture;
            }
        }

        return Font::ofBytes($bytes);
    }
}
