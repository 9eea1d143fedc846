<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay\Chip;

use Ortholex\Core\Overlay\Layout;
use Ortholex\Core\Overlay\OverlayError;
use Ortholex\Core\Overlay\OverlayFlaw;
use Ortholex\Core\Overlay\OverlayItem;
use Ortholex\Core\Overlay\Raster;
use Ortholex\Core\Radio\Protocol\Crc8;

/** A layout as the chip Scry keeps it: raster, count, then item, column and row of each, a byte each, and CRC-8 (0xD5) over all. */
final readonly class LayoutBytes
{
    public static function encode(Layout $layout): string
    {
        $bytes = \chr($layout->raster->code()).\chr(\count($layout->at));
        foreach ($layout->items() as $item) {
            $bytes .= \chr($item->code()).\chr($layout->at[$item->value][0]).\chr($layout->at[$item->value][1]);
        }

        return $bytes.\chr(Crc8::of($bytes));
    }

    /** @throws OverlayError for bytes that are no layout */
    public static function decode(string $bytes): Layout
    {
        $n = \strlen($bytes);
        if ($n < 3 || Crc8::of(substr($bytes, 0, -1)) !== \ord($bytes[$n - 1]) || $n !== 3 + 3 * \ord($bytes[1])) {
            throw OverlayError::of(OverlayFlaw::BadBytes, bytes: $n);
        }
        $raster = Raster::cases()[\ord($bytes[0])] ?? throw OverlayError::of(OverlayFlaw::BadBytes, bytes: $n);
        $layout = Layout::empty($raster);
        for ($i = 2; $i + 3 < $n; $i += 3) {
            $item = OverlayItem::ofCode(\ord($bytes[$i])) ?? throw OverlayError::of(OverlayFlaw::BadBytes, bytes: $n);
            $layout = $layout->with($item, \ord($bytes[$i + 1]), \ord($bytes[$i + 2]));
        }

        return $layout;
    }
}
