<?php

declare(strict_types=1);

namespace Ortholex\App\Noise\Desk;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\DeskNoise\DeskNoise;
use Ortholex\Core\Noise\NoiseMap;
use Ortholex\Core\Noise\Ridge;
use Ortholex\Core\Noise\RidgeKind;

/**
 * A cascade: the spectrum of each step over the one before, with its ridges through all of them; in units of the drawing.
 *
 * @phpstan-type Line array{x1: float, y1: float, x2: float, y2: float, kind: string, label: string, label_x: float, label_y: float,
 *     anchor: string}
 */
final readonly class DeskDrawing
{
    public const WIDE = 800;
    public const HIGH = 440;
    private const LEFT = 56;
    private const RIGHT = 14;
    private const TOP = 84;
    private const BOTTOM = 34;
    private const LABEL_Y = 14;
    private const MOST_HZ = 600.0;

    /** A dB is so high. */
    private const DB_HIGH = 1.4;

    private const FLOOR_DB = -38.0;
    private const EVERY_HZ = 100;

    /**
     * @param list<array{pct: float, y: float, line: string}>                                       $steps lowest output first
     * @param list<Line> $ridges
     * @param list<array{x: float, hz: int}>                                                        $grid
     */
    private function __construct(public Axis $axis, public array $steps, public array $ridges, public array $grid)
    {
    }

    public static function loudest(DeskNoise $desk): Axis
    {
        $rms = array_map(static fn (array $steps): float => max([0.0, ...$steps]), $desk->rms);
        arsort($rms);

        return Axis::from((string) array_key_first($rms));
    }

    public static function of(DeskNoise $desk, Axis $axis): self
    {
        $map = $desk->maps[$axis->value];
        $bins = array_keys($map->density);
        $low = [] === $bins ? 0.0 : NoiseMap::middle(min($bins));
        $high = [] === $bins ? 1.0 : NoiseMap::middle(max($bins));
        $x = static fn (float $hz): float => self::LEFT + ((self::WIDE - self::LEFT - self::RIGHT) * $hz) / self::MOST_HZ;
        $y = static fn (float $pct): float => self::HIGH - self::BOTTOM
            - ((self::HIGH - self::TOP - self::BOTTOM) * ($pct - $low)) / max(1.0, $high - $low);
        $steps = [];
        foreach ($map->density as $bin => $density) {
            $base = $y(NoiseMap::middle($bin));
            $line = '';
            foreach ($density as $k => $power) {
                $hz = $k * $map->stepHz;
                if ($hz > self::MOST_HZ) {
                    break;
                }
                $db = max(self::FLOOR_DB, 10 * log10(max(1e-9, $power)));
                $line .= \sprintf('%.1f,%.1f ', $x($hz), $base - self::DB_HIGH * ($db - self::FLOOR_DB));
            }
            $steps[] = ['pct' => NoiseMap::middle($bin), 'y' => $base, 'line' => rtrim($line)];
        }
        $ridges = [];
        foreach ($desk->ridges[$axis->value] as $ridge) {
            if (RidgeKind::Standing === $ridge->kind || null !== $desk->order($ridge)) {
                $ridges[] = self::ridge($ridge, $desk->order($ridge), $x, $y);
            }
        }
        $swell = $desk->swells[$axis->value];
        if (null !== $swell && $swell->hz < self::MOST_HZ) {
            $ridges[] = self::swell($swell->hz, $x($swell->hz));
        }
        $grid = [];
        for ($hz = 0; $hz <= self::MOST_HZ; $hz += self::EVERY_HZ) {
            $grid[] = ['x' => $x($hz), 'hz' => $hz];
        }

        // The highest lies behind the others.
        return new self($axis, array_reverse($steps), $ridges, $grid);
    }

    /**
     * @param \Closure(float): float $x
     * @param \Closure(float): float $y
     *
     * @return Line
     */
    private static function ridge(Ridge $ridge, ?int $order, \Closure $x, \Closure $y): array
    {
        $to = $ridge->toPct;
        if ($ridge->hzAt($to) > self::MOST_HZ) {
            $to = (self::MOST_HZ - $ridge->hzAtZero) / max(1e-6, $ridge->hzPerPct);
        }

        [$x1, $y1, $x2, $y2] = [$x($ridge->hzAt($ridge->fromPct)), $y($ridge->fromPct), $x($ridge->hzAt($to)), $y($to)];
        // Where it leaves the drawing at its side, its label stands under it, else over its end.
        $side = $x2 > self::WIDE - 120;

        return [
            'x1' => $x1,
            'y1' => $y1,
            'x2' => $x2,
            'y2' => $y2,
            'kind' => $ridge->kind->value,
            'label' => match ($order) {
                null => \sprintf('%.0f Hz', $ridge->hz),
                1 => 'once a turn',
                2 => 'twice a turn',
                default => "$order times a turn",
            },
            'label_x' => $side ? self::WIDE - self::RIGHT : $x2,
            'label_y' => $side ? $y2 + 18 : self::LABEL_Y,
            'anchor' => $side ? 'end' : 'middle',
        ];
    }

    /** @return Line where the frame rings as the shafts pass */
    private static function swell(float $hz, float $x): array
    {
        return [
            'x1' => $x,
            'y1' => self::HIGH - self::BOTTOM,
            'x2' => $x,
            'y2' => self::LABEL_Y + 6,
            'kind' => RidgeKind::Standing->value,
            'label' => \sprintf('rings, %.0f Hz', $hz),
            'label_x' => $x,
            'label_y' => self::LABEL_Y,
            'anchor' => 'middle',
        ];
    }
}
