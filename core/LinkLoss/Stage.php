<?php

declare(strict_types=1);

namespace Ortholex\Core\LinkLoss;

/** Where a craft stands in its link-loss plan. */
enum Stage: string
{
    /** Frames come. */
    case Heard = 'heard';

    /** The last command stands. */
    case Hold = 'hold';

    case Descend = 'descend';
    case Return = 'return';
    case Cut = 'cut';

    public function code(): int
    {
        return (int) array_search($this, self::cases(), true);
    }

    public static function ofCode(int $code): self
    {
        return self::cases()[$code] ?? self::Heard;
    }

    /** Whether it flies by itself. */
    public function fliesAlone(): bool
    {
        return self::Descend === $this || self::Return === $this;
    }
}
