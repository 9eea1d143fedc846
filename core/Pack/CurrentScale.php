<?php

declare(strict_types=1);

namespace Ortholex\Core\Pack;

/** The scale of the current sensor by what the charger put back: a sensor that counted less than was charged gives fewer mV per A. */
final readonly class CurrentScale
{
    /** Less than this tells little, Ah. */
    public const LEAST_AH = 0.1;

    /**
     * @param float $countedAh by the sensor
     * @param float $chargedAh put back by the charger
     *
     * @return float mV/A
     *
     * @throws PackError
     */
    public static function of(float $oldMvPerA, float $countedAh, float $chargedAh): float
    {
        if ($countedAh < self::LEAST_AH || $chargedAh < self::LEAST_AH) {
            throw PackError::noVolts($countedAh < self::LEAST_AH ? 'counted' : 'charged');
        }

        return ($oldMvPerA * $countedAh) / $chargedAh;
    }
}
