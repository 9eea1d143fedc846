<?php

declare(strict_types=1);

namespace Ortholex\Bench\Board;

use Ortholex\Bench\State\WorldState;
use Ortholex\Core\Airframe\Rotation;

/** How the craft lies on the bench, or is turned in the hand, at a time: from its own axes to the world's. */
final readonly class Lie
{
    /** It is turned in the hand for so long, s. */
    public const TUMBLES_S = 40.0;

    /** Once about roll and yaw, and pitch up and down, s. */
    private const ROLLS_S = 9.1;

    private const PITCHES_S = 13.7;
    private const YAWS_S = 23.3;
    private const MOST_PITCH_DEG = 84.0;

    /** A hand lays it down in about so long, s. */
    private const LAID_S = 0.25;

    public static function of(WorldState $s, float $now): Rotation
    {
        if (self::tumbles($s, $now)) {
            $t = $now - $s->tumbleAt;

            return Rotation::degrees(
                (360 * $t) / self::ROLLS_S,
                self::MOST_PITCH_DEG * sin((2 * \M_PI * $t) / self::PITCHES_S),
                $s->headingDeg + (360 * $t) / self::YAWS_S,
            );
        }
        [$roll, $pitch] = WorldState::TILTS[$s->tilt];
        [$roll0, $pitch0] = WorldState::TILTS[$s->tiltBefore];
        $share = 1 - exp(-max(0.0, $now - $s->tiltChangedAt) / self::LAID_S);

        return Rotation::degrees($roll0 + ($roll - $roll0) * $share, $pitch0 + ($pitch - $pitch0) * $share, $s->headingDeg);
    }

    public static function tumbles(WorldState $s, float $now): bool
    {
        return $s->tumbleAt > 0 && $now >= $s->tumbleAt && $now < $s->tumbleAt + self::TUMBLES_S;
    }
}
