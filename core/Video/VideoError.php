<?php

declare(strict_types=1);

namespace Ortholex\Core\Video;

use Ortholex\Core\Fact\Explained;
use Ortholex\Core\Fact\Fact;

/** Frequencies that cannot be chosen, or a table of places that cannot be read; and why. */
final class VideoError extends \InvalidArgumentException implements Explained
{
    private function __construct(private readonly Fact $what)
    {
        parent::__construct((string) $what->code->value);
    }

    public static function of(VideoFlaw $flaw, int|string ...$figures): self
    {
        return new self(Fact::of($flaw, ...$figures));
    }

    public function fact(): Fact
    {
        return $this->what;
    }
}
