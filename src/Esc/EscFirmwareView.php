<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Ortholex\App\Work\Job;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Firmware\Fit;
use Ortholex\Core\Firmware\FitVerdict;

/** What sheet 12 shows of the ESCs. */
final readonly class EscFirmwareView
{
    /**
     * @param array<string, EscIdentity|null> $escs   by place
     * @param array<string, int>              $pads   by place
     * @param list<EscImage>                  $images
     * @param array<string, EscOrder>         $orders what is left of earlier writes, by place
     */
    public function __construct(
        public Airframe $frame,
        public array $escs,
        public array $pads,
        public array $images,
        public ?EscImage $chosen,
        public bool $preReleases,
        public ?Job $flash,
        public bool $linked,
        public bool $pack,
        public bool $declared,
        public bool $read,
        public string $problem,
        public int $nowKhz,
        public array $orders,
        public SettingSet $settings,
    ) {
    }

    public function isOpen(): bool
    {
        return null !== $this->flash && $this->flash->isOpen();
    }

    /** Whether what must be so before an ESC is written, is so. */
    public function ready(): bool
    {
        return $this->linked && $this->read && $this->declared;
    }

    /** @return list<string> what they run, each once */
    public function kinds(): array
    {
        $all = array_map(static fn (EscIdentity $e): string => $e->firmwareInWords(), array_filter($this->escs));

        return array_values(array_unique($all));
    }

    /** @return list<string> places whose ESC does not answer */
    public function silent(): array
    {
        return array_keys(array_filter($this->escs, static fn (?EscIdentity $e): bool => null === $e));
    }

    /** How many ESCs an image fits without a but. */
    public function plain(EscImage $image): int
    {
        return \count(array_filter($image->fits, static fn (Fit $f): bool => FitVerdict::Fits === $f->verdict));
    }

    /** How its fit is shown: good where it fits all, caution where some, stop where none. */
    public function tone(EscImage $image): string
    {
        return match (true) {
            $this->plain($image) === \count($this->escs) => 'good',
            [] !== $image->writable() => 'caution',
            default => 'stop',
        };
    }

    /** How the last write ended is told until it was seen, and as long as something is left of it. */
    public function tellsResult(): bool
    {
        return !$this->isOpen() && ([] !== $this->orders || (null !== $this->flash && !$this->flash->seen));
    }

    /** @return array<string, mixed> what the last write has written, by place */
    public function written(): array
    {
        $done = null === $this->flash || $this->flash->seen ? [] : $this->flash->result['done'] ?? [];
        $written = [];
        foreach (\is_array($done) ? $done : [] as $place => $image) {
            if (!isset($this->orders[$place])) {
                $written[(string) $place] = $image;
            }
        }

        return $written;
    }

    /** @return array<string, string> places that are still to be written, with commas between, by key of the release */
    public function again(): array
    {
        $again = [];
        foreach ($this->orders as $place => $order) {
            if (EscOrderState::Gone !== $order->state) {
                $again[$order->key][] = $place;
            }
        }

        return array_map(static fn (array $places): string => implode(',', $places), $again);
    }

    /** @return array<string, list<string>> places by what is to be said of them */
    public function left(): array
    {
        $left = [];
        foreach ($this->orders as $place => $order) {
            $left[$order->state->value][] = $place;
        }

        return $left;
    }

    /** @return array<string, string> settings of before that can be staged, by full name: where the firmware runs without them */
    public function toStage(string $place): array
    {
        $values = [];
        $order = $this->orders[$place] ?? null;
        foreach (EscOrderState::LacksSettings === $order?->state ? $order->held ?? [] : [] as $key => $value) {
            if (isset($this->settings["esc.$place.$key"])) {
                $values["esc.$place.$key"] = \is_bool($value) ? ($value ? '1' : '0') : (string) $value;
            }
        }

        return $values;
    }
}
