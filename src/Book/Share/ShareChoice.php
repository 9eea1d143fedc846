<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Share;

/** What of a book is given away. */
final readonly class ShareChoice
{
    public function __construct(
        public bool $home = false,
        public bool $serials = false,
        public bool $names = false,
        public bool $logs = true,
    ) {
    }

    /** @return list<string> what is left out */
    public function leftOut(): array
    {
        $is = ['home' => $this->home, 'serials' => $this->serials, 'names' => $this->names, 'logs' => $this->logs];

        return array_keys(array_filter($is, static fn (bool $given): bool => !$given));
    }
}
