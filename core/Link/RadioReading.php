<?php

declare(strict_types=1);

namespace Ortholex\Core\Link;

use Ortholex\Core\Arming\GuardReading;
use Ortholex\Core\Radio\Heard;
use Ortholex\Core\Radio\Protocol\LinkStatistics;
use Ortholex\Core\Radio\Protocol\Telemetry;

/** What a board makes of its receiver at one moment, as it tells it over the link. */
final readonly class RadioReading
{
    /** Frames that one answer can hold. */
    public const MOST_FRAMES = 200;

    private const HEAD = 'Vnewest/Cheard/vlost/vinterval/vspread/Clink/Cquality/crssi/csnr/vpower';
    private const HEAD_BYTES = 17;
    private const MAPPED_BYTES = 20;
    private const CHANNELS = 16;

    /**
     * @param int                                  $newest     number of the newest frame; it begins anew when the board starts
     * @param float                                $lostShare  0 to 1, of the last two seconds
     * @param float|null                           $intervalMs null without frames
     * @param float                                $spreadMs   of the interval
     * @param array{roll: float, pitch: float, yaw: float, throttle: float} $mapped what the sticks mean: −1 to 1, throttle 0 to 1
     * @param int                                  $actions    bits of those on, see Action
     * @param GuardReading                         $guard      whether it is armed, what forbids it, and where its link-loss plan stands
     * @param list<array{int, float, list<float>}> $frames     number, seconds before the newest, channels in µs; oldest first
     * @param string                               $telemetry  as it goes to the transmitter
     */
    public function __construct(
        public int $newest,
        public Heard $heard,
        public float $lostShare,
        public ?float $intervalMs,
        public float $spreadMs,
        public ?LinkStatistics $link,
        public array $mapped,
        public int $actions,
        public GuardReading $guard,
        public array $frames,
        public string $telemetry,
    ) {
    }

    public static function silent(Heard $heard, GuardReading $guard, string $telemetry): self
    {
        $still = ['roll' => 0.0, 'pitch' => 0.0, 'yaw' => 0.0, 'throttle' => 0.0];

        return new self(0, $heard, 0.0, null, 0.0, null, $still, 0, $guard, [], $telemetry);
    }

    /** @return list<float> channels as they are now, µs; none while nobody is heard */
    public function channels(): array
    {
        $last = \count($this->frames) - 1;

        return Heard::Frames === $this->heard && $last >= 0 ? $this->frames[$last][2] : [];
    }

    public function told(): Telemetry
    {
        return Telemetry::in($this->telemetry);
    }

    public function pack(): string
    {
        $link = $this->link;
        $out = pack(
            'VCvvvCCccv',
            $this->newest,
            $this->heard->code(),
            (int) round(1000 * $this->lostShare),
            (int) round(1000 * ($this->intervalMs ?? 0)),
            (int) round(1000 * $this->spreadMs),
            null === $link ? 0 : 1,
            $link->qualityPct ?? 0,
            max(-128, (int) round($link->rssiDbm ?? 0)),
            $link->snrDb ?? 0,
            $link->powerMw ?? 0,
        );
        $m = $this->mapped;
        $out .= pack('g4V', $m['roll'], $m['pitch'], $m['yaw'], $m['throttle'], $this->actions).$this->guard->pack();
        $out .= pack('v', \strlen($this->telemetry)).$this->telemetry.pack('v', \count($this->frames));
        foreach ($this->frames as [$number, $before, $channels]) {
            $out .= pack('Vv', $number, (int) round(1e4 * $before));
            $all = array_pad($channels, self::CHANNELS, 0.0);
            $out .= pack('v16', ...array_map(static fn (float $us): int => (int) round(16 * $us), $all));
        }

        return $out;
    }

    /** Null when it is too short for what it says it holds. */
    public static function unpack(string $bytes): ?self
    {
        if (\strlen($bytes) < self::HEAD_BYTES + self::MAPPED_BYTES + GuardReading::BYTES + 4) {
            return null;
        }
        /** @var array<string, int> $h */
        $h = unpack(self::HEAD, $bytes);
        /** @var array{roll: float, pitch: float, yaw: float, throttle: float, on: int} $m */
        $m = unpack('groll/gpitch/gyaw/gthrottle/Von', $bytes, self::HEAD_BYTES);
        $guard = GuardReading::unpack(substr($bytes, self::HEAD_BYTES + self::MAPPED_BYTES, GuardReading::BYTES));
        $at = self::HEAD_BYTES + self::MAPPED_BYTES + GuardReading::BYTES;
        $length = self::short($bytes, $at);
        $telemetry = substr($bytes, $at + 2, $length);
        $at += 2 + $length;
        $count = self::short($bytes, $at);
        $at += 2;
        if (\strlen($bytes) < $at + $count * (6 + 2 * self::CHANNELS)) {
            return null;
        }
        $frames = [];
        for ($i = 0; $i < $count; ++$i, $at += 6 + 2 * self::CHANNELS) {
            /** @var array{n: int, b: int} $f */
            $f = unpack('Vn/vb', $bytes, $at);
            /** @var array<int, int> $us */
            $us = unpack('v'.self::CHANNELS, $bytes, $at + 6);
            $channels = array_map(static fn (int $v): float => $v / 16, array_values($us));
            $frames[] = [$f['n'], $f['b'] / 1e4, array_values(array_filter($channels, static fn (float $v): bool => $v > 0))];
        }

        return new self(
            $h['newest'],
            Heard::ofCode($h['heard']),
            $h['lost'] / 1000,
            0 === $h['interval'] ? null : $h['interval'] / 1000,
            $h['spread'] / 1000,
            0 === $h['link'] ? null : new LinkStatistics((float) $h['rssi'], $h['quality'], $h['snr'], $h['power']),
            ['roll' => $m['roll'], 'pitch' => $m['pitch'], 'yaw' => $m['yaw'], 'throttle' => $m['throttle']],
            $m['on'],
            $guard,
            $frames,
            $telemetry,
        );
    }

    private static function short(string $bytes, int $at): int
    {
        return \strlen($bytes) < $at + 2 ? 0 : \ord($bytes[$at]) | (\ord($bytes[$at + 1]) << 8);
    }
}
