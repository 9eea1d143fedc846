<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\App\Motors\Reading\RisenView;

/** The slow rise as a drawing of 880 by 400: rpm of each motor against its output, with its spread. */
final readonly class RiseChart
{
    public const LEFT = 60.0;
    public const TOP = 20.0;
    public const WIDTH = 660.0;
    public const HEIGHT = 330.0;

    /** Outputs that the drawing spans, %. */
    private const FROM = 2;

    private const TO = 6;

    /** Rpm at the top while nothing was measured. */
    private const EMPTY_TOP = 3000.0;

    /**
     * @param list<array{x: float, pct: int}>   $columns
     * @param list<array{y: float, rpm: int}>   $rows
     * @param list<array{place: string, weak: bool, band: string, mean: string, steadyAt: float|null, y: int}> $motors
     * @param array{x: float, pct: float}|null  $idle
     */
    private function __construct(public array $columns, public array $rows, public array $motors, public ?array $idle)
    {
    }

    public static function of(?RisenView $risen): self
    {
        $top = $risen?->top() ?? self::EMPTY_TOP;
        $y = static fn (float $rpm): float => round(self::TOP + self::HEIGHT * (1 - $rpm / $top), 1);
        $columns = $rows = $motors = [];
        foreach (range(self::FROM, self::TO) as $pct) {
            $columns[] = ['x' => self::x($pct), 'pct' => $pct];
        }
        foreach (range(0, 4) as $i) {
            $rows[] = ['y' => $y(($top * $i) / 4), 'rpm' => (int) round(($top * $i) / 4, -1)];
        }
        foreach ($risen?->bands() ?? [] as $place => $band) {
            $up = $down = $mean = '';
            foreach ($band as $i => $p) {
                $x = self::x($p['pct']);
                $to = 0 === $i ? 'M' : 'L';
                $up .= "$to$x ".$y($p['high']);
                $down = "L$x ".$y($p['low']).$down;
                $mean .= "$to$x ".$y($p['mean']);
            }
            $motors[] = [
                'place' => $place,
                'weak' => isset($risen?->rising->weak[$place]),
                'band' => "$up{$down}Z",
                'mean' => $mean,
                'steadyAt' => $risen?->rising->steadyAt[$place],
                'y' => 40 + 24 * \count($motors),
            ];
        }
        $idle = $risen?->rising->idlePct;

        return new self($columns, $rows, $motors, null === $idle || $idle > self::TO ? null : ['x' => self::x($idle), 'pct' => $idle]);
    }

    private static function x(float $pct): float
    {
        return round(self::LEFT + (self::WIDTH * ($pct - self::FROM)) / (self::TO - self::FROM), 1);
    }
}
