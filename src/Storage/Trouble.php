<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Symfony\Contracts\Service\ResetInterface;

/** What could not be read while a page was put together, so that the page can say so; what it is about is left out of it. */
final class Trouble implements ResetInterface
{
    /** @var array<string, true> */
    private array $met = [];

    /** Whether it is met for the first time. */
    public function meet(string $words): bool
    {
        $first = !isset($this->met[$words]);
        $this->met[$words] = true;

        return $first;
    }

    /** @return list<string> in words, each once */
    public function met(): array
    {
        return array_keys($this->met);
    }

    public function reset(): void
    {
        $this->met = [];
    }
}
