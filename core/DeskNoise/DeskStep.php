<?php

declare(strict_types=1);

namespace Ortholex\Core\DeskNoise;

/** What the gyro felt while all motors were held at one output on the desk, props off. */
final readonly class DeskStep
{
    /**
     * @param float                            $pct    output
     * @param float|null                       $rpm    mean of the motors; null without rpm feedback
     * @param array<string, list<list<float>>> $bursts deg/s, by axis, each a run without gaps
     */
    public function __construct(public float $pct, public ?float $rpm, public array $bursts)
    {
    }
}
