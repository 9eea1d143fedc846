<?php

declare(strict_types=1);

namespace Ortholex\Core\Link;

/**
 * One message on the wire: sync bytes D5 2D, kind, length (little-endian, 16 bit), payload, CRC-32
 * (IEEE 802.3, little-endian) of kind to payload. docs/link.md has the table of kinds.
 */
final readonly class Message
{
    public const IDENTITY = 0x01;
    public const STATE = 0x02;
    public const READ_SETTINGS = 0x03;
    public const WRITE_SETTING = 0x04;
    public const KEEP_SETTINGS = 0x05;
    public const RESTART = 0x06;
    public const TO_BOOTLOADER = 0x07;
    public const SENSORS = 0x08;
    public const SPIN = 0x09;
    public const RELAY = 0x0A;
    public const TEACH = 0x0B;
    public const RPM = 0x0C;
    public const GYRO_BURST = 0x0D;
    public const CATCH_ESC = 0x0E;
    public const LISTEN = 0x0F;
    public const WIPE_SETTINGS = 0x10;
    public const WRITE_PAGE = 0x11;
    public const READ_FLASH = 0x12;
    public const RUN = 0x13;
    public const RADIO = 0x14;
    public const EDGES = 0x15;
    public const REHEARSE = 0x16;
    public const SERIAL = 0x17;
    public const COMPASS = 0x18;
    public const SERVO = 0x19;
    public const PICTURE = 0x1A;
    public const CHIP = 0x1B;
    public const RECORDER = 0x1C;
    public const ESC_IDENTITY = 0x21;
    public const ESC_READ = 0x22;
    public const ESC_WRITE = 0x23;
    public const ESC_TO_BOOTLOADER = 0x24;
    public const ESC_WRITE_PAGE = 0x25;
    public const ESC_READ_FLASH = 0x26;
    public const ESC_RUN = 0x27;
    public const CHIP_IDENTITY = 0x31;
    public const CHIP_TO_BOOTLOADER = 0x32;
    public const CHIP_WRITE_PAGE = 0x33;
    public const CHIP_READ_FLASH = 0x34;
    public const CHIP_RUN = 0x35;
    public const ANSWER = 0x80;
    public const REFUSAL = 0xFF;
    public const MOST_PAYLOAD = 8192;
    private const OVERHEAD = 9;
    private const SYNC = "\xD5\x2D";

    public function __construct(public int $kind, public string $payload)
    {
    }

    public function encode(): string
    {
        $body = pack('Cv', $this->kind, \strlen($this->payload)).$this->payload;

        return self::SYNC.$body.pack('V', crc32($body));
    }

    /** Takes the first whole, sound frame out of $buffer, dropping rubbish before it; null when there is none yet. */
    public static function take(string &$buffer): ?self
    {
        while (true) {
            $at = strpos($buffer, self::SYNC);
            if (false === $at) {
                // The last byte may be half a sync.
                $buffer = '' !== $buffer && self::SYNC[0] === $buffer[-1] ? $buffer[-1] : '';

                return null;
            }
            $buffer = substr($buffer, $at);
            if (\strlen($buffer) < self::OVERHEAD) {
                return null;
            }
            $length = \ord($buffer[3]) | (\ord($buffer[4]) << 8);
            if ($length > self::MOST_PAYLOAD) {
                $buffer = substr($buffer, 2);
                continue;
            }
            if (\strlen($buffer) < self::OVERHEAD + $length) {
                return null;
            }
            $body = substr($buffer, 2, 3 + $length);
            if (substr($buffer, 5 + $length, 4) !== pack('V', crc32($body))) {
                $buffer = substr($buffer, 2);
                continue;
            }
            $buffer = substr($buffer, self::OVERHEAD + $length);

            return new self(\ord($body[0]), substr($body, 3));
        }
    }

    /**
     * Strings, each with its length in one byte ahead.
     *
     * @param list<string> $fields
     */
    public static function fields(array $fields): string
    {
        $out = '';
        foreach ($fields as $field) {
            $field = substr($field, 0, 255);
            $out .= \chr(\strlen($field)).$field;
        }

        return $out;
    }

    /** @return list<string> */
    public static function unfields(string $bytes): array
    {
        $fields = [];
        for ($i = 0, $n = \strlen($bytes); $i < $n; $i += 1 + $length) {
            $length = \ord($bytes[$i]);
            $fields[] = substr($bytes, $i + 1, $length);
        }

        return $fields;
    }
}
