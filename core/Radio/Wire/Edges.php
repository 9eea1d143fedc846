<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Wire;

/** One wire as a logic analyser sees it: the moments at which its level changed. */
final readonly class Edges
{
    /**
     * @param list<float> $timesUs rising
     * @param list<int>   $levels  0 or 1, after each change; in turns
     * @param int         $rest    level before the first
     */
    private function __construct(public array $timesUs, public array $levels, public int $rest)
    {
    }

    /**
     * @param list<float> $timesUs rising
     * @param list<int>   $levels  after each; what changes nothing is left out
     */
    public static function of(array $timesUs, array $levels, ?int $rest = null): self
    {
        $level = $rest ?? (isset($levels[0]) ? 1 - $levels[0] : 1);
        $before = $level;
        $times = $changed = [];
        foreach ($timesUs as $i => $time) {
            if ($levels[$i] !== $level) {
                $times[] = $time;
                $changed[] = $level = $levels[$i];
            }
        }

        return new self($times, $changed, $before);
    }

    public function count(): int
    {
        return \count($this->timesUs);
    }

    /** The same without pulses shorter than this: what a spark or a reflection leaves. */
    public function without(float $shorterUs): self
    {
        $times = $levels = [];
        foreach ($this->timesUs as $i => $time) {
            $last = \count($times) - 1;
            if ($last >= 0 && $time - $times[$last] < $shorterUs) {
                array_pop($times);
                array_pop($levels);
                continue;
            }
            $times[] = $time;
            $levels[] = $this->levels[$i];
        }

        return self::of($times, $levels, $this->rest);
    }

    /** As bytes: how long after the one before each change came, in tenths of a µs, seven bits a byte, most first. */
    public function pack(): string
    {
        $out = \chr($this->rest);
        $before = 0;
        foreach ($this->timesUs as $time) {
            $now = (int) round(10 * $time);
            $gap = $now - $before;
            $before = $now;
            $one = \chr($gap & 0x7F);
            while (($gap >>= 7) > 0) {
                $one = \chr(0x80 | ($gap & 0x7F)).$one;
            }
            $out .= $one;
        }

        return $out;
    }

    public static function unpack(string $bytes): self
    {
        $rest = '' === $bytes ? 1 : \ord($bytes[0]) & 1;
        $times = $levels = [];
        $level = $rest;
        $now = $gap = 0;
        for ($i = 1, $n = \strlen($bytes); $i < $n; ++$i) {
            $gap = ($gap << 7) | (\ord($bytes[$i]) & 0x7F);
            if (\ord($bytes[$i]) < 0x80) {
                $now += $gap;
                $times[] = $now / 10;
                $levels[] = $level = 1 - $level;
                $gap = 0;
            }
        }

        return self::of($times, $levels, $rest);
    }
}
