<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Ortholex\App\Work\Job;
use Ortholex\Core\Airframe\Airframe;
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

    /** @return list<string> places that are still to be written after the last attempt */
    public function again(): array
    {
        $orders = $this->flash->parameters['escs'] ?? [];

        return [] !== $this->failed() ? $this->failed() : array_map(strval(...), array_keys(\is_array($orders) ? $orders : []));
    }

    /** @return list<string> places whose last write failed */
    public function failed(): array
    {
        $failed = $this->flash->result['failed'] ?? [];

        return \is_array($failed) ? array_map('strval', array_keys($failed)) : [];
    }
}
