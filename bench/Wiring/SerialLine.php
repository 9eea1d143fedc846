<?php

declare(strict_types=1);

namespace Ortholex\Bench\Wiring;

/** One wire between two serial ports: bits as levels over time, one start bit, eight data bits, one stop bit. */
final readonly class SerialLine
{
    /**
     * What a receiver makes of bytes, sampling at its own rate and polarity; at the wrong ones this is rubbish.
     *
     * @param bool $turned whether one side inverts and the other does not
     */
    public static function received(string $bytes, float $sentBaud, float $readBaud, bool $turned): string
    {
        if (!$turned && abs($sentBaud - $readBaud) < 0.02 * $sentBaud) {
            return $bytes;
        }
        $levels = [];
        foreach (str_split($bytes) as $byte) {
            $levels[] = 0;
            for ($bit = 0, $value = \ord($byte); $bit < 8; ++$bit) {
                $levels[] = ($value >> $bit) & 1;
            }
            $levels[] = 1;
        }
        if ($turned) {
            $levels = array_map(static fn (int $l): int => 1 - $l, $levels);
        }
        $end = \count($levels) / $sentBaud;
        $level = static fn (float $t): int => $levels[(int) ($t * $sentBaud)] ?? 1;
        $out = '';
        $step = 0.25 / max($readBaud, $sentBaud);
        for ($t = 0.0; $t < $end;) {
            if (0 !== $level($t)) {
                $t += $step;
                continue;
            }
            $value = 0;
            for ($bit = 0; $bit < 8; ++$bit) {
                $value |= $level($t + (1.5 + $bit) / $readBaud) << $bit;
            }
            // Without its stop bit the byte is lost; the receiver waits for the line to rest.
            if (1 === $level($t + 9.5 / $readBaud)) {
                $out .= \chr($value);
            }
            $t += 9.6 / $readBaud;
            while ($t < $end && 0 === $level($t) && 1 !== $level($t - $step)) {
                $t += $step;
            }
        }

        return $out;
    }
}
