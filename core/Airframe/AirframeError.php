<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

use Ortholex\Core\Fact\Explained;
use Ortholex\Core\Fact\Fact;

/** A geometry cannot fly, or poses contradict each other. */
final class AirframeError extends \InvalidArgumentException implements Explained
{
    private function __construct(public readonly Fact $flaw)
    {
        parent::__construct(json_encode($flaw->toArray(), \JSON_THROW_ON_ERROR));
    }

    /** @param float|int|string|list<string> ...$figures named */
    public static function of(AirframeFlaw $flaw, float|int|string|array ...$figures): self
    {
        return new self(Fact::of($flaw, ...$figures));
    }

    public function fact(): Fact
    {
        return $this->flaw;
    }
}
