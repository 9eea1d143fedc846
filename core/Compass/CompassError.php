<?php

declare(strict_types=1);

namespace Ortholex\Core\Compass;

use Ortholex\Core\Fact\Explained;
use Ortholex\Core\Fact\Fact;

/** What was shown of a compass does not calibrate it. */
final class CompassError extends \DomainException implements Explained
{
    private function __construct(public readonly Fact $flaw)
    {
        parent::__construct(json_encode($flaw->toArray(), \JSON_THROW_ON_ERROR));
    }

    public static function of(CompassFlaw $flaw, float|int ...$figures): self
    {
        return new self(Fact::of($flaw, ...$figures));
    }

    public function fact(): Fact
    {
        return $this->flaw;
    }
}
