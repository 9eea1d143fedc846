<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Ortholex\Core\LogCheck\Card;

/** A flight card as sheet 51 offers it, with how its sticks move. */
final readonly class CardView
{
    private const WIDE = 160.0;

    /** Of each stick's line: height of its middle or foot, and of a full throw; in the drawing's 60 units. */
    private const LINES = ['roll' => [0, 14.0, 11.0], 'pitch' => [1, 30.0, 11.0], 'throttle' => [3, 57.0, 26.0]];

    /** @param array<string, string> $lines points of a line by stick, 160 by 60 */
    private function __construct(public Card $card, public array $lines)
    {
    }

    /** @param list<list<float>> $frames roll, pitch, yaw (−1 to 1) and throttle (0 to 1) */
    public static function of(Card $card, array $frames): self
    {
        $each = self::WIDE / max(1, \count($frames) - 1);
        $lines = [];
        foreach (self::LINES as $stick => [$channel, $foot, $throw]) {
            $points = [];
            foreach ($frames as $i => $frame) {
                $points[] = round($i * $each, 1).','.round($foot - $throw * $frame[$channel], 1);
            }
            $lines[$stick] = implode(' ', $points);
        }

        return new self($card, $lines);
    }
}
