<?php

declare(strict_types=1);

namespace Ortholex\Core\Together;

/** Reckons things that need nothing of one another: one by one, or side by side where there are cores for it. Results are the same. */
interface Together
{
    /**
     * @param array<string, \Closure(): array<mixed>> $parts
     *
     * @return array<string, array<mixed>> what each gave, by its name
     */
    public function all(array $parts): array;
}
