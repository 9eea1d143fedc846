<?php

declare(strict_types=1);

namespace Ortholex\Core\Craft;

/** A set of settings was to be changed, or read by a name it does not have. */
final class SetIsFixed extends \LogicException
{
    public static function noSuch(string $name): self
    {
        return new self("There is no setting “{$name}” here.");
    }

    public static function cannotChange(): self
    {
        return new self('A set stays as it is; with() and where() make another.');
    }
}
