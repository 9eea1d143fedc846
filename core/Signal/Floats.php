<?php

declare(strict_types=1);

namespace Ortholex\Core\Signal;

/**
 * Little-endian floats to lists and back. A format that repeats itself makes a text key of each number; one that names some dozens by a
 * letter each does not, and takes two thirds of the time.
 */
final readonly class Floats
{
    /** Numbers packed at once: each is an argument of a call. */
    private const AT_ONCE = 8192;

    /** @param string $names a letter for each number that is unpacked at once */
    private function __construct(private string $code, private int $size, private string $names)
    {
    }

    /** @param 4|8 $size bytes of a number */
    public static function of(int $size): self
    {
        return new self(4 === $size ? 'g' : 'e', $size, 'abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUV');
    }

    /** @param list<float> $values */
    public function pack(array $values): string
    {
        $bytes = '';
        foreach (array_chunk($values, self::AT_ONCE) as $chunk) {
            $bytes .= pack($this->code.'*', ...$chunk);
        }

        return $bytes;
    }

    /** @return list<float> */
    public function unpack(string $bytes): array
    {
        $values = [];
        [$format, $step] = $this->format(\strlen($this->names));
        $end = \strlen($bytes) - $step;
        $at = 0;
        for (; $at <= $end; $at += $step) {
            foreach (self::part($format, $bytes, $at) as $value) {
                $values[] = $value;
            }
        }
        foreach ($this->rest($bytes, $at) as $value) {
            $values[] = $value;
        }

        return $values;
    }

    /**
     * The means of so many numbers each; what is left over is left out.
     *
     * @return list<float>
     */
    public function means(string $bytes, int $factor): array
    {
        $values = [];
        $most = \strlen($this->names);
        [$format, $step] = $this->format($factor < $most ? $most - $most % $factor : $most);
        $end = \strlen($bytes) - $step;
        $sum = 0.0;
        $left = $factor;
        $at = 0;
        for (; $at <= $end; $at += $step) {
            foreach (self::part($format, $bytes, $at) as $value) {
                $sum += $value;
                if (0 === --$left) {
                    $values[] = $sum / $factor;
                    $sum = 0.0;
                    $left = $factor;
                }
            }
        }
        foreach ($this->rest($bytes, $at) as $value) {
            $sum += $value;
            if (0 === --$left) {
                $values[] = $sum / $factor;
                $sum = 0.0;
                $left = $factor;
            }
        }

        return $values;
    }

    /**
     * The first number and each so many further on; what lies between is not looked at.
     *
     * @return list<float>
     */
    public function each(string $bytes, int $step): array
    {
        if ($step <= 1) {
            return $this->unpack($bytes);
        }
        $between = $this->size * ($step - 1);
        $parts = [];
        foreach (str_split($this->names) as $n => $name) {
            // By its place: to skip so many bytes takes as long as to read them.
            $parts[] = '@'.$n * $this->size * $step.'/'.$this->code.$name;
        }
        $format = implode('/', $parts);
        $stride = $this->size * $step * \strlen($this->names);
        $end = \strlen($bytes) - $stride;
        $values = [];
        $at = 0;
        for (; $at <= $end; $at += $stride) {
            foreach (self::part($format, $bytes, $at) as $value) {
                $values[] = $value;
            }
        }
        for ($end = \strlen($bytes) - $this->size; $at <= $end; $at += $between + $this->size) {
            foreach (self::part($this->code, $bytes, $at) as $value) {
                $values[] = $value;
            }
        }

        return $values;
    }

    /** @return array{string, int} of so many numbers, and their bytes */
    private function format(int $numbers): array
    {
        return [$this->code.implode('/'.$this->code, str_split(substr($this->names, 0, $numbers))), $numbers * $this->size];
    }

    /** @return array<float> the numbers from a byte on */
    private function rest(string $bytes, int $at): array
    {
        return \strlen($bytes) - $at < $this->size ? [] : self::part($this->code.'*', $bytes, $at);
    }

    /** @return array<float> */
    private static function part(string $format, string $bytes, int $at): array
    {
        /** @var array<float>|false $values */
        $values = unpack($format, $bytes, $at);

        return false === $values ? [] : $values;
    }
}
