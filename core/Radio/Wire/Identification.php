<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Wire;

use Ortholex\Core\Radio\Protocol\LinkStatistics;
use Ortholex\Core\Radio\Protocol\RadioFrame;

/** Who was heard on a wire, at which rate and polarity, how often, and what was said last. */
final readonly class Identification
{
    /**
     * @param int|null       $baud       null for pulses, silence and rubbish
     * @param bool           $inverted   serial: the line rests low; pulses: they go down from a line that rests high
     * @param int            $frames     whole ones
     * @param float|null     $intervalMs median from one frame of channels to the next
     * @param float          $lostShare  0 to 1, of the frames that should have come
     * @param bool           $failsafe   whether the receiver says that it hears no transmitter
     * @param list<float>    $channelsUs as said last, by a whole frame
     */
    private function __construct(
        public Speaker $speaker,
        public ?int $baud,
        public bool $inverted,
        public int $frames,
        public ?float $intervalMs,
        public float $lostShare,
        public bool $failsafe,
        public array $channelsUs,
        public ?LinkStatistics $link,
    ) {
    }

    public static function none(Speaker $speaker): self
    {
        return new self($speaker, null, false, 0, null, 0.0, false, [], null);
    }

    /**
     * @param list<array{float, RadioFrame}> $frames when each came, µs, and what it says
     * @param int                            $whole  sound frames of any kind
     */
    public static function receiver(
        Speaker $speaker,
        ?int $baud,
        bool $inverted,
        array $frames,
        ?LinkStatistics $link = null,
        int $whole = 0,
    ): self {
        $interval = FrameTiming::of(array_column($frames, 0));
        $flagged = \count(array_filter($frames, static fn (array $f): bool => $f[1]->lost));
        $due = \count($frames) + $interval->missing;
        $last = [] === $frames ? null : $frames[\count($frames) - 1][1];

        return new self(
            $speaker,
            $baud,
            $inverted,
            // Where nobody is heard, what is told of the link is all there is.
            [] === $frames ? $whole : \count($frames),
            $interval->medianMs,
            $due > 0 ? ($flagged + $interval->missing) / $due : 0.0,
            ($last->failsafe ?? false) || (null !== $link && 0 === $link->qualityPct),
            $last->channelsUs ?? [],
            $link,
        );
    }

    public static function position(int $baud, bool $inverted, int $sentences): self
    {
        return new self(Speaker::Nmea, $baud, $inverted, $sentences, null, 0.0, false, [], null);
    }

    /** @return array<string, mixed> as the command line prints it: sixteen channels, null where there is none */
    public function toArray(): array
    {
        return [
            'protocol' => $this->speaker->value,
            'baud' => $this->baud,
            'inverted' => $this->inverted,
            'frames' => $this->frames,
            'interval_ms' => null === $this->intervalMs ? null : round($this->intervalMs, 3),
            'lost_share' => round($this->lostShare, 4),
            'failsafe' => $this->failsafe,
            'channels_us' => array_pad(
                array_map(static fn (float $us): float => round($us, 3), \array_slice($this->channelsUs, 0, RadioFrame::CHANNELS)),
                RadioFrame::CHANNELS,
                null,
            ),
        ];
    }
}
