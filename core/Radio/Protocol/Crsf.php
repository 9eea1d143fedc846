<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Protocol;

/**
 * CRSF: address C8, length of what follows, type, payload, CRC-8 over type and payload. Channels are type 16, with
 * µs = 1500 + (v − 992)·5/8; link statistics are type 14; telemetry goes back in the same frames.
 */
final readonly class Crsf
{
    public const CHANNELS = 0x16;
    public const LINK = 0x14;
    public const BATTERY = 0x08;
    public const POSITION = 0x02;
    public const ATTITUDE = 0x1E;
    private const ADDRESS = "\xC8";
    private const LINK_BYTES = 10;

    /** Longest frame, from its address to its check. */
    private const MOST = 64;

    /** Powers that link statistics can tell, mW. */
    private const POWERS = [0, 10, 25, 100, 500, 1000, 2000, 250, 50];

    public static function frame(int $type, string $payload): string
    {
        $body = \chr($type).$payload;

        return self::ADDRESS.\chr(\strlen($body) + 1).$body.\chr(Crc8::of($body));
    }

    /** @param list<float> $channelsUs */
    public static function channels(array $channelsUs): string
    {
        return self::frame(self::CHANNELS, Bits::pack(array_map(self::value(...), array_pad($channelsUs, RadioFrame::CHANNELS, 1500.0))));
    }

    public static function link(LinkStatistics $link): string
    {
        $rssi = (int) round(-$link->rssiDbm);
        $power = (int) array_search($link->powerMw, self::POWERS, true);

        return self::frame(self::LINK, pack('C10', $rssi, $rssi + 3, $link->qualityPct, $link->snrDb & 0xFF, 0, 4, $power, $rssi, 100, 10));
    }

    /**
     * Takes the first whole, sound frame out of $buffer, dropping what stands before it; null when there is none yet.
     *
     * @param int $refused goes up for each frame whose check was wrong
     *
     * @return array{int, string}|null type and payload
     */
    public static function take(string &$buffer, int &$refused = 0): ?array
    {
        while (false !== ($at = strpos($buffer, self::ADDRESS))) {
            $buffer = substr($buffer, $at);
            if (\strlen($buffer) < 2) {
                return null;
            }
            $length = \ord($buffer[1]);
            if ($length < 2 || $length > self::MOST - 2) {
                $buffer = substr($buffer, 1);
                continue;
            }
            if (\strlen($buffer) < 2 + $length) {
                return null;
            }
            $body = substr($buffer, 2, $length - 1);
            if (Crc8::of($body) !== \ord($buffer[1 + $length])) {
                ++$refused;
                $buffer = substr($buffer, 1);
                continue;
            }
            $buffer = substr($buffer, 2 + $length);

            return [\ord($body[0]), substr($body, 1)];
        }
        $buffer = '';

        return null;
    }

    /** Null for a payload that holds no channels. */
    public static function channelsIn(string $payload): ?RadioFrame
    {
        return Bits::BYTES === \strlen($payload) ? new RadioFrame(array_map(self::us(...), Bits::unpack($payload))) : null;
    }

    /** Null for a payload that holds no link statistics. */
    public static function linkIn(string $payload): ?LinkStatistics
    {
        if (self::LINK_BYTES !== \strlen($payload)) {
            return null;
        }
        $snr = \ord($payload[3]);

        return new LinkStatistics(
            -min(\ord($payload[0]), \ord($payload[1])),
            \ord($payload[2]),
            $snr > 127 ? $snr - 256 : $snr,
            self::POWERS[\ord($payload[6])] ?? 0,
        );
    }

    public static function us(int $value): float
    {
        return 1500 + (($value - 992) * 5) / 8;
    }

    public static function value(float $us): int
    {
        return max(0, min(Bits::MOST, (int) round((($us - 1500) * 8) / 5) + 992));
    }
}
