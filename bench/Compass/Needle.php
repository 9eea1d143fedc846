<?php

declare(strict_types=1);

namespace Ortholex\Bench\Compass;

use Ortholex\Core\Airframe\Rotation;
use Ortholex\Core\Position\Magnetic\MagneticField;

/**
 * A compass as it is soldered in: iron that moves with it adds a field of its own (hard) and bends the earth's (soft), it lies as the
 * builder laid it, and the motors' wires make a field that grows with what they carry.
 */
final readonly class Needle
{
    /** Of each reading, µT. */
    public const NOISE_UT = 0.15;

    /**
     * @param array{float, float, float}       $hardUt    in its own axes
     * @param array{array{float, float, float}, array{float, float, float}, array{float, float, float}} $soft
     * @param array{float, float, float}       $perPctUt  of the motors, a percent of mean output, in the craft's axes
     */
    private function __construct(private array $hardUt, private array $soft, private Rotation $lies, private array $perPctUt)
    {
    }

    /**
     * @param array<string, list<float>> $made hard, soft (nine, row by row), lies, per_pct
     *
     * @return self|null null for a craft without one
     */
    public static function of(array $made): ?self
    {
        if ([] === $made) {
            return null;
        }
        $three = static fn (string $name): array => [$made[$name][0] ?? 0.0, $made[$name][1] ?? 0.0, $made[$name][2] ?? 0.0];
        $s = ($made['soft'] ?? []) + [1.0, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 1.0];

        return new self(
            $three('hard'),
            [[$s[0], $s[1], $s[2]], [$s[3], $s[4], $s[5]], [$s[6], $s[7], $s[8]]],
            Rotation::degrees(...$three('lies')),
            $three('per_pct'),
        );
    }

    /**
     * What it reads, without noise.
     *
     * @param Rotation $turned    from the craft's axes to the world's: north, east, down
     * @param float    $outputPct mean of the motors
     *
     * @return array{float, float, float} µT, in its own axes
     */
    public function reads(MagneticField $earth, Rotation $turned, float $outputPct): array
    {
        $field = $turned->undo([$earth->northUt, $earth->eastUt, $earth->downUt]);
        foreach ($this->perPctUt as $i => $k) {
            $field[$i] += $k * $outputPct;
        }
        $own = $this->lies->undo($field);
        $bent = array_map(static fn (array $row): float => $row[0] * $own[0] + $row[1] * $own[1] + $row[2] * $own[2], $this->soft);

        return [$this->hardUt[0] + $bent[0], $this->hardUt[1] + $bent[1], $this->hardUt[2] + $bent[2]];
    }
}
