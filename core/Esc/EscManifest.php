<?php

declare(strict_types=1);

namespace Ortholex\Core\Esc;

use Ortholex\Core\Drive\SwitchingTrade;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Firmware\Exception\ManifestError;
use Ortholex\Core\Firmware\Fit;
use Ortholex\Core\Firmware\HexImage;
use Ortholex\Core\Firmware\Version;

/** What the shelf says of an ESC image: the one hardware it may be written to, and how it drives. */
final readonly class EscManifest
{
    public function __construct(
        public string $product,
        public Version $version,
        public string $layout,
        public int $clockMhz,
        public int $deadTimeNs,
        public int $switchingKhz,
        public bool $rpmFeedback,
        public string $sha256,
        public string $date,
        public string $notes,
    ) {
    }

    /**
     * @param array<mixed> $data decoded JSON
     *
     * @throws ManifestError naming the key that is missing or wrong
     */
    public static function fromArray(array $data): self
    {
        $text = static fn (string $key): string => \is_string($data[$key] ?? null)
            ? $data[$key]
            : throw ManifestError::lacksText($key);
        $number = static fn (string $key): int => \is_int($data[$key] ?? null)
            ? $data[$key]
            : throw ManifestError::lacksWhole($key);

        return new self(
            $text('product'),
            Version::parse($text('version')),
            $text('layout'),
            $number('clock_mhz'),
            $number('dead_time_ns'),
            $number('switching_khz'),
            true === ($data['rpm_feedback'] ?? null),
            $text('sha256'),
            $text('date'),
            $text('notes'),
        );
    }

    public function inWords(): string
    {
        return $this->product.' '.$this->version->toString().", $this->switchingKhz kHz";
    }

    /** The verdict against one ESC, by layout, clock and dead time; and by the bytes, when they are at hand. */
    public function fit(EscIdentity $esc, ?HexImage $image = null): Fit
    {
        return Fit::of(
            [...$this->againstHardware($esc), ...(null === $image ? [] : $this->againstBytes($esc, $image))],
            $this->toBeKnown($esc),
            Fact::of(EscFitReason::MadeForIt, layout: $this->layout, mhz: $this->clockMhz, ns: $this->deadTimeNs),
        );
    }

    /** @return list<Fact> */
    private function againstHardware(EscIdentity $esc): array
    {
        $against = [];
        if ($this->layout !== $esc->layout) {
            $against[] = Fact::of(EscFitReason::OtherLayout, wanted: $this->layout, layout: $esc->layout);
        }
        if ($this->clockMhz !== $esc->clockMhz) {
            $against[] = Fact::of(EscFitReason::OtherClock, wanted: $this->clockMhz, mhz: $esc->clockMhz);
        }
        if ($this->deadTimeNs !== $esc->deadTimeNs) {
            $shorter = $this->deadTimeNs < $esc->deadTimeNs;
            $against[] = Fact::of(
                $shorter ? EscFitReason::DeadTimeShorter : EscFitReason::DeadTimeDiffers,
                wanted: $this->deadTimeNs,
                ns: $esc->deadTimeNs,
            );
        }

        return $against;
    }

    /** @return list<Fact> */
    private function againstBytes(EscIdentity $esc, HexImage $image): array
    {
        $against = [];
        if ($image->lowest() < $esc->flashFrom || $image->end() > $esc->flashEnd) {
            $against[] = Fact::of(
                EscFitReason::OutsideFlash,
                from: $image->lowest(),
                to: $image->end() - 1,
                flash_from: $esc->flashFrom,
                flash_to: $esc->flashEnd - 1,
            );
        }
        if ($image->sha256() !== $this->sha256) {
            $against[] = Fact::of(EscFitReason::OtherBytes);
        }

        return $against;
    }

    /** @return list<Fact> */
    private function toBeKnown(EscIdentity $esc): array
    {
        $but = [];
        if ($this->version->isPreRelease()) {
            $but[] = Fact::of(EscFitReason::PreRelease);
        }
        if ($esc->rpmFeedback && !$this->rpmFeedback) {
            $but[] = Fact::of(EscFitReason::NoRpmFeedback);
        }
        if (null !== $esc->version && $esc->family === $this->product && $this->version->compare($esc->version) < 0) {
            $but[] = Fact::of(EscFitReason::Older, version: $esc->version->toString());
        }
        $steps = SwitchingTrade::steps($esc->clockMhz, $this->switchingKhz);
        if ($steps < SwitchingTrade::LEAST_STEPS) {
            $but[] = Fact::of(EscFitReason::FewSteps, mhz: $esc->clockMhz, steps: $steps, khz: $this->switchingKhz);
        }
        if ('' !== $esc->family && $esc->family !== $this->product) {
            $but[] = Fact::of(EscFitReason::OtherFamily, family: $esc->family, product: $this->product);
        }

        return $but;
    }
}
