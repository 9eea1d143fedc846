<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Wire;

use Ortholex\Core\Radio\Protocol\Line;
use Ortholex\Core\Radio\Protocol\Parity;

/** What a serial port makes of a wire: each byte begins at a change to the start bit and is sampled in the middle of its bits. */
final readonly class SerialReader
{
    /** Bytes as far apart as one lasts, within this share, followed each other at once. */
    private const SAME_BYTE = 0.09;

    private const LEAST_BYTES = 10;

    /**
     * @param string      $bytes   those whose parity and stop bits are right
     * @param list<float> $endsUs  when each ended
     * @param list<float> $startsUs
     * @param int         $broken  bytes without their parity or stop bits
     */
    private function __construct(public string $bytes, public array $endsUs, public array $startsUs, public int $broken)
    {
    }

    public static function of(Edges $edges, Line $line): self
    {
        [$times, $levels, $rest] = [$edges->timesUs, $edges->levels, $line->inverted ? 0 : 1];
        $bit = 1e6 / $line->baud;
        $bits = $line->bits();
        $bytes = '';
        $starts = $ends = [];
        $broken = 0;
        for ($i = 0, $n = \count($times); $i < $n;) {
            if ($levels[$i] === $rest) {
                ++$i;
                continue;
            }
            $start = $times[$i];
            $level = $levels[$i];
            $value = $ones = 0;
            $stopped = true;
            $k = $i;
            for ($b = 1; $b < $bits; ++$b) {
                $at = $start + ($b + 0.5) * $bit;
                while ($k + 1 < $n && $times[$k + 1] <= $at) {
                    $level = $levels[++$k];
                }
                $mark = $level === $rest ? 1 : 0;
                if ($b <= 8) {
                    $value |= $mark << ($b - 1);
                    $ones += $mark;
                } elseif (9 === $b && Parity::Even === $line->parity) {
                    $stopped = $stopped && ($ones & 1) === $mark;
                } else {
                    $stopped = $stopped && 1 === $mark;
                }
            }
            if ($stopped) {
                $bytes .= \chr($value);
                $starts[] = $start;
                $ends[] = $start + $bits * $bit;
            } else {
                ++$broken;
            }
            // The next byte begins at the next change away from rest after the middle of the last stop bit.
            $i = $k + 1;
        }

        return new self($bytes, $ends, $starts, $broken);
    }

    /**
     * The rate as it was really sent: the mean distance of bytes that followed each other at once; null where too few did.
     */
    public function baud(Line $line): ?float
    {
        $byte = ($line->bits() * 1e6) / $line->baud;
        $sum = $n = 0;
        for ($i = 1, $count = \count($this->startsUs); $i < $count; ++$i) {
            $apart = $this->startsUs[$i] - $this->startsUs[$i - 1];
            if (abs($apart - $byte) < self::SAME_BYTE * $byte) {
                $sum += $apart;
                ++$n;
            }
        }

        return $n < self::LEAST_BYTES ? null : ($n * $line->bits() * 1e6) / $sum;
    }

    /**
     * Bytes that follow each other without a pause of more than so many bits.
     *
     * @return list<array{string, float}> bytes, and when the first began, µs
     */
    public function bursts(Line $line, float $pauseBits = 20): array
    {
        $pause = ($pauseBits * 1e6) / $line->baud;
        $out = [];
        $from = 0;
        for ($i = 1, $n = \strlen($this->bytes); $i <= $n; ++$i) {
            if ($i === $n || $this->startsUs[$i] - $this->endsUs[$i - 1] > $pause) {
                $out[] = [substr($this->bytes, $from, $i - $from), $this->startsUs[$from]];
                $from = $i;
            }
        }

        return $out;
    }
}
