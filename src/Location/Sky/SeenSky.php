<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Sky;

use Ortholex\Core\Position\Nmea\Fix;
use Ortholex\Core\Position\Nmea\NmeaReading;
use Ortholex\Core\Position\Nmea\Satellite;
use Ortholex\Core\Position\Wander;
use Ortholex\Core\Wiring\Hearing;

/** What was heard of a position receiver by now: the last moment, and all fixes while the craft stood. Kept in the book. */
final class SeenSky
{
    /** So many fixes are kept: ten minutes of two a second. */
    private const MOST = 1200;

    public ?Hearing $heard = null;

    /** @var list<array{float, float}> latitude and longitude of each fix, deg */
    public array $places = [];

    /** @var list<Satellite> */
    public array $satellites = [];

    public int $mode = 1;
    public int $used = 0;
    public ?float $hdop = null;
    public ?float $heightM = null;
    public int $whole = 0;
    public int $broken = 0;

    /** When it was looked at last, and since when it is heard without a fix; 0 for never. */
    public float $atS = 0.0;

    public float $waitsS = 0.0;

    /** How long the first fix took. */
    public ?float $firstS = null;

    /** @var array{float, float}|null the last that it was known to be at */
    public ?array $place = null;

    /** What it was told to remember, and how often power had come and gone by then. */
    public int $toldBaud = 0;

    public int $toldMoves = 0;
    public bool $remembers = false;

    /** How often power had come and gone when it was looked at last. */
    public int $moves = -1;

    /** @param array<string, mixed> $kept as toArray() gave it */
    public static function of(array $kept): self
    {
        $sky = new self();
        $number = static fn (string $name): float => is_numeric($kept[$name] ?? null) ? (float) $kept[$name] : 0.0;
        $or = static fn (string $name): ?float => is_numeric($kept[$name] ?? null) ? (float) $kept[$name] : null;
        $list = static fn (string $name): array => \is_array($kept[$name] ?? null) ? $kept[$name] : [];
        $sky->heard = \is_string($kept['heard'] ?? null) ? Hearing::tryFrom($kept['heard']) : null;
        foreach ($list('places') as $p) {
            if (\is_array($p) && is_numeric($p[0] ?? null) && is_numeric($p[1] ?? null)) {
                $sky->places[] = [(float) $p[0], (float) $p[1]];
            }
        }
        foreach ($list('satellites') as $s) {
            if (\is_array($s) && 6 === \count($s) && \is_string($s[0] ?? null)) {
                $at = static fn (int $i): ?float => is_numeric($s[$i] ?? null) ? (float) $s[$i] : null;
                $sky->satellites[] = new Satellite($s[0], (int) $at(1), $at(2), $at(3), $at(4), true === ($s[5] ?? false));
            }
        }
        $place = array_values($list('place'));
        $sky->place = is_numeric($place[0] ?? null) && is_numeric($place[1] ?? null) ? [(float) $place[0], (float) $place[1]] : null;
        $sky->mode = (int) max(1, $number('mode'));
        $sky->used = (int) $number('used');
        $sky->hdop = $or('hdop');
        $sky->heightM = $or('height');
        $sky->whole = (int) $number('whole');
        $sky->broken = (int) $number('broken');
        $sky->atS = $number('at');
        $sky->waitsS = $number('waits');
        $sky->firstS = $or('first');
        $sky->toldBaud = (int) $number('told_baud');
        $sky->toldMoves = (int) $number('told_moves');
        $sky->remembers = true === ($kept['remembers'] ?? false);
        $sky->moves = isset($kept['moves']) ? (int) $number('moves') : -1;

        return $sky;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'heard' => $this->heard?->value,
            'places' => $this->places,
            'satellites' => array_map(
                static fn (Satellite $s): array => [
                    $s->system,
                    $s->number,
                    $s->elevationDeg,
                    $s->azimuthDeg,
                    $s->strengthDbHz,
                    $s->used,
                ],
                $this->satellites,
            ),
            'mode' => $this->mode,
            'used' => $this->used,
            'hdop' => $this->hdop,
            'height' => $this->heightM,
            'whole' => $this->whole,
            'broken' => $this->broken,
            'at' => $this->atS,
            'waits' => $this->waitsS,
            'first' => $this->firstS,
            'told_baud' => $this->toldBaud,
            'told_moves' => $this->toldMoves,
            'remembers' => $this->remembers,
            'moves' => $this->moves,
            'place' => $this->place,
        ];
    }

    /**
     * Goes on with what was heard just now.
     *
     * @param Hearing $heard  silence, rubbish, or whole sentences
     * @param int     $moves  how often power came and went
     * @param int     $baud   at which it was listened to
     */
    public function look(Hearing $heard, NmeaReading $reading, float $now, int $moves, int $baud): void
    {
        if ($moves !== $this->moves) {
            // Begun anew: what it knew is gone with its power.
            $this->places = [];
            $this->waitsS = 0.0;
            $this->firstS = null;
        }
        $this->moves = $moves;
        $this->heard = $heard;
        $this->atS = $now;
        $this->whole = $reading->whole;
        $this->broken = $reading->broken;
        $last = $reading->last();
        $this->satellites = [] === $reading->satellites && Hearing::Understood === $heard ? $this->satellites : $reading->satellites;
        $this->mode = null === $last ? 1 : $last->mode;
        $this->used = $reading->used();
        $this->hdop = $last?->hdop;
        $this->heightM = $last?->heightM;
        if (Hearing::Understood !== $heard) {
            $this->places = [];
            $this->waitsS = 0.0;

            return;
        }
        if ($this->toldBaud === $baud && $moves !== $this->toldMoves) {
            $this->remembers = true;
        }
        $this->fixed($reading->there(), $now);
    }

    public function isFixed(): bool
    {
        return Hearing::Understood === $this->heard && $this->mode > 1 && [] !== $this->places;
    }

    public function wander(): ?Wander
    {
        return Wander::of($this->places);
    }

    /** @param list<Fix> $there */
    private function fixed(array $there, float $now): void
    {
        if ([] === $there) {
            $this->waitsS = 0.0 === $this->waitsS ? $now : $this->waitsS;
            $this->places = [];
            $this->firstS = null;

            return;
        }
        $this->firstS ??= 0.0 === $this->waitsS ? null : $now - $this->waitsS;
        foreach ($there as $i => $fix) {
            if (0 === $i % max(1, intdiv(\count($there), 2))) {
                $this->places[] = [(float) $fix->latDeg, (float) $fix->lonDeg];
            }
        }
        $this->places = \array_slice($this->places, -self::MOST);
        $this->place = $this->places[\count($this->places) - 1];
    }
}
