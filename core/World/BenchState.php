<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

use Ortholex\Core\Drive\TeachStep;
use Ortholex\Core\Drive\Tone;

/** What can be seen of the world around one craft at one moment. */
final readonly class BenchState
{
    /**
     * @param int                        $cableMoves goes up each time the cable is moved, so that a link of before is known to be gone
     * @param int                        $powerMoves goes up each time power or cable goes
     * @param float|null                 $packVolts  at rest; null while no pack is connected
     * @param bool                       $powered    whether the board has power
     * @param bool                       $bootloader whether the board runs only its bootloader
     * @param list<string>               $faults     switched on
     * @param list<array{pad: int, place: string, direction: int}> $turning motors that turn now; +1 clockwise from above
     * @param string                     $mishap     what happened on the bench just now, '' for nothing
     * @param list<Tone>                 $tones      heard from the ESCs, newest last
     * @param TeachStep|null             $teach      what all outputs are held at; null when they are free
     * @param list<array{string, string}> $soldered  pin of a part, pad of the board
     * @param list<string>               $bridged    jumpers of the board that are bridged
     * @param float                      $packUsed   share of its charge
     * @param float                      $packWorn   its resistance over that of a new one
     * @param PackAlarm                  $alarm      what the craft's beeper says of its pack
     * @param float                      $headingDeg which way its nose points, true
     * @param bool                       $tumbles    whether it is turned in the hand
     * @param float|null                 $cameraDeg  where its camera points, against the craft, nose up is +; null for a fixed one
     * @param bool                       $buzzes     whether the camera's servo strains, to be heard
     */
    public function __construct(
        public bool $cable = false,
        public int $cableMoves = 0,
        public bool $pack = false,
        public int $powerMoves = 0,
        public ?float $packVolts = null,
        public bool $props = true,
        public bool $propsDeclaredOff = false,
        public bool $transmitter = false,
        public bool $outdoors = false,
        public string $tilt = 'level',
        public bool $powered = false,
        public bool $bootloader = false,
        public array $faults = [],
        public array $turning = [],
        public string $mishap = '',
        public array $tones = [],
        public ?TeachStep $teach = null,
        public array $soldered = [],
        public array $bridged = [],
        public float $packUsed = 0.0,
        public float $packWorn = 1.0,
        public PackAlarm $alarm = PackAlarm::None,
        public float $headingDeg = 0.0,
        public bool $tumbles = false,
        public ?float $cameraDeg = null,
        public bool $buzzes = false,
    ) {
    }
}
