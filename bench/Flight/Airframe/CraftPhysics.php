<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Airframe;

use Ortholex\Bench\Esc\EscModel;
use Ortholex\Core\Airframe\Airframe;

/**
 * What one craft physically is, whatever its settings say: geometry, inertia, motors, faults of assembly.
 */
final readonly class CraftPhysics
{
    /** Scale of a sound voltage divider, and of a sound current sensor in mV/A: a board told so reports what is. */
    public const DIVIDER = 11.0;

    public const SHUNT = 10.0;

    /**
     * @param array{float, float, float} $inertia kg·m² about roll, pitch, yaw
     * @param list<float> $imbalance gyro noise of each prop at full speed, deg/s
     * @param list<array{axis: int, hz: float, damping: float, gain: float}> $resonances of the frame, and how strongly they ring
     * @param array{float, float, float} $mountedDeg how the board really lies in the craft
     * @param array<int, string> $wiredPads pad => place of the motor soldered to it
     * @param array<int, EscModel> $escs the ESC on each pad
     * @param array{float, float} $levelFault roll and pitch by which the board sits crooked, beyond its mounting; deg
     * @param int $magnets true pole count of the motors
     * @param float $terminalMs speed at which it falls with the motors off, m/s
     * @param float $currentFault what its current sensor gives, over what it should
     * @param float $tilted45Ms level speed at which a tilt of 45° holds it, m/s
     * @param array<string, float> $camera its servo, as TiltServo takes it; empty for one that is fixed
     * @param array<string, list<float>> $compass as Needle takes it; empty for none
     */
    public function __construct(
        public Airframe $frame,
        public float $massKg,
        public array $inertia,
        public float $thrustN,
        public float $maxRpm,
        public float $motorLagS,
        public array $imbalance,
        public array $resonances,
        public array $mountedDeg,
        public array $wiredPads,
        public int $cells,
        public float $packOhm,
        public float $packAh,
        public float $fullCurrentA,
        public float $dividerFault = 1.0,
        public float $gyroNoiseDps = 0.35,
        public float $receiverHz = 150.0,
        public array $escs = [],
        public array $levelFault = [0.0, 0.0],
        public int $magnets = 14,
        public float $terminalMs = 20.0,
        public float $tilted45Ms = 17.0,
        public float $currentFault = 1.0,
        public array $compass = [],
        public array $camera = [],
    ) {
    }

    /** The same with a pack whose resistance is so many times that of a new one. */
    public function withPack(float $worn): self
    {
        return 1.0 === $worn
            ? $this
            : (new \ReflectionClass(self::class))->newInstanceArgs(['packOhm' => $this->packOhm * $worn] + get_object_vars($this));
    }

    /** Volts at rest with the given share of the charge used. */
    public function restVoltage(float $used): float
    {
        // A lithium cell: 4.2 V full, a long slope, a knee near empty.
        return $this->cells * (4.2 - 0.75 * $used - (0.25 * max(0.0, $used - 0.85)) / 0.15);
    }
}
