<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

use Ortholex\Core\Radio\Protocol\Telemetry;

/** The transmitter of a craft and its receiver, as they can be seen on the bench. */
final readonly class Radio
{
    /**
     * @param string               $model    memory that is called up
     * @param list<string>         $models   all memories
     * @param array<string, float> $controls where each stands, −1 to 1: roll, pitch, throttle, yaw, levers A to F, knobs K1 and K2
     * @param array<string, int>   $levers   how many positions each lever has
     * @param list<array{control: string, low: float, high: float, trim: float, reversed: bool}> $channels of the memory, by channel
     * @param string|null          $receiver its name; null where none is soldered
     * @param ReceiverLight        $light    what its lamp shows
     * @param bool                 $button   its bind button is held
     * @param string|null          $manner   what the receiver does when its transmitter goes silent: stops, flags, repeats or presets
     * @param float                $distanceM from transmitter to craft
     * @param bool                 $quiet    it sends at a tenth of its power
     * @param Telemetry|null       $told     what the transmitter's screen shows of the craft; null for nothing
     */
    public function __construct(
        public bool $on,
        public string $model,
        public array $models,
        public array $controls,
        public array $levers,
        public array $channels,
        public ?string $receiver,
        public ReceiverLight $light,
        public bool $button,
        public ?string $manner,
        public ?Telemetry $told,
        public float $distanceM = 1.0,
        public bool $quiet = false,
    ) {
    }
}
