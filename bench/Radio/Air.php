<?php

declare(strict_types=1);

namespace Ortholex\Bench\Radio;

use Ortholex\Core\LinkLoss\Manner;
use Ortholex\Core\Radio\Protocol\Crsf;
use Ortholex\Core\Radio\Protocol\LinkStatistics;
use Ortholex\Core\Radio\Protocol\RadioFrame;
use Ortholex\Core\Radio\Protocol\Sbus;
use Ortholex\Core\Radio\Wire\Edges;
use Ortholex\Core\Radio\Wire\PulseTrain;
use Ortholex\Core\Radio\Wire\SerialWriter;

/**
 * What one receiver hears and says over a time: reckoned from the state and the clock alone, so that whoever asks twice hears the same.
 */
final readonly class Air
{
    /** Every so many frames a two-way receiver tells of the link. */
    private const LINK_EVERY = 6;

    /** A transmitter sends so long after it is switched on, s. */
    private const WAKES_S = 0.02;

    /** A receiver waits so long for its transmitter before it takes it for gone, s. */
    public const GONE_S = 0.1;

    private Model $memory;

    public function __construct(private Rill $kind, private RadioState $radio, private bool $on, private bool $powered)
    {
        $this->memory = $radio->memory();
    }

    /** Whether what the transmitter sends is meant for this receiver. */
    public function isBound(): bool
    {
        return '' !== $this->radio->boundTo && $this->radio->boundTo === $this->radio->model;
    }

    /** Whether the receiver hears its transmitter at a time. */
    public function hears(float $time): bool
    {
        $sent = $this->on ? $time >= $this->radio->switchedAt + self::WAKES_S : $time < $this->radio->switchedAt;

        return $this->powered && $this->isBound() && $sent;
    }

    public function number(float $time): int
    {
        return (int) floor($time / $this->kind->interval());
    }

    public function time(int $number): float
    {
        return $number * $this->kind->interval();
    }

    /** What frame of that number says; null where the receiver says nothing then. */
    public function frame(int $number): ?RadioFrame
    {
        $time = $this->time($number);
        if (!$this->powered || !$this->wasEverHeard($time)) {
            return null;
        }
        $repeats = \in_array($this->kind, [Rill::S, Rill::P, Rill::W], true);
        if ($this->hears($time)) {
            $lost = $this->isDropped($number);
            if ($lost && !$repeats) {
                return null;
            }

            return new RadioFrame($this->channels($lost ? $number - 1 : $number), $lost);
        }
        $last = $this->number(min($time, $this->radio->switchedAt) - 0.03);
        if ($time < $this->radio->switchedAt + self::GONE_S) {
            return $repeats ? new RadioFrame($this->channels($last), true) : null;
        }

        return match ($this->manner()) {
            Manner::Stops => null,
            Manner::Flags => new RadioFrame($this->channels($last), true, true),
            Manner::Repeats => new RadioFrame($this->channels($last)),
            Manner::Presets => new RadioFrame($this->radio->presets()),
        };
    }

    private function manner(): Manner
    {
        return $this->radio->manner ?? $this->kind->manner();
    }

    /** What a two-way receiver tells of its link at a time. */
    public function link(float $time): LinkStatistics
    {
        // One that does not own up to having lost its transmitter tells of the link as it was.
        $owns = !\in_array($this->manner(), [Manner::Repeats, Manner::Presets], true) || !$this->wasEverHeard($time);
        $quality = $this->hears($time) || !$owns ? (int) round(100 * (1 - $this->radio->lost())) : 0;
        $fade = $this->noise(intdiv($this->number($time), self::LINK_EVERY), 99);

        return 0 === $quality ? new LinkStatistics(-130, 0, 0, 0) : new LinkStatistics(
            round($this->radio->rssi() + 2 * $fade),
            $quality,
            9,
            $this->radio->quiet ? 10 : 100,
        );
    }

    /** Everything that stands on its wire from one moment to another; µs from the first. */
    public function edges(float $from, float $to): Edges
    {
        $line = $this->kind->protocol()->line();
        $numbers = range($this->number($from), $this->number($to));
        if (null === $line) {
            $times = $levels = [];
            foreach ($numbers as $number) {
                $frame = $this->frame($number);
                $at = 1e6 * ($this->time($number) - $from);
                [$t, $l] = null === $frame
                    ? [[], []]
                    : (Rill::P === $this->kind
                        ? PulseTrain::send(\array_slice($frame->channelsUs, 0, 8), $at, false)
                        : [[$at, $at + $frame->channelsUs[0]], [1, 0]]);
                array_push($times, ...$t);
                array_push($levels, ...$l);
            }

            return Edges::of($times, $levels, 0);
        }
        $writer = new SerialWriter($line);
        foreach ($numbers as $number) {
            $writer->send($this->bytes($number), 1e6 * ($this->time($number) - $from));
        }

        return $writer->edges();
    }

    /** What it sends in the time of one frame. */
    public function bytes(int $number): string
    {
        if (!$this->powered) {
            return '';
        }
        $frame = $this->frame($number);
        if (Rill::S === $this->kind) {
            return null === $frame ? '' : Sbus::encode($frame);
        }
        // The two-way one tells that it has no link even before it was ever bound.
        $link = 0 === $number % self::LINK_EVERY ? Crsf::link($this->link($this->time($number))) : '';

        return (null === $frame ? '' : Crsf::channels($frame->channelsUs)).$link;
    }

    /** One that never heard its transmitter since it has power says nothing of channels. */
    private function wasEverHeard(float $time): bool
    {
        $since = $this->on ? $time >= $this->radio->switchedAt : $this->radio->switchedAt > $this->radio->poweredAt;

        return $this->isBound() && $since && $time >= $this->radio->poweredAt;
    }

    private function isDropped(int $number): bool
    {
        $lost = $this->radio->lost();

        return $lost > 1e-6 && 0.5 + $this->even($number, 50) < $lost;
    }

    /** @return list<float> sixteen, µs, with the tremble of worn sticks */
    private function channels(int $number): array
    {
        $controls = $this->radio->at($this->time($number));
        $memory = $this->memory;
        $out = [];
        for ($channel = 0; $channel < 16; ++$channel) {
            $us = $memory->us($channel, $controls);
            if ($this->radio->tremble > 0 && $channel < Model::CHANNELS && $memory->order[$channel] < 4) {
                $us += $this->radio->tremble * $this->noise($number, $channel);
            }
            $out[] = $us;
        }

        return $out;
    }

    /** Even, −0.5 to 0.5. */
    private function even(int $number, int $of): float
    {
        /** @var array{1: int} $v */
        $v = unpack('V', hash('xxh32', pack('q2', $number, $of + 1000 * $this->radio->seed), true));

        return $v[1] / 4294967295 - 0.5;
    }

    /** About normal, unit deviation, never over 3.5: sum of four even ones. */
    private function noise(int $number, int $of): float
    {
        $sum = 0.0;
        for ($k = 0; $k < 4; ++$k) {
            $sum += $this->even($number, $of + 100 * $k);
        }

        return 1.732 * $sum;
    }
}
