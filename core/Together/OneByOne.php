<?php

declare(strict_types=1);

namespace Ortholex\Core\Together;

/** One after the other, in this process. */
final class OneByOne implements Together
{
    public function all(array $parts): array
    {
        return array_map(static fn (\Closure $part): array => $part(), $parts);
    }
}
