<?php

declare(strict_types=1);

namespace Ortholex\App\Identity;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Settings\Setting;

/** What sheet 11 shows. */
final readonly class IdentityView
{
    /**
     * @param array<string, EscIdentity|null>          $escs  by place; null where it stayed silent
     * @param array<string, int>                       $pads  by place
     * @param list<array{label: string, alive: bool, when: string}> $rails
     * @param list<array{setting: Setting, book: float|int|bool|string, craft: float|int|bool|string, read: string, at: string}> $believed
     */
    public function __construct(
        public bool $linked,
        public int $differences,
        public int $snapshots,
        public ?string $firstSnapshot,
        public Airframe $frame,
        public bool $cable,
        public bool $pack,
        public bool $escsRead,
        public array $escs,
        public array $pads,
        public string $escsProblem,
        public array $rails,
        public int $flashKb,
        public array $believed,
    ) {
    }

    /** How many ESCs answered. */
    public function answering(): int
    {
        return \count(array_filter($this->escs));
    }

    /** @return list<array{name: string, met: bool, now: bool}> the order in which the craft is found */
    public function order(): array
    {
        $met = [$this->cable, $this->linked, $this->linked && $this->pack, $this->escsRead];
        $steps = [];
        foreach (['cable', 'link', 'flight pack', 'ESCs'] as $i => $name) {
            $steps[] = ['name' => $name, 'met' => $met[$i], 'now' => !$met[$i] && (0 === $i || $met[$i - 1])];
        }

        return $steps;
    }
}
