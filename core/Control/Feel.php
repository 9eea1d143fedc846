<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;

/**
 * Rotation rate against stick: rate(x) = c·x + (full − c)·sign(x)·|x|^p with p = log2((full − c)/(half − c/2)).
 *
 * The slope at centre is c, and the half- and full-stick rates are met exactly; deg/s.
 */
final readonly class Feel
{
    private function __construct(public float $centre, public float $full, private float $power)
    {
    }

    /** @throws FeelError unless c/2 < half < full/2, or full = c and half = c/2 (straight) */
    public static function of(float $centre, float $half, float $full): self
    {
        if (abs($full - $centre) < 1e-9 && abs($half - $centre / 2) < 1e-9) {
            return new self($centre, $full, 1.0);
        }
        if ($half <= $centre / 2 || $half >= $full / 2 || $full <= $centre) {
            throw new FeelError($half, $centre / 2, $full / 2);
        }

        return new self($centre, $full, log(($full - $centre) / ($half - $centre / 2), 2));
    }

    /** @throws FeelError */
    public static function in(SettingSet $set, Axis $axis): self
    {
        $rate = static fn (string $part): float => $set->number("feel.{$axis->value}.$part");

        return self::of($rate('centre_dps'), $rate('half_stick_dps'), $rate('full_stick_dps'));
    }

    /** @param float $stick −1 to 1 */
    public function rate(float $stick): float
    {
        $size = abs($stick);

        return $this->centre * $stick + ($this->full - $this->centre) * ($stick < 0 ? -1 : 1) * $size ** $this->power;
    }
}
