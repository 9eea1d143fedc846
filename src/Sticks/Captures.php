<?php

declare(strict_types=1);

namespace Ortholex\App\Sticks;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\ParameterType;
use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Link\RadioReading;
use Ortholex\Core\Radio\Span\OrderCode;
use Ortholex\Core\Radio\Span\StickHistory;

/**
 * What the channels said since a capture was begun: whoever looks at the radio meanwhile adds the frames that are new, so that it does
 * not matter how many pages look, nor which.
 */
final readonly class Captures
{
    /** A capture keeps as much: 90 s at 150 frames a second. */
    private const MOST_FRAMES = 13_500;

    private const CHANNELS = 16;
    private const ROW = 'SELECT kind, asked, plugging, last_frame, why FROM stick_capture WHERE craft_id = ?';

    public function __construct(private Connection $db)
    {
    }

    public function of(Craft $craft): ?Capture
    {
        $row = $this->db->fetchAssociative(self::ROW, [$craft->id]);
        if (false === $row || !\is_string($row['kind']) || !\is_string($row['asked'])) {
            return null;
        }
        $whole = static fn (mixed $v): int => is_numeric($v) ? (int) $v : 0;

        return new Capture(
            CaptureKind::from($row['kind']),
            Channel::tryFrom($row['asked']),
            $whole($row['plugging']),
            $whole($row['last_frame']),
            self::why($row['why']),
        );
    }

    /** Begins anew; frames up to the given one are of before. */
    public function begin(Craft $craft, CaptureKind $kind, ?Channel $asked, int $plugging, int $lastFrame): void
    {
        $this->db->transactional(function () use ($craft, $kind, $asked, $plugging, $lastFrame): void {
            $this->end($craft);
            $this->db->insert('stick_capture', [
                'craft_id' => $craft->id,
                'kind' => $kind->value,
                'asked' => $asked->value ?? '',
                'plugging' => $plugging,
                'last_frame' => $lastFrame,
            ]);
        });
    }

    public function hinder(Craft $craft, Fact $why): void
    {
        $this->db->update('stick_capture', ['why' => json_encode($why->toArray(), \JSON_THROW_ON_ERROR)], ['craft_id' => $craft->id]);
    }

    private static function why(mixed $kept): ?Fact
    {
        $data = \is_string($kept) && '' !== $kept ? json_decode($kept, true) : null;

        return \is_array($data) ? Fact::fromArray(Stored::of($data), OrderCode::class) : null;
    }

    public function end(Craft $craft): void
    {
        $this->db->delete('stick_piece', ['craft_id' => $craft->id]);
        $this->db->delete('stick_capture', ['craft_id' => $craft->id]);
    }

    /** Adds what is new; of two that bring the same, the first does. */
    public function add(Craft $craft, Capture $capture, RadioReading $reading): void
    {
        $frames = '';
        foreach ($reading->frames as [$number, , $channels]) {
            if ($number > $capture->lastFrame && [] !== $channels) {
                $us = array_map(static fn (float $us): int => (int) round(16 * $us), array_pad($channels, self::CHANNELS, 0.0));
                $frames .= pack('V', $number).pack('v'.self::CHANNELS, ...$us);
            }
        }
        if ('' === $frames) {
            return;
        }
        $this->db->transactional(function () use ($craft, $capture, $reading, $frames): void {
            $mine = $this->db->executeStatement('UPDATE stick_capture SET last_frame = ? WHERE craft_id = ? AND last_frame = ?', [
                $reading->newest,
                $craft->id,
                $capture->lastFrame,
            ]);
            if (1 === (int) $mine) {
                $row = ['craft_id' => $craft->id, 'frames' => $frames];
                $this->db->insert('stick_piece', $row, ['frames' => ParameterType::LARGE_OBJECT]);
            }
        });
    }

    /** All of it, as it came. */
    public function history(Craft $craft, float $intervalMs): StickHistory
    {
        $times = $channels = [];
        $size = 4 + 2 * self::CHANNELS;
        foreach ($this->db->iterateColumn('SELECT frames FROM stick_piece WHERE craft_id = ? ORDER BY id', [$craft->id]) as $blob) {
            $bytes = \is_resource($blob) ? (string) stream_get_contents($blob) : (\is_string($blob) ? $blob : '');
            for ($at = 0; $at + $size <= \strlen($bytes) && \count($times) < self::MOST_FRAMES; $at += $size) {
                /** @var array<int, int> $v */
                $v = unpack('Vn/v'.self::CHANNELS.'c', $bytes, $at);
                $v = array_values($v);
                $times[] = ($v[0] * $intervalMs) / 1000;
                for ($c = 1; $c <= self::CHANNELS; ++$c) {
                    if ($v[$c] > 0) {
                        $channels[$c][] = $v[$c] / 16;
                    }
                }
            }
        }

        return new StickHistory($times, $channels);
    }
}
