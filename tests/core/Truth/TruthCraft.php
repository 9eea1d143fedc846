<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Truth;

/**
 * A craft in SI units, of the tests' own: shares no code with core or bench.
 *
 * Places are where a log's columns say that they are; motors stand at (forward, right) in m.
 */
final readonly class TruthCraft
{
    /** Places of six motors, degrees from the nose. */
    private const AROUND = [
        'front_right' => 30,
        'right' => 90,
        'rear_right' => 150,
        'rear_left' => 210,
        'left' => 270,
        'front_left' => 330,
    ];

    /**
     * @param array<string, array{float, float, int}> $motors    forward, right, spin (+ clockwise from above)
     * @param array{float, float, float}              $inertia   kg m², roll, pitch, yaw
     * @param float                                   $fullN     thrust of a motor at full output and full pack
     * @param float                                   $fullRpm   its speed there
     * @param float                                   $power     speed ∝ output^power at a steady voltage
     * @param float                                   $upS       time constant of a motor gathering speed
     * @param float                                   $downS     and of losing it
     * @param float                                   $yawM      yaw torque per thrust, m
     * @param float                                   $rotor     inertia of a rotor, kg m²
     * @param float                                   $sag       share of the voltage lost at all motors full
     * @param float                                   $crossing  what its tuner set the loops to, rad/s
     * @param array{float, float, float}              $drag      1/s, by axis
     * @param float                                   $filterHz  first-order low-pass of the rate
     * @param float                                   $dShare    how much of the rotors' lag D makes up for
     */
    public function __construct(
        public string $name,
        public float $kg,
        public array $motors,
        public array $inertia,
        public float $fullN,
        public float $fullRpm = 30000.0,
        public float $power = 0.85,
        public float $upS = 0.022,
        public float $downS = 0.03,
        public float $yawM = 0.012,
        public float $rotor = 2e-6,
        public float $sag = 0.12,
        public float $crossing = 28.0,
        public array $drag = [1.2, 1.2, 0.9],
        public float $filterHz = 110.0,
        public float $dShare = 0.7,
    ) {
    }

    /** The same craft with loops set otherwise. */
    public function tuned(float $crossing, float $filterHz = 110.0, float $dShare = 0.7): self
    {
        return new self(
            $this->name,
            $this->kg,
            $this->motors,
            $this->inertia,
            $this->fullN,
            $this->fullRpm,
            $this->power,
            $this->upS,
            $this->downS,
            $this->yawM,
            $this->rotor,
            $this->sag,
            $crossing,
            $this->drag,
            $filterHz,
            $dShare,
        );
    }

    /** Output at which it hovers with a full pack, %. */
    public function hoverPct(): float
    {
        return 100 * ($this->kg * 9.81 / (\count($this->motors) * $this->fullN)) ** (1 / (2 * $this->power));
    }

    /** @return list<self> the five that are flown for an hour */
    public static function five(): array
    {
        return [self::light(), self::heavy(), self::slow(), self::long(), self::hexa()];
    }

    public static function light(): self
    {
        return new self('light', 0.55, self::x(0.078, 0.078), [0.00075, 0.0008, 0.0013], 12.0, 32000, 0.8, 0.018, 0.024);
    }

    public static function heavy(): self
    {
        return new self('heavy', 1.6, self::x(0.12, 0.12), [0.0065, 0.008, 0.013], 12.5, 19000, 0.9, 0.045, 0.06, 0.015, 1.5e-5, 0.2, 13.0);
    }

    public static function slow(): self
    {
        return new self('slow', 2.6, self::x(0.2, 0.19), [0.03, 0.034, 0.058], 18.0, 9000, 0.75, 0.085, 0.11, 0.018, 9e-5, 0.15, 7.5);
    }

    public static function long(): self
    {
        $motors = self::x(0.12, 0.075);

        return new self('long', 0.9, $motors, [0.0016, 0.0042, 0.0052], 11.0, 24000, 1.0, 0.03, 0.035, 0.013, 5e-6, 0.15, 17.0);
    }

    public static function hexa(): self
    {
        $r = 0.16;
        $motors = [];
        foreach (self::AROUND as $place => $deg) {
            $motors[$place] = [$r * cos(deg2rad($deg)), $r * sin(deg2rad($deg)), 0 === ($deg - 30) / 60 % 2 ? -1 : 1];
        }

        return new self('hexa', 2.2, $motors, [0.019, 0.02, 0.035], 11.0, 17000, 0.85, 0.05, 0.065, 0.016, 2e-5, 0.18, 12.0);
    }

    /** @return array<string, array{float, float, int}> */
    private static function x(float $forward, float $right): array
    {
        return [
            'front_right' => [$forward, $right, -1],
            'rear_right' => [-$forward, $right, 1],
            'rear_left' => [-$forward, -$right, -1],
            'front_left' => [$forward, -$right, 1],
        ];
    }
}
