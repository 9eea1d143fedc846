<?php

declare(strict_types=1);

namespace Ortholex\Core\Craft;

/** An axis of rotation. Seen from behind: roll + is right side down, pitch + nose up, yaw + nose right. */
enum Axis: string
{
    case Roll = 'roll';
    case Pitch = 'pitch';
    case Yaw = 'yaw';

    /** Where this axis stands in a list of all three: 0, 1, 2. */
    public function index(): int
    {
        return match ($this) {
            self::Roll => 0,
            self::Pitch => 1,
            self::Yaw => 2,
        };
    }

    /** @return list<self> the other two */
    public function others(): array
    {
        return array_values(array_filter(self::cases(), fn (self $axis): bool => $axis !== $this));
    }
}
