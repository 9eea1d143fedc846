<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Protocol;

/** What a craft tells its pilot: what it measures, as numbers; null for what it has not. */
final readonly class Telemetry
{
    /**
     * @param array{float, float, float}|null        $battery  V, A, mAh used
     * @param array{float, float, float, int}|null   $position latitude and longitude in deg, height in m, satellites
     * @param array{float, float, float}|null        $attitude roll, pitch, yaw in deg
     */
    public function __construct(public ?array $battery = null, public ?array $position = null, public ?array $attitude = null)
    {
    }

    /** @return list<string> frames as a two-way receiver carries them */
    public function frames(): array
    {
        $out = [];
        if (null !== $this->battery) {
            [$volts, $amps, $used] = $this->battery;
            $mah = max(0, min(0xFFFFFF, (int) round($used)));
            $out[] = Crsf::frame(
                Crsf::BATTERY,
                pack('nn', self::whole(10 * $volts, 0, 0xFFFF), self::whole(10 * $amps, 0, 0xFFFF)).substr(pack('N', $mah), 1)."\x00",
            );
        }
        if (null !== $this->position) {
            [$north, $east, $height, $satellites] = $this->position;
            $out[] = Crsf::frame(
                Crsf::POSITION,
                pack('NN', (int) round(1e7 * $north) & 0xFFFFFFFF, (int) round(1e7 * $east) & 0xFFFFFFFF).
                    pack('nnnC', 0, 0, self::whole($height + 1000, 0, 0xFFFF), $satellites),
            );
        }
        if (null !== $this->attitude) {
            [$roll, $pitch, $yaw] = $this->attitude;
            $angle = static fn (float $deg): int => self::whole(1e4 * deg2rad($deg), -0x8000, 0x7FFF) & 0xFFFF;
            $out[] = Crsf::frame(Crsf::ATTITUDE, pack('n3', $angle($pitch), $angle($roll), $angle($yaw)));
        }

        return $out;
    }

    /** What such frames say, put together; what is unknown or broken among them says nothing. */
    public static function in(string $bytes): self
    {
        $battery = $position = $attitude = null;
        while (null !== ($frame = Crsf::take($bytes))) {
            [$type, $payload] = $frame;
            if (Crsf::BATTERY === $type && 8 === \strlen($payload)) {
                /** @var array{v: int, a: int} $u */
                $u = unpack('nv/na', $payload);
                $battery = [$u['v'] / 10, $u['a'] / 10, (float) ((\ord($payload[4]) << 16) | (\ord($payload[5]) << 8) | \ord($payload[6]))];
            } elseif (Crsf::POSITION === $type && 15 === \strlen($payload)) {
                /** @var array{n: int, e: int, h: int, s: int} $u */
                $u = unpack('Nn/Ne/x4/nh/Cs', $payload);
                $signed = static fn (int $v): float => ($v > 0x7FFFFFFF ? $v - 0x100000000 : $v) / 1e7;
                $position = [$signed($u['n']), $signed($u['e']), $u['h'] - 1000.0, $u['s']];
            } elseif (Crsf::ATTITUDE === $type && 6 === \strlen($payload)) {
                /** @var array{p: int, r: int, y: int} $u */
                $u = unpack('np/nr/ny', $payload);
                $deg = static fn (int $v): float => rad2deg(($v > 0x7FFF ? $v - 0x10000 : $v) / 1e4);
                $attitude = [$deg($u['r']), $deg($u['p']), $deg($u['y'])];
            }
        }

        return new self($battery, $position, $attitude);
    }

    private static function whole(float $value, int $low, int $high): int
    {
        return max($low, min($high, (int) round($value)));
    }
}
