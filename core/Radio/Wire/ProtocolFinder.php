<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Wire;

use Ortholex\Core\Position\NmeaScan;
use Ortholex\Core\Radio\Protocol\FrameScan;
use Ortholex\Core\Radio\Protocol\Line;
use Ortholex\Core\Radio\Protocol\Parity;
use Ortholex\Core\Radio\Protocol\Protocol;

/**
 * Which protocol speaks on a wire: every rate and both polarities are listened to, and whole frames are counted.
 *
 * Nothing but whole frames decides: what no reading makes sense of is unknown, and what never moves is silent.
 */
final readonly class ProtocolFinder
{
    /** Rates at which receivers and position receivers speak. */
    public const BAUDS = [4800, 9600, 19_200, 38_400, 57_600, 115_200, 230_400, 400_000, 420_000, 460_800, 921_600];

    /** Two whole frames: one could be chance where the check is weak. */
    private const LEAST_FRAMES = 2;

    /** Fewer changes than a single byte has are a cable that was touched. */
    private const LEAST_EDGES = 4;

    /** Pulses shorter than this share of a bit are none. */
    private const SPARK = 0.3;

    public static function of(Edges $edges): Identification
    {
        if ($edges->count() < self::LEAST_EDGES) {
            return Identification::none(Speaker::Silent);
        }
        if (PulseTrain::isLikely($edges)) {
            $train = PulseTrain::of($edges);
            if (\count($train->frames) >= self::LEAST_FRAMES) {
                return Identification::receiver(Speaker::Ppm, null, $train->down, $train->frames);
            }
        }
        $best = null;
        foreach ([false, true] as $inverted) {
            foreach (self::BAUDS as $baud) {
                $best = self::better($best, self::crsf($edges, new Line($baud, Parity::None, 1, $inverted)));
                $best = self::better($best, self::nmea($edges, new Line($baud, Parity::None, 1, $inverted)));
            }
            $sbus = Protocol::Sbus->line();
            if (null !== $sbus) {
                $best = self::better($best, self::sbus($edges, $sbus->at($sbus->baud, $inverted)));
            }
        }

        return null === $best ? Identification::none(Speaker::Unknown) : $best[0];
    }

    /**
     * @param array{Identification, float}|null $a
     * @param array{Identification, float}|null $b
     *
     * @return array{Identification, float}|null the one with more whole frames; of as many, whose bits fit its rate better
     */
    private static function better(?array $a, ?array $b): ?array
    {
        if (null === $a || null === $b) {
            return $a ?? $b;
        }
        $order = [$b[0]->frames, -$b[1]] <=> [$a[0]->frames, -$a[1]];

        return $order > 0 ? $b : $a;
    }

    /** @return array{Identification, float}|null with how far what was sent is from the rate, as a share */
    private static function sbus(Edges $edges, Line $line): ?array
    {
        $read = SerialReader::of($edges->without((self::SPARK * 1e6) / $line->baud), $line);
        $frames = [];
        foreach ($read->bursts($line) as [$bytes, $at]) {
            foreach (FrameScan::of($bytes, Protocol::Sbus)->frames as [$end, $frame]) {
                $frames[] = [$at + 1e6 * $line->seconds($end + 1), $frame];
            }
        }

        return \count($frames) < self::LEAST_FRAMES
            ? null
            : [Identification::receiver(Speaker::Sbus, (int) $line->baud, $line->inverted, $frames), self::misfit($read, $line)];
    }

    /** @return array{Identification, float}|null */
    private static function crsf(Edges $edges, Line $line): ?array
    {
        $read = SerialReader::of($edges->without((self::SPARK * 1e6) / $line->baud), $line);
        if (!str_contains($read->bytes, "\xC8")) {
            return null;
        }
        $scan = FrameScan::of($read->bytes, Protocol::Crsf);
        if ($scan->whole < self::LEAST_FRAMES) {
            return null;
        }
        $frames = [];
        foreach ($scan->frames as [$end, $frame]) {
            $frames[] = [$read->endsUs[$end], $frame];
        }

        return [
            Identification::receiver(Speaker::Crsf, (int) $line->baud, $line->inverted, $frames, $scan->link, $scan->whole),
            self::misfit($read, $line),
        ];
    }

    /** @return array{Identification, float}|null */
    private static function nmea(Edges $edges, Line $line): ?array
    {
        $read = SerialReader::of($edges->without((self::SPARK * 1e6) / $line->baud), $line);
        $whole = str_contains($read->bytes, '$') ? NmeaScan::of($read->bytes)->whole : 0;

        return 0 === $whole
            ? null
            : [Identification::position((int) $line->baud, $line->inverted, $whole), self::misfit($read, $line)];
    }

    /** How far the rate that was really sent lies from this one, as a share of it. */
    private static function misfit(SerialReader $read, Line $line): float
    {
        $sent = $read->baud($line);

        return null === $sent ? 1.0 : abs($sent - $line->baud) / $line->baud;
    }
}
