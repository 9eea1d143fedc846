<?php

declare(strict_types=1);

namespace Ortholex\Core\Overlay;

use Ortholex\Core\Fact\Explained;
use Ortholex\Core\Fact\Fact;

/** A place, a text or bytes of an overlay that cannot be. */
final class OverlayError extends \DomainException implements Explained
{
    private function __construct(public readonly Fact $flaw)
    {
        parent::__construct(json_encode($flaw->toArray(), \JSON_THROW_ON_ERROR | \JSON_INVALID_UTF8_SUBSTITUTE));
    }

    public static function of(OverlayFlaw $flaw, float|int|string|\BackedEnum ...$figures): self
    {
        return new self(Fact::of($flaw, ...$figures));
    }

    public function fact(): Fact
    {
        return $this->flaw;
    }
}
