<?php

declare(strict_types=1);

namespace Ortholex\Core\Link;

/** The device did not answer as it should; $lost tells a pulled cable from a silent or refusing device. */
final class LinkError extends \RuntimeException
{
    private function __construct(string $message, public readonly bool $lost, public readonly bool $refused)
    {
        parent::__construct($message);
    }

    public static function cableOut(): self
    {
        return new self('The USB cable is out. Plug it in on the bench strip.', true, false);
    }

    public static function silent(string $request, int $ms): self
    {
        return new self("The board did not answer “{$request}” within $ms ms. Check that it has power and is not restarting.", false, false);
    }

    public static function refused(string $request, string $why): self
    {
        return new self("The board refused “{$request}”: $why.", false, true);
    }
}
