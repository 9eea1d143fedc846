<?php

declare(strict_types=1);

namespace Ortholex\Core\Link;

/** One request to a device: what, and of what. */
final readonly class Request implements \Stringable
{
    private function __construct(private Task $task, private string $of)
    {
    }

    public static function to(Task $task, int|string $of = ''): self
    {
        return new self($task, (string) $of);
    }

    /** @param int $digits of the address as it is written */
    public static function at(Task $task, int $address, int $digits): self
    {
        return new self($task, \sprintf("0x%0{$digits}X", $address));
    }

    public function __toString(): string
    {
        return rtrim(str_replace('_', ' ', $this->task->value).' '.$this->of);
    }
}
