<?php

declare(strict_types=1);

namespace Ortholex\Core\Series;

use Ortholex\Core\Fact\Explained;
use Ortholex\Core\Fact\Fact;

/** A series that cannot be planned so, and why. */
final class SeriesError extends \RuntimeException implements Explained
{
    private function __construct(private readonly Fact $what)
    {
        parent::__construct((string) $what->code->value);
    }

    public static function because(SeriesFlaw $flaw, string|int|null ...$figures): self
    {
        return new self(Fact::of($flaw, ...$figures));
    }

    public function fact(): Fact
    {
        return $this->what;
    }
}
