<?php

declare(strict_types=1);

namespace Ortholex\App\LinkLoss;

use Ortholex\Core\LinkLoss\LossPlan;
use Ortholex\Core\LinkLoss\Stage;
use Ortholex\Core\LinkLoss\Then;

/**
 * The plan over time from the last frame, as sheet 32 draws it: seconds by their logarithm, so that a hold and a descent both have room.
 */
final readonly class LossDrawing
{
    public const WIDE = 860.0;
    private const LEFT = 96.0;
    private const RIGHT = 846.0;
    private const FROM_S = 0.05;
    private const TO_S = 150.0;
    private const TICKS = [0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100];

    /** Throttle's row: foot and top. */
    private const FOOT = 196.0;

    private const TOP = 126.0;

    /** @var list<array{stage: Stage, from: float, to: float}> in the drawing's units */
    public array $bands;

    /** Throttle as a line. */
    public string $throttle;

    public float $holdX;
    public float $endX;
    public float $descendY;
    public float $noticeX;

    public function __construct(public LossPlan $plan, private float $flownPct)
    {
        $this->noticeX = self::x(LossPlan::NOTICE_S);
        $hold = max($plan->holdS, LossPlan::NOTICE_S);
        $this->holdX = self::x($hold);
        $this->endX = self::x($plan->endsS());
        $this->descendY = self::y($plan->descendPct);
        $bands = [
            ['stage' => Stage::Heard, 'from' => self::LEFT, 'to' => $this->noticeX],
            ['stage' => Stage::Hold, 'from' => $this->noticeX, 'to' => $this->holdX],
        ];
        if (Then::Cut !== $plan->then) {
            $alone = Then::Return === $plan->then ? Stage::Return : Stage::Descend;
            $bands[] = ['stage' => $alone, 'from' => $this->holdX, 'to' => $this->endX];
        }
        $bands[] = ['stage' => Stage::Cut, 'from' => $this->endX, 'to' => self::RIGHT];
        $this->bands = $bands;
        $y = self::y($this->flownPct);
        $line = 'M'.self::LEFT." $y".$this->to($this->holdX, $y);
        if (Then::Cut !== $plan->then) {
            $line .= $this->to($this->holdX, $this->descendY).$this->to($this->endX, $this->descendY);
        }
        $this->throttle = $line.$this->to($this->endX, self::FOOT).$this->to(self::RIGHT, self::FOOT);
    }

    /** @return list<array{s: float, x: float}> */
    public function ticks(): array
    {
        return array_map(static fn (float|int $s): array => ['s' => (float) $s, 'x' => self::x((float) $s)], self::TICKS);
    }

    /** A dashed line of sticks: as they were until the hold is over, and in the middle after it. */
    public function sticks(float $y, float $away): string
    {
        $held = $y - $away;
        $line = 'M'.self::LEFT." $held".$this->to($this->holdX, $held);

        return Then::Cut === $this->plan->then ? $line : $line.$this->to($this->holdX, $y).$this->to($this->endX, $y);
    }

    /** @return array<string, float> how places on the drawing become values, for what is dragged */
    public function scale(): array
    {
        return [
            'left' => self::LEFT,
            'right' => self::RIGHT,
            'from' => self::FROM_S,
            'to' => self::TO_S,
            'foot' => self::FOOT,
            'top' => self::TOP,
        ];
    }

    private static function x(float $s): float
    {
        $share = log(max(self::FROM_S, min(self::TO_S, $s)) / self::FROM_S) / log(self::TO_S / self::FROM_S);

        return round(self::LEFT + (self::RIGHT - self::LEFT) * $share, 1);
    }

    private static function y(float $pct): float
    {
        return round(self::FOOT - ((self::FOOT - self::TOP) * $pct) / 100, 1);
    }

    private function to(float $x, float $y): string
    {
        return "L$x $y";
    }
}
