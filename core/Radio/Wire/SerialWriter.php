<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Wire;

use Ortholex\Core\Radio\Protocol\Line;
use Ortholex\Core\Radio\Protocol\Parity;

/** Puts bytes on a wire: the moments at which its level changes. */
final class SerialWriter
{
    /** @var list<float> */
    private array $times = [];

    /** @var list<int> */
    private array $levels = [];

    private float $free = 0.0;

    public function __construct(private readonly Line $line)
    {
    }

    /** Sends bytes from a moment on, or as soon as the line is free of what was sent before. */
    public function send(string $bytes, float $atUs): void
    {
        $bit = 1e6 / $this->line->baud;
        $rest = $this->line->inverted ? 0 : 1;
        $level = $rest;
        $at = max($atUs, $this->free);
        for ($i = 0, $n = \strlen($bytes); $i < $n; ++$i) {
            $value = \ord($bytes[$i]);
            $marks = [0];
            for ($b = 0, $ones = 0; $b < 8; ++$b) {
                $marks[] = ($value >> $b) & 1;
                $ones += ($value >> $b) & 1;
            }
            if (Parity::Even === $this->line->parity) {
                $marks[] = $ones & 1;
            }
            foreach ($marks as $k => $mark) {
                $next = 1 === $mark ? $rest : 1 - $rest;
                if ($next !== $level) {
                    $this->times[] = $at + $k * $bit;
                    $this->levels[] = $level = $next;
                }
            }
            if ($level !== $rest) {
                $this->times[] = $at + \count($marks) * $bit;
                $this->levels[] = $level = $rest;
            }
            $at += $this->line->bits() * $bit;
        }
        $this->free = $at;
    }

    public function edges(): Edges
    {
        return Edges::of($this->times, $this->levels, $this->line->inverted ? 0 : 1);
    }
}
