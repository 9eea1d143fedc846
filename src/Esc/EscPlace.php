<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Ortholex\App\Page\DrawnMotor;
use Ortholex\Core\Esc\EscIdentity;

/** One ESC at its place on the drawing of sheet 16, with what departs there from the others. */
final readonly class EscPlace
{
    public const CARD_WIDTH = 178;
    private const EDGE = 285;
    private const TITLE = 15;

    /**
     * @param array{ok: bool, tries: int}|null $ack    how its last write was acknowledged
     * @param list<EscRow>                     $told   what departs, or is being changed here
     * @param list<EscRow>                     $lacks  what this ESC has not
     * @param list<EscRow>                     $alone  what it has like the others, and can be changed here alone
     * @param int                              $side   −1 where its words stand to the left
     * @param float                            $top    of its words
     * @param float                            $height that they may take
     * @param string                           $was    the place that this very ESC sat at before; '' while it has not moved
     */
    public function __construct(
        public DrawnMotor $motor,
        public ?EscIdentity $esc,
        public int $pad,
        public ?array $ack,
        public array $told,
        public array $lacks,
        public array $alone,
        public ?EscRow $direction,
        public int $side,
        public float $top,
        public float $height,
        public string $was,
    ) {
    }

    public function place(): string
    {
        return $this->motor->place;
    }

    /** Left edge of its words. */
    public function left(): float
    {
        return $this->side < 0 ? -self::EDGE : self::EDGE - self::CARD_WIDTH;
    }

    /** From the motor to its words. */
    public function leader(): string
    {
        $x = $this->side * (self::EDGE - self::CARD_WIDTH);

        return \sprintf('M%.1f %.1fL%.1f %.1f', $this->motor->x + $this->side * 17, $this->motor->y, $x, $this->top + self::TITLE);
    }
}
