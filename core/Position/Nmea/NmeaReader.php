<?php

declare(strict_types=1);

namespace Ortholex\Core\Position\Nmea;

use Ortholex\Core\Position\LocalMetres;

/**
 * Reads NMEA 0183 as it comes: GGA, RMC, GSA, GSV, VTG of any talker; what is torn is counted, what is unknown skipped.
 *
 * A checksum by exclusive or lets some errors pass. So a moment counts only where GGA and RMC agree, and a place that could only be
 * reached faster than anything flies only once another moment bears it out.
 */
final class NmeaReader
{
    /** GGA and RMC may differ by their last digits, m. */
    private const AGREE_M = 30.0;

    private const FASTEST_MS = 150.0;

    /** After a longer silence a place is borne out by the next one; a torn time must not excuse a leap. */
    private const LONGEST_S = 3.0;

    /** Satellite systems by the number that GSA ends with. */
    private const SYSTEMS = ['1' => 'GP', '2' => 'GL', '3' => 'GA', '4' => 'GB', '5' => 'GQ'];

    private const LONGEST_LINE = 4096;
    private const DAY_S = 86_400.0;

    private string $rest = '';
    private int $whole = 0;
    private int $broken = 0;
    private int $unknown = 0;

    /** @var list<Fix> */
    private array $fixes = [];

    private float $days = 0.0;
    private ?Fix $doubted = null;
    private ?Fix $good = null;

    /**
     * @var array{time: ?float, gga: ?array{?float, ?float, ?float, int, ?float}, rmc: ?array{?float, ?float, ?float, ?float}, mode: ?int}
     */
    private array $now = ['time' => null, 'gga' => null, 'rmc' => null, 'mode' => null];

    private ?float $hdop = null;

    /** @var array<string, array<int, true>> numbers used, by system; '' where it is not told */
    private array $used = [];

    /** @var array<string, array<int, Satellite>> by talker */
    private array $seen = [];

    /** @var array<string, array{int, array<int, Satellite>}> parts of a round that came, by talker */
    private array $parts = [];

    public function feed(string $bytes): void
    {
        $lines = preg_split('~\r\n|\n|\r~', $this->rest.$bytes) ?: [''];
        $this->rest = (string) array_pop($lines);
        if (\strlen($this->rest) > self::LONGEST_LINE) {
            $this->rest = '';
            ++$this->broken;
        }
        foreach ($lines as $line) {
            $this->line($line);
        }
    }

    /** What was read so far, with what stands behind the last line end. */
    public function reading(): NmeaReading
    {
        if ('' !== $this->rest) {
            [$last, $this->rest] = [$this->rest, ''];
            null === Sentence::in($last) ? null : $this->line($last);
        }
        $this->close();
        if (null !== $this->doubted) {
            // A single moment, with nothing torn beside it, has nobody to bear it out.
            null === $this->good && 0 === $this->broken ? ($this->fixes[] = $this->doubted) : ++$this->broken;
            $this->doubted = null;
        }
        $satellites = [];
        foreach ($this->seen as $talker => $of) {
            foreach ($of as $satellite) {
                $satellites[] = $satellite->used(
                    isset($this->used[$talker][$satellite->number]) || isset($this->used[''][$satellite->number]),
                );
            }
        }

        return new NmeaReading($this->fixes, $satellites, $this->whole, $this->broken, $this->unknown);
    }

    private function line(string $line): void
    {
        if (!str_contains($line, '$')) {
            return;
        }
        $sentence = Sentence::in($line);
        if (null === $sentence) {
            ++$this->broken;

            return;
        }
        $known = 'P' === $sentence->talker ? null : match ($sentence->type) {
            'GGA' => $this->gga($sentence),
            'RMC' => $this->rmc($sentence),
            'GSA' => $this->gsa($sentence),
            'GSV' => $this->gsv($sentence),
            'VTG' => 8 <= \count($sentence->fields),
            default => null,
        };
        null === $known ? ++$this->unknown : ($known ? ++$this->whole : ++$this->broken);
    }

    private function gga(Sentence $s): bool
    {
        $time = $s->timeS(0);
        $quality = $s->number(5);
        if (\count($s->fields) < 9 || null === $quality || ('' !== $s->text(0) && null === $time)) {
            return false;
        }
        [$lat, $lon] = [$s->degrees(1, 'NS', 90), $s->degrees(3, 'EW', 180)];
        $used = (int) ($s->number(6) ?? 0);
        if ($quality > 0 && (null === $lat || null === $lon || $used > 99)) {
            return false;
        }
        $this->moment($time);
        $there = $quality > 0;
        $this->now['gga'] = [$there ? $lat : null, $there ? $lon : null, $s->number(8), $used, $s->number(7)];

        return true;
    }

    private function rmc(Sentence $s): bool
    {
        $time = $s->timeS(0);
        $valid = 'A' === $s->text(1);
        if (\count($s->fields) < 9 || !\in_array($s->text(1), ['A', 'V'], true) || ('' !== $s->text(0) && null === $time)) {
            return false;
        }
        [$lat, $lon] = [$s->degrees(2, 'NS', 90), $s->degrees(4, 'EW', 180)];
        if ($valid && (null === $lat || null === $lon)) {
            return false;
        }
        $this->moment($time);
        $knots = $s->number(6);
        $this->now['rmc'] = [$valid ? $lat : null, $valid ? $lon : null, null === $knots ? null : $knots * 0.514444, $s->number(7)];

        return true;
    }

    private function gsa(Sentence $s): bool
    {
        $mode = $s->number(1);
        if (\count($s->fields) < 17 || !\in_array($mode, [1.0, 2.0, 3.0], true)) {
            return false;
        }
        $this->now['mode'] = max((int) $mode, $this->now['mode'] ?? 1);
        $this->hdop = $s->number(15) ?? $this->hdop;
        $system = 'GN' === $s->talker ? self::SYSTEMS[$s->text(17)] ?? '' : $s->talker;
        $this->used[$system] = [];
        foreach (\array_slice($s->fields, 2, 12) as $number) {
            if (1 === preg_match('~^\d{1,3}$~', $number)) {
                $this->used[$system][(int) $number] = true;
            }
        }

        return true;
    }

    private function gsv(Sentence $s): bool
    {
        [$of, $part] = [$s->number(0), $s->number(1)];
        if (null === $of || null === $part || $part < 1 || $of < $part || \count($s->fields) < 3) {
            return false;
        }
        [$came, $satellites] = 1 === (int) $part ? [0, []] : $this->parts[$s->talker] ?? [-1, []];
        if ($came !== (int) $part - 1) {
            unset($this->parts[$s->talker]);

            return true;
        }
        for ($i = 3; $i + 3 < \count($s->fields); $i += 4) {
            $number = $s->number($i);
            $strength = $s->number($i + 3);
            if (null !== $number) {
                // Newer receivers tell a satellite once for each of its signals: the strongest counts.
                $before = $satellites[(int) $number]->strengthDbHz ?? null;
                $best = null === $strength || ($before ?? -1.0) > $strength ? $before : $strength;
                $satellites[(int) $number] = new Satellite($s->talker, (int) $number, $s->number($i + 1), $s->number($i + 2), $best);
            }
        }
        $this->parts[$s->talker] = [(int) $part, $satellites];
        if ($part === $of) {
            $this->seen[$s->talker] = $satellites;
        }

        return true;
    }

    /** A sentence with another time begins another moment. */
    private function moment(?float $time): void
    {
        if (null !== $this->now['time'] && $time !== $this->now['time']) {
            $this->close();
        }
        $this->now['time'] ??= $time;
    }

    private function close(): void
    {
        ['time' => $time, 'gga' => $gga, 'rmc' => $rmc, 'mode' => $mode] = $this->now;
        $this->now = ['time' => null, 'gga' => null, 'rmc' => null, 'mode' => null];
        if (null === $time || (null === $gga && null === $rmc)) {
            return;
        }
        $last = [] === $this->fixes ? null : $this->fixes[\count($this->fixes) - 1]->timeS;
        if (null !== $last && $time + $this->days < $last - self::DAY_S / 2) {
            $this->days += self::DAY_S;
        }
        [$lat, $lon] = [$gga[0] ?? $rmc[0] ?? null, $gga[1] ?? $rmc[1] ?? null];
        if (null !== $gga && null !== $rmc && !self::agree($gga[0], $gga[1], $rmc[0], $rmc[1])) {
            ++$this->broken;

            return;
        }
        $mode ??= null === $lat ? 1 : (null === ($gga[2] ?? null) ? 2 : 3);
        $this->add(new Fix(
            $time + $this->days,
            $lat,
            $lon,
            null === $lat ? null : $gga[2] ?? null,
            null === $lat ? 1 : max(2, $mode),
            $gga[3] ?? 0,
            $gga[4] ?? $this->hdop,
            $rmc[2] ?? null,
            $rmc[3] ?? null,
        ));
    }

    /** A leap waits until a second moment bears it out. */
    private function add(Fix $fix): void
    {
        if (!$fix->isThere()) {
            $this->fixes[] = $fix;

            return;
        }
        $before = $this->good;
        if (null === $before && null === $this->doubted) {
            $this->doubted = $fix;

            return;
        }
        if (null !== $this->doubted && self::reaches($this->doubted, $fix)) {
            array_push($this->fixes, $this->doubted, $fix);
            [$this->good, $this->doubted] = [$fix, null];
        } elseif (null !== $before && self::reaches($before, $fix)) {
            $this->fixes[] = $fix;
            $this->broken += null === $this->doubted ? 0 : 1;
            [$this->good, $this->doubted] = [$fix, null];
        } else {
            $this->broken += null === $this->doubted ? 0 : 1;
            $this->doubted = $fix;
        }
    }

    private static function reaches(Fix $from, Fix $to): bool
    {
        [$north, $east] = LocalMetres::about((float) $from->latDeg, (float) $from->lonDeg)->of((float) $to->latDeg, (float) $to->lonDeg);

        return hypot($north, $east) <= self::AGREE_M + self::FASTEST_MS * max(0.0, min(self::LONGEST_S, $to->timeS - $from->timeS));
    }

    private static function agree(?float $lat, ?float $lon, ?float $lat2, ?float $lon2): bool
    {
        if (null === $lat || null === $lon || null === $lat2 || null === $lon2) {
            return null === $lat && null === $lat2;
        }

        return hypot(...LocalMetres::about($lat, $lon)->of($lat2, $lon2)) <= self::AGREE_M;
    }
}
