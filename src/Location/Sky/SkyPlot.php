<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Sky;

use Ortholex\Core\Position\Nmea\Satellite;

/** The sky as it is drawn: straight up in the middle, the horizon at the rim, north at the top; each satellite by its strength. */
final readonly class SkyPlot
{
    public const MIDDLE = 190.0;
    public const RIM = 160.0;

    /** From the weakest that is shown to the strongest, dB-Hz. */
    private const STRENGTHS = [15.0, 50.0];

    /** @param list<Satellite> $satellites */
    public function __construct(private array $satellites)
    {
    }

    /** @return list<array{x: float, y: float, r: float, name: string, used: bool, heard: bool, says: string}> */
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

        return $marks;
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

    private static function short(Satellite $s): string
    {
        return ('GA' === $s->system ? 'E' : 'G').$s->number;
    }

    private static function name(Satellite $s): string
    {
        return ('GA' === $s->system ? 'Galileo ' : 'GPS ').$s->number;
    }
}
