<?php

declare(strict_types=1);

namespace Ortholex\Bench\Wiring;

use Ortholex\Core\Position\NmeaScan;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Heard;
use Ortholex\Core\Wiring\Pad;
use Ortholex\Core\Wiring\PadKind;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\Wiring\PartRole;

/** The parts soldered to a board: who has power, who speaks on which UART, and what arrives there. */
final readonly class SolderedParts
{
    /** @param list<array{string, string}> $wires pin of a part, pad of the board */
    public function __construct(private BoardPads $board, private array $wires, private bool $usb, private bool $pack)
    {
    }

    /** Bytes that a quarter of a second brings to a UART, as it samples them; '' for silence. */
    public function heard(string $uart, float $baud, bool $inverted, float $now): string
    {
        $pads = $this->board->pads();
        $arrived = '';
        foreach (Part::all() as $part) {
            $to = [];
            foreach ($this->wires as [$pin, $pad]) {
                if (null !== $part->pin($pin) && isset($pads[$pad])) {
                    $to[explode('.', $pin)[1]] = $pads[$pad];
                }
            }
            $line =
                isset($to['one']) && PadKind::Transmits === $to['one']->kind
                    ? $to['one']
                    : (isset($to['tx']) && PadKind::Receives === $to['tx']->kind
                        ? $to['tx']
                        : null);
            if (
                null === $line
                || $line->uart !== $uart
                || !isset($to['gnd'])
                || PadKind::Ground !== $to['gnd']->kind
                || !$this->powered($part, $to['v'] ?? null)
            ) {
                continue;
            }
            $arrived .= SerialLine::received(self::says($part, $now), $part->baud, $baud, $part->inverted !== $inverted);
        }

        return $arrived;
    }

    private function powered(Part $part, ?Pad $rail): bool
    {
        if (null === $part->pin("$part->id.v")) {
            return true;
        }

        return null !== $rail
            && PadKind::Power === $rail->kind
            && $rail->volts >= $part->leastV - 1e-6
            && $rail->volts <= $part->mostV + 1e-6
            && ($this->pack || ($this->usb && $rail->aliveOnUsb));
    }

    private static function says(Part $part, float $now): string
    {
        if (PartRole::Gps === $part->role) {
            $second = (int) $now % 60;
            $out = '';
            foreach (['GPRMC,1200%02d.00,V,,,,,,,231126,,,N', 'GPGGA,1200%02d.00,,,,,0,00,99.99,,,,,,'] as $sentence) {
                $body = \sprintf($sentence, $second);
                $out .= '$'.$body.'*'.NmeaScan::checksum($body)."\r\n";
            }

            return $out;
        }
        $out = '';
        for ($i = 0; $i < 6; ++$i) {
            $out .= Heard::frame(substr(hash('sha256', "$part->id/$i/".(int) (4 * $now), true), 0, 12));
        }

        return $out;
    }
}
