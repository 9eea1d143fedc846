<?php

declare(strict_types=1);

namespace Ortholex\Core\Guard;

use Ortholex\Core\Fact\Explained;
use Ortholex\Core\Fact\Fact;

/** Work that can turn a motor was asked for while an interlock is open. */
final class InterlockOpen extends \RuntimeException implements Explained
{
    /** @param Fact $what of Interlock */
    public function __construct(private readonly Fact $what)
    {
        parent::__construct((string) $what->code->value);
    }

    public function fact(): Fact
    {
        return $this->what;
    }
}
