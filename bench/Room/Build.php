<?php

declare(strict_types=1);

namespace Ortholex\Bench\Room;

use Ortholex\Bench\Board\BoardModel;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;

/** A craft to be put together on the bench: what it physically is, and with what firmware and settings it is left there. */
final readonly class Build
{
    /**
     * @param string                               $version  of the firmware that its board gets
     * @param array<string, float|int|bool|string> $settings what differs from defaults, under the names of the current firmware
     * @param array<int, array{string, string, int, array<string, float|int|bool|string>}> $escs by pad: family and release of its
     *     firmware, its switching frequency in kHz, and the builder's own settings by key
     * @param list<array{string, string}>          $wires    pin of a part, pad of the board
     * @param list<string>                         $bridged  jumpers
     * @param array<string, array<string, mixed>>  $memories of the transmitter, by craft
     * @param array<string, mixed>                 $radio    what else its transmitter and receiver are; see RadioState
     * @param array{string, string}                $chip     kind and firmware of its overlay chip; '' for none
     */
    public function __construct(
        public string $name,
        public BoardModel $model,
        public CraftPhysics $physics,
        public string $version,
        public array $settings,
        public array $escs,
        public array $wires,
        public array $bridged,
        public array $memories,
        public array $radio = [],
        public array $chip = ['', ''],
    ) {
    }
}
