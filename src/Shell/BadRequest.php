<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

/** A form field holds what it cannot; names the field. */
final class BadRequest extends \InvalidArgumentException
{
    private function __construct(public readonly string $field, string $message)
    {
        parent::__construct($message);
    }

    public static function at(string $field, string $message): self
    {
        return new self($field, $message);
    }
}
