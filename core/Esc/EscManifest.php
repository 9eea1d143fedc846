<?php

declare(strict_types=1);

namespace Ortholex\Core\Esc;

use Ortholex\Core\Firmware\FirmwareError;
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
     * @throws FirmwareError naming the key that is missing or wrong
     */
    public static function fromArray(array $data): self
    {
        $text = static fn (string $key): string => \is_string($data[$key] ?? null)
            ? $data[$key]
            : throw FirmwareError::of("The manifest lacks the text “{$key}”.");
        $number = static fn (string $key): int => \is_int($data[$key] ?? null)
            ? $data[$key]
            : throw FirmwareError::of("The manifest lacks the whole number “{$key}”.");

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

    /**
     * The verdict against one ESC, by layout, clock and dead time; with the bytes, when they are at hand, against the manifest and its flash.
     */
    public function fit(EscIdentity $esc, ?HexImage $image = null): Fit
    {
        $against = [];
        if ($this->layout !== $esc->layout) {
            $against[] = "It is for layout $this->layout; this ESC has $esc->layout. The wrong layout switches the wrong transistors and can burn it.";
        }
        if ($this->clockMhz !== $esc->clockMhz) {
            $against[] = "It is for a processor of $this->clockMhz MHz; this ESC has $esc->clockMhz MHz.";
        }
        if ($this->deadTimeNs !== $esc->deadTimeNs) {
            $against[] =
                $this->deadTimeNs < $esc->deadTimeNs
                    ? "Its dead time of $this->deadTimeNs ns is shorter than the $esc->deadTimeNs ns these transistors need: both would conduct at once."
                    : "Its dead time of $this->deadTimeNs ns is not the $esc->deadTimeNs ns of this ESC.";
        }
        if (null !== $image && ($image->lowest() < $esc->flashFrom || $image->end() > $esc->flashEnd)) {
            $against[] = \sprintf(
                'It fills 0x%04X to 0x%04X, but the flash of this ESC is 0x%04X to 0x%04X.',
                $image->lowest(),
                $image->end() - 1,
                $esc->flashFrom,
                $esc->flashEnd - 1,
            );
        }
        if (null !== $image && $image->sha256() !== $this->sha256) {
            $against[] = 'Its bytes are not those the manifest vouches for. Fetch it again.';
        }
        if ([] !== $against) {
            return Fit::of(Fit::DOES_NOT_FIT, $against);
        }
        $but = [];
        if ($this->version->isPreRelease()) {
            $but[] = 'It is a pre-release: flown by few, and not yet by the cautious.';
        }
        if ($esc->rpmFeedback && !$this->rpmFeedback) {
            $but[] = 'It cannot answer with its rpm; motor notches would follow nothing.';
        }
        if (null !== $esc->version && $esc->family === $this->product && $this->version->compare($esc->version) < 0) {
            $but[] = 'It is older than '.$esc->version->toString().', which the ESC runs now.';
        }
        if ('' !== $esc->family && $esc->family !== $this->product) {
            $but[] = "It converts the ESC from $esc->family to $this->product: its settings start from defaults, and what both know is carried over.";
        }

        return [] === $but
            ? Fit::of(Fit::FITS, ["Layout $this->layout, $this->clockMhz MHz and $this->deadTimeNs ns are the ones it is made for."])
            : Fit::of(Fit::FITS_BUT, $but);
    }
}
