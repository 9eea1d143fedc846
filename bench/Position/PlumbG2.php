<?php

declare(strict_types=1);

namespace Ortholex\Bench\Position;

use Ortholex\Bench\Sky\Marsh;
use Ortholex\Bench\Sky\Sky;
use Ortholex\Bench\Time\Pace;
use Ortholex\Core\Position\Nmea\Satellite;
use Ortholex\Core\Position\NmeaScan;

/**
 * A position receiver: NMEA 0183 over a time, reckoned from its state and the clock alone, so that whoever asks twice hears the same; and
 * what it makes of sentences of its maker. What does not fit through its line in time is cut off.
 */
final readonly class PlumbG2
{
    public const BAUDS = [4800, 9600, 19200, 38400, 57600, 115200, 230400];
    private const RATES = [1, 2, 5, 10];
    private const SKIES = ['GPS' => ['GP'], 'GALILEO' => ['GA'], 'BOTH' => ['GP', 'GA']];

    /** From power, or from the open sky, to the first fix: at least and at most, s. */
    private const FIRST_S = [24.0, 36.0];

    /** So strong a signal is used, dB-Hz. */
    private const USED_DB = 27.0;

    /** Error in the plane at a HDOP of 1, in each direction, m. */
    private const ERROR_M = 0.7;

    /** How long each part of the error lasts, s. */
    private const LASTS = [41.0, 67.0, 113.0, 197.0, 331.0, 570.0];

    private const M_PER_DEG = 111_320.0;

    public function __construct(private PlumbState $state, private bool $outdoors, private Pace $pace, private Sky $sky = new Sky())
    {
    }

    public function baud(): int
    {
        return $this->state->baud;
    }

    /** Whether it knows where it is. */
    public function knows(float $t): bool
    {
        return $this->outdoors && $t >= $this->firstAt() && \count($this->used($t)) >= 4;
    }

    /** @return list<Satellite> in view, those used marked */
    public function satellites(float $t): array
    {
        $fix = $this->outdoors && $t >= $this->firstAt();
        // They are found one after the other.
        $found = $this->pace->of(self::FIRST_S[0]) <= 0 ? 1.0 : ($t - $this->since()) / $this->pace->of(self::FIRST_S[0]);
        $all = $this->sky->at($t, $this->outdoors, self::SKIES[$this->state->sky] ?? ['GP']);
        $seen = \array_slice($all, 0, (int) ceil(max(0.0, min(1.0, $found)) * \count($all)));

        return array_map(static fn (Satellite $s): Satellite => $s->used($fix && ($s->strengthDbHz ?? 0.0) >= self::USED_DB), $seen);
    }

    public function hdop(float $t): ?float
    {
        return Sky::hdop($this->used($t));
    }

    /** @return array{float, float} north and east of where it is, m: its slow error */
    public function error(float $t): array
    {
        $spread = self::ERROR_M * ($this->hdop($t) ?? 1.0) * sqrt(2 / \count(self::LASTS));
        $north = $east = 0.0;
        foreach (self::LASTS as $i => $lasts) {
            $north += $spread * sin(2 * \M_PI * $t / $lasts + 1.7 * $i);
            $east += $spread * sin(2 * \M_PI * $t / ($lasts * 1.13) + 2.3 * $i + 1.0);
        }

        return [$north, $east];
    }

    /** @return array{float, float} latitude and longitude that it tells, deg */
    public function place(float $t): array
    {
        [$north, $east] = $this->error($t);

        return [Marsh::LAT_DEG + $north / self::M_PER_DEG, Marsh::LON_DEG + $east / (self::M_PER_DEG * cos(deg2rad(Marsh::LAT_DEG)))];
    }

    /** Everything that goes over its line from one time to another. */
    public function says(float $from, float $to): string
    {
        $from = max($from, $this->state->poweredAt);
        $rate = max(1, $this->state->rate);
        $most = (int) floor($this->state->baud / 10 / $rate);
        if ($from > $to) {
            return '';
        }
        $out = '';
        for ($k = (int) ceil($from * $rate); $k / $rate < $to; ++$k) {
            // What is not out when the next moment comes is dropped.
            $out .= substr($this->moment($k / $rate, 0 === $k % $rate), 0, $most);
        }

        return $out;
    }

    /** What it answers to what it was sent at its own rate; its state goes with it. */
    public function hears(string $bytes): string
    {
        $out = '';
        preg_match_all('~\$(PPLG,[A-Z0-9,]*)\*([0-9A-Fa-f]{2})~', $bytes, $told, \PREG_SET_ORDER);
        foreach ($told as [, $body, $sum]) {
            if (NmeaScan::checksum($body) === strtoupper($sum)) {
                $out .= self::sentence($this->obey(explode(',', $body)));
            }
        }

        return $out;
    }

    /** @param list<string> $words */
    private function obey(array $words): string
    {
        $s = $this->state;
        [$verb, $what] = [$words[1] ?? '', $words[2] ?? ''];
        switch ($verb) {
            case 'BAUD':
                if (!\in_array((int) $what, self::BAUDS, true)) {
                    return 'PPLG,NO,BAUD';
                }
                $s->baud = (int) $what;

                return 'PPLG,OK,BAUD';
            case 'RATE':
                if (!\in_array((int) $what, self::RATES, true)) {
                    return 'PPLG,NO,RATE';
                }
                $s->rate = (int) $what;

                return 'PPLG,OK,RATE';
            case 'SKY':
                if (!isset(self::SKIES[$what])) {
                    return 'PPLG,NO,SKY';
                }
                $s->sky = $what;

                return 'PPLG,OK,SKY';
            case 'KEEP':
                $s->keep();

                return 'PPLG,OK,KEEP';
            case 'ASK':
                $is = [$s->baud, $s->rate, $s->sky] === array_values($s->kept) ? 'KEPT' : 'NOTKEPT';

                return "PPLG,IS,$s->baud,$s->rate,$s->sky,$is";
            default:
                return 'PPLG,NO,'.$verb;
        }
    }

    private function since(): float
    {
        return max($this->state->poweredAt, $this->state->outdoorsAt);
    }

    private function firstAt(): float
    {
        $even = hexdec(substr(hash('xxh64', (string) round($this->since(), 1)), 0, 8)) / 0xFFFFFFFF;

        return $this->since() + $this->pace->of(self::FIRST_S[0] + $even * (self::FIRST_S[1] - self::FIRST_S[0]));
    }

    /** @return list<Satellite> */
    private function used(float $t): array
    {
        return array_values(array_filter($this->satellites($t), static fn (Satellite $s): bool => $s->used));
    }

    private function moment(float $t, bool $whole): string
    {
        $seen = $this->satellites($t);
        $used = array_values(array_filter($seen, static fn (Satellite $s): bool => $s->used));
        $hdop = Sky::hdop($used);
        $fix = null !== $hdop && $this->outdoors;
        $talker = 'BOTH' === $this->state->sky ? 'GN' : ('GPS' === $this->state->sky ? 'GP' : 'GA');
        $clock = gmdate('His', (int) floor($t)).\sprintf('.%02d', (int) round(100 * fmod($t, 1.0)) % 100);
        $date = gmdate('dmy', (int) floor($t));
        [$lat, $lon] = $this->place($t);
        $where = $fix ? self::angle($lat, 'N', 'S', 2).','.self::angle($lon, 'E', 'W', 3) : ',,,';
        [$knots, $course] = $this->drift($t);
        $moves = $fix ? \sprintf('%.2f,%.1f', $knots, $course) : ',';
        $out = self::sentence(
            \sprintf('%sRMC,%s,%s,%s,%s,%s,,,%s', $talker, $clock, $fix ? 'A' : 'V', $where, $moves, $date, $fix ? 'A' : 'N'),
        );
        $quality = $fix ? \sprintf(
            '1,%02d,%.2f,%.1f,M,52.1,M,,',
            \count($used),
            $hdop,
            Marsh::HEIGHT_M + 0.8 * sin($t / 53),
        ) : '0,00,,,M,,M,,';
        $out .= self::sentence("{$talker}GGA,$clock,$where,$quality");
        $out .= self::sentence(
            $fix ? \sprintf('%sVTG,%.1f,T,,M,%.2f,N,%.2f,K,A', $talker, $course, $knots, 1.852 * $knots) : "{$talker}VTG,,T,,M,,N,,K,N",
        );
        if ($whole) {
            $out .= $this->tellsOfSatellites($talker, $seen, $used, $fix ? $hdop : null);
        }

        return $out;
    }

    /**
     * @param list<Satellite> $seen
     * @param list<Satellite> $used
     */
    private function tellsOfSatellites(string $talker, array $seen, array $used, ?float $hdop): string
    {
        $out = '';
        foreach (self::SKIES[$this->state->sky] ?? ['GP'] as $system) {
            $of = static fn (Satellite $s): bool => $s->system === $system;
            $mine = \array_slice(array_filter($used, $of), 0, 12);
            $numbers = array_map(static fn (Satellite $s): string => \sprintf('%02d', $s->number), $mine);
            $dop = null === $hdop ? '99.99,99.99,99.99' : \sprintf('%.2f,%.2f,%.2f', 1.9 * $hdop, $hdop, 1.6 * $hdop);
            $out .= self::sentence(
                \sprintf(
                    '%sGSA,A,%d,%s,%s,%d',
                    $talker,
                    null === $hdop ? 1 : 3,
                    implode(',', [...$numbers, ...array_fill(0, 12 - \count($numbers), '')]),
                    $dop,
                    'GP' === $system ? 1 : 3,
                ),
            );
            $out .= self::inView($system, array_values(array_filter($seen, $of)));
        }

        return $out;
    }

    /** @param list<Satellite> $seen */
    private static function inView(string $system, array $seen): string
    {
        $out = '';
        $fours = [] === $seen ? [[]] : array_chunk($seen, 4);
        foreach ($fours as $i => $four) {
            $body = \sprintf('%sGSV,%d,%d,%02d', $system, \count($fours), $i + 1, \count($seen));
            foreach ($four as $s) {
                $body .= \sprintf(
                    ',%02d,%02d,%03d,%s',
                    $s->number,
                    $s->elevationDeg,
                    (int) $s->azimuthDeg % 360,
                    null === $s->strengthDbHz ? '' : \sprintf('%02d', $s->strengthDbHz),
                );
            }
            $out .= self::sentence($body);
        }

        return $out;
    }

    /** @return array{float, float} knots and course: how its error moves */
    private function drift(float $t): array
    {
        [$n1, $e1] = $this->error($t - 0.5);
        [$n2, $e2] = $this->error($t + 0.5);

        return [hypot($n2 - $n1, $e2 - $e1) / 0.514444, fmod(rad2deg(atan2($e2 - $e1, $n2 - $n1)) + 360, 360)];
    }

    private static function angle(float $deg, string $plus, string $minus, int $digits): string
    {
        $minutes = round(abs($deg) * 60, 5);
        $whole = (int) floor($minutes / 60);

        return \sprintf("%0{$digits}d%08.5f,%s", $whole, $minutes - 60 * $whole, $deg < 0 ? $minus : $plus);
    }

    private static function sentence(string $body): string
    {
        return '$'.$body.'*'.NmeaScan::checksum($body)."\r\n";
    }
}
