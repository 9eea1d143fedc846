<?php

declare(strict_types=1);

namespace Ortholex\Demo;

use Ortholex\Bench\Board\BoardModel;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Room\Build;
use Ortholex\Core\Pack\PackCard;
use Ortholex\Core\Proof\Proved;

/** One craft of the scenario: what it is, and with what firmware and settings it stands on the bench. */
final readonly class DemoCraft
{
    /**
     * @param array<string, mixed>                 $memory   its memory in the transmitter, where it is not a sound one
     * @param array<string, mixed>                 $radio    what else its transmitter and receiver are; see RadioState
     * @param list<array{string, string}>          $soldered wires that its builder found soldered and has not drawn
     * @param array<string, mixed>                 $shown    what its builder has shown of its radio before; see Evidence
     * @param list<PackCard>                       $packs    cards of its packs
     * @param list<Proved>                         $proved   what its builder has proved on it before
     * @param array{string, string}                $chip     kind and firmware of its overlay chip; '' for none
     * @param int|null                             $moduleBaud what its position receiver speaks at by now; null: as it came
     * @param list<string>                         $uses     what a firmware build must not leave out
     * @param array<string, float|int|bool|string> $settings what differs from defaults
     * @param array{parts: list<string>, wires: list<array{string, string}>, bridged: list<string>} $wires what hangs on the board
     * @param array<int, array{string, string, int, array<string, float|int|bool|string>}> $escs by pad: family and release of its
     *     firmware, its switching frequency in kHz, and the builder's own settings by key
     */
    public function __construct(
        public string $slug,
        public string $name,
        public string $kind,
        public string $purpose,
        public string $story,
        public BoardModel $model,
        public CraftPhysics $physics,
        public string $version,
        public array $uses,
        public array $settings,
        public array $escs,
        public array $wires,
        public array $memory = [],
        public array $radio = [],
        public array $soldered = [],
        public array $shown = [],
        public array $proved = [],
        public array $packs = [],
        public array $chip = ['', ''],
        public ?int $moduleBaud = null,
    ) {
    }

    /** @param array<string, array<string, mixed>> $memories of the transmitter, by craft */
    public function build(array $memories): Build
    {
        return new Build(
            $this->name,
            $this->model,
            $this->physics,
            $this->version,
            $this->settings,
            $this->escs,
            [...$this->wires['wires'], ...$this->soldered],
            $this->wires['bridged'],
            $memories,
            $this->radio,
            $this->chip,
        );
    }
}
