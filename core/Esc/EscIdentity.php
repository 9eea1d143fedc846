<?php

declare(strict_types=1);

namespace Ortholex\Core\Esc;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Firmware\Version;

/** What one ESC says of itself: its hardware, and the firmware it runs; by firmware or by its bootloader. */
final readonly class EscIdentity
{
    /**
     * @param string $layout       how its gates and sensing hang on its processor; an image for another can burn it
     * @param int    $deadTimeNs   pause between switching one transistor off and the other on
     * @param string $family       firmware family; '' in the bootloader
     * @param int    $switchingKhz drive frequency of the firmware it runs; 0 in the bootloader
     * @param string $serial       burnt in when it was made, the same in firmware and bootloader; '' from one that tells none
     */
    public function __construct(
        public int $pad,
        public string $maker,
        public string $layout,
        public int $clockMhz,
        public int $deadTimeNs,
        public bool $measuresHeat,
        public int $flashFrom,
        public int $flashEnd,
        public int $pageBytes,
        public string $family,
        public ?Version $version,
        public int $switchingKhz,
        public bool $rpmFeedback,
        public string $serial = '',
    ) {
    }

    public function inBootloader(): bool
    {
        return '' === $this->family;
    }

    public function firmwareInWords(): string
    {
        return null === $this->version ? 'bootloader only' : $this->family.' '.$this->version->toString();
    }

    public function hardware(): Fact
    {
        return Fact::of(EscFact::Hardware, ns: $this->deadTimeNs, layout: $this->layout, mhz: $this->clockMhz);
    }

    /** @return array<string, int|string|bool> */
    public function toArray(): array
    {
        return [
            'pad' => $this->pad,
            'maker' => $this->maker,
            'layout' => $this->layout,
            'clock_mhz' => $this->clockMhz,
            'dead_time_ns' => $this->deadTimeNs,
            'measures_heat' => $this->measuresHeat,
            'flash_from' => $this->flashFrom,
            'flash_end' => $this->flashEnd,
            'page_bytes' => $this->pageBytes,
            'family' => $this->family,
            'version' => $this->version?->toString() ?? '',
            'switching_khz' => $this->switchingKhz,
            'rpm_feedback' => $this->rpmFeedback,
            'serial' => $this->serial,
        ];
    }

    /** @param array<mixed> $data as toArray() gave it */
    public static function fromArray(array $data): self
    {
        $text = static fn (string $key): string => \is_scalar($data[$key] ?? null) ? (string) $data[$key] : '';
        $version = $text('version');

        return new self(
            (int) $text('pad'),
            $text('maker'),
            $text('layout'),
            (int) $text('clock_mhz'),
            (int) $text('dead_time_ns'),
            true === ($data['measures_heat'] ?? false),
            (int) $text('flash_from'),
            (int) $text('flash_end'),
            (int) $text('page_bytes'),
            $text('family'),
            '' === $version ? null : Version::parse($version),
            (int) $text('switching_khz'),
            true === ($data['rpm_feedback'] ?? false),
            $text('serial'),
        );
    }
}
