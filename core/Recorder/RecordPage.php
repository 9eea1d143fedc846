<?php

declare(strict_types=1);

namespace Ortholex\Core\Recorder;

/**
 * One page of a recording, as bytes: mark, head, payload under zlib, with a CRC-32 over all but the mark. See docs/recorder-format.md.
 */
final readonly class RecordPage
{
    public const MARK = "\xD7OXPAGE\n";
    public const VERSION = 1;

    /** Kinds of page. */
    public const HEAD = 0;

    public const DATA = 1;

    /** Bytes between the mark and the payload. */
    public const HEAD_BYTES = 32;

    /** No payload is larger, packed or not: a damaged length asks for no memory. */
    private const MOST_BYTES = 4_194_304;

    private function __construct(
        public int $kind,
        public int $number,
        public float $startS,
        public int $samples,
        public int $traces,
        public string $payload,
        public int $bytes,
    ) {
    }

    public static function encode(int $kind, int $number, float $startS, int $samples, int $traces, string $payload): string
    {
        $packed = (string) gzcompress($payload, 6);
        $head = pack('CCvVeVV', $kind, self::VERSION, $traces, $number, $startS, $samples, \strlen($packed));
        // Four bytes more to come: what the payload is unpacked.
        $head .= pack('V', \strlen($payload));
        $sum = pack('V', crc32($head.$packed));

        return self::MARK.$head.$sum.$packed;
    }

    /** @return self|null null where no whole page stands there: torn, flipped or cut off */
    public static function decode(string $bytes, int $at): ?self
    {
        $from = $at + \strlen(self::MARK);
        $head = substr($bytes, $from, self::HEAD_BYTES);
        if (self::HEAD_BYTES !== \strlen($head)) {
            return null;
        }
        /** @var array{kind: int, traces: int, number: int, start: float, samples: int, length: int, full: int, sum: int} $h */
        $h = (array) unpack('Ckind/Cversion/vtraces/Vnumber/estart/Vsamples/Vlength/Vfull/Vsum', $head);
        if ($h['length'] > self::MOST_BYTES || $h['full'] > self::MOST_BYTES) {
            return null;
        }
        $packed = substr($bytes, $from + self::HEAD_BYTES, $h['length']);
        if (\strlen($packed) !== $h['length'] || crc32(substr($head, 0, -4).$packed) !== $h['sum']) {
            return null;
        }
        $payload = @gzuncompress($packed, $h['full'] + 1);
        if (false === $payload || \strlen($payload) !== $h['full'] || !is_finite($h['start'])) {
            return null;
        }
        $all = \strlen(self::MARK) + self::HEAD_BYTES + $h['length'];

        return new self($h['kind'], $h['number'], $h['start'], $h['samples'], $h['traces'], $payload, $all);
    }
}
