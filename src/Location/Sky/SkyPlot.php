<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Sky;

use Ortholex\Core\Position\Nmea\Satellite;

/**
 * The sky as it is drawn: straight up in the middle, the horizon at the rim, north at the top; each satellite by its strength.
 *
 * @phpstan-type Mark array{
 *     named: bool, nameX: float, nameY: float,
 *     x: float, y: float, r: float,
 *     name: string, used: bool, heard: bool, says: string,
 * }
 */
final readonly class SkyPlot
{
    public const MIDDLE = 190.0;
    public const RIM = 160.0;

    /** Width of a letter of a name, and half its height. */
    private const LETTER = 7.0;

    private const TALL = 5.0;

    /** From the weakest that is shown to the strongest, dB-Hz. */
    private const STRENGTHS = [15.0, 50.0];

    /** @param list<Satellite> $satellites */
    public function __construct(private array $satellites)
    {
    }

    /** @return list<Mark> */
    public function marks(): array
    {
        $marks = [];
        foreach ($this->satellites as $s) {
            if (null === $s->elevationDeg || null === $s->azimuthDeg) {
                continue;
            }
            $far = self::RIM * (1 - $s->elevationDeg / 90);
            $turned = deg2rad($s->azimuthDeg);
            [$weak, $strong] = self::STRENGTHS;
            $share = max(0.0, min(1.0, (($s->strengthDbHz ?? $weak) - $weak) / ($strong - $weak)));
            $marks[] = [
                'named' => false,
                'nameX' => 0.0,
                'nameY' => 0.0,
                'x' => round(self::MIDDLE + $far * sin($turned), 1),
                'y' => round(self::MIDDLE - $far * cos($turned), 1),
                'r' => round(4 + 9 * $share, 1),
                'name' => self::short($s),
                'used' => $s->used,
                'heard' => null !== $s->strengthDbHz,
                'says' => \sprintf(
                    '%s: %.0f° up, towards %.0f°, %s%s',
                    self::name($s),
                    $s->elevationDeg,
                    $s->azimuthDeg,
                    null === $s->strengthDbHz ? 'not heard' : \sprintf('%.0f dB-Hz', $s->strengthDbHz),
                    $s->used ? ', used' : '',
                ),
            ];
        }

        return self::named($marks);
    }

    /** @return array{int, int, int} in view, heard, used */
    public function counts(): array
    {
        return [
            \count($this->satellites),
            \count(array_filter($this->satellites, static fn (Satellite $s): bool => null !== $s->strengthDbHz)),
            \count(array_filter($this->satellites, static fn (Satellite $s): bool => $s->used)),
        ];
    }

    /** @return list<array{int, float}> degrees over the horizon, and the radius that they stand at */
    public static function rings(): array
    {
        return array_map(static fn (int $deg): array => [$deg, round(self::RIM * (1 - $deg / 90), 1)], [0, 30, 60]);
    }

    /**
     * A name stands over its mark, else under, right or left of it, where it covers neither a mark nor another name; else it is left away.
     *
     * @param list<Mark> $marks
     *
     * @return list<Mark>
     */
    private static function named(array $marks): array
    {
        $taken = array_map(static fn (array $m): array => [$m['x'], $m['y'], $m['r'], $m['r']], $marks);
        foreach ($marks as $i => $m) {
            $half = \strlen($m['name']) * self::LETTER / 2;
            foreach ([[0, -1], [0, 1], [1, 0], [-1, 0]] as [$aside, $below]) {
                $x = $m['x'] + $aside * ($m['r'] + 2 + $half);
                $y = $m['y'] + $below * ($m['r'] + 2 + self::TALL);
                $clear = [] === array_filter(
                    $taken,
                    static fn (array $t): bool => abs($t[0] - $x) < $t[2] + $half && abs($t[1] - $y) < $t[3] + self::TALL,
                );
                if ($clear) {
                    $taken[] = [$x, $y, $half, self::TALL];
                    $marks[$i] = ['named' => true, 'nameX' => round($x, 1), 'nameY' => round($y + self::TALL - 1, 1)] + $m;
                    break;
                }
            }
        }

        return $marks;
    }

    private static function short(Satellite $s): string
    {
        return ('GA' === $s->system ? 'E' : 'G').$s->number;
    }

    private static function name(Satellite $s): string
    {
        return ('GA' === $s->system ? 'Galileo ' : 'GPS ').$s->number;
    }
}
