<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay;

/** What stands in an item's cells: rows of text as wide as it is. The horizon is drawn from `-` and `+`. */
final readonly class ItemText
{
    private const ARROWS = '^>v<';

    /** @return list<string> rows, each as long as the item is wide */
    public static function of(OverlayItem $item, OverlayReadings $r): array
    {
        [$wide] = $item->size();
        if (OverlayItem::Horizon === $item) {
            return self::horizon($r->rollDeg, $r->pitchDeg);
        }
        $text = match ($item) {
            OverlayItem::PackVoltage => self::figure('%4.1fV', $r->packV),
            OverlayItem::CellVoltage => self::figure('%4.2fV', null === $r->packV ? null : $r->packV / max(1, $r->cells)),
            OverlayItem::Current => self::figure('%5.1fA', $r->currentA),
            OverlayItem::ChargeUsed => self::figure('%4.2fAh', $r->usedAh),
            OverlayItem::MinutesLeft => self::figure('%4.1fmin', $r->minutesLeft),
            OverlayItem::FlightTime => \sprintf('%02d:%02d', (int) ($r->flightS / 60) % 100, (int) $r->flightS % 60),
            OverlayItem::LinkQuality => self::figure('L%3.0f%%', $r->linkPct),
            OverlayItem::SignalStrength => self::figure('%4.0fdBm', $r->signalDbm),
            OverlayItem::Throttle => self::figure('T%3.0f%%', $r->throttlePct),
            OverlayItem::Height => self::figure('H%4.0fm', $r->heightM),
            OverlayItem::ClimbRate => self::figure('%+4.1fm/s', $r->climbMs),
            OverlayItem::GroundSpeed => self::figure('%4.1fm/s', $r->speedMs),
            OverlayItem::HomeDistance => self::figure('%5.0fm', $r->homeM),
            OverlayItem::HomeDirection => null === $r->homeDeg ? '--' : 'o'.self::arrow($r->homeDeg),
            OverlayItem::Latitude => null === $r->latDeg ? '---' : \sprintf('%s%.6f', $r->latDeg < 0 ? 'S' : 'N', abs($r->latDeg)),
            OverlayItem::Longitude => null === $r->lonDeg ? '---' : \sprintf('%s%.6f', $r->lonDeg < 0 ? 'W' : 'E', abs($r->lonDeg)),
            OverlayItem::Satellites => null === $r->satellites ? 'S--' : \sprintf('S%2d', $r->satellites),
            OverlayItem::Heading => self::figure('%03.0fd', null === $r->headingDeg ? null : fmod($r->headingDeg + 360, 360)),
            OverlayItem::CameraTilt => self::figure('C%+3.0f', $r->cameraDeg),
            OverlayItem::VideoFrequency => self::figure('%4.0fMHz', $r->mhz),
            OverlayItem::CraftName => strtoupper($r->name),
            OverlayItem::Modes => strtoupper($r->modes),
            OverlayItem::Warnings => strtoupper($r->warnings[0] ?? ''),
        };

        return [str_pad(substr($text, 0, $wide), $wide)];
    }

    private static function figure(string $format, ?float $value): string
    {
        return null === $value ? '---' : \sprintf($format, $value);
    }

    /** @return list<string> */
    private static function horizon(float $roll, float $pitch): array
    {
        [$wide, $high] = OverlayItem::Horizon->size();
        $cells = array_fill(0, $wide * $high, ' ');
        for ($c = 0; $c < $wide; ++$c) {
            // A cell is half as high again as it is wide.
            $row = (int) round(($high - 1) / 2 + $pitch / 12 - (($c - ($wide - 1) / 2) * tan(deg2rad(max(-75.0, min(75.0, $roll))))) / 1.5);
            if ($row >= 0 && $row < $high) {
                $cells[$row * $wide + $c] = '-';
            }
        }
        $cells[intdiv($high, 2) * $wide + intdiv($wide, 2)] = '+';

        return str_split(implode('', $cells), max(1, $wide));
    }

    /** @param float $deg to the right of the nose */
    private static function arrow(float $deg): string
    {
        return self::ARROWS[(int) round(fmod($deg + 720, 360) / 90) % 4];
    }
}
