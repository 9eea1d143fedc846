<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

/** At which message which blow falls: before it reaches the craft, or after it did and before its answer is heard. */
final class Plan
{
    public static ?Blow $blow = null;
    public static int $at = 0;
    public static bool $after = false;

    /** Messages sent since the plan was laid. */
    public static int $sent = 0;

    public static bool $fell = false;

    public static function lay(?Blow $blow, int $at, bool $after): void
    {
        self::makeRoom();
        [self::$blow, self::$at, self::$after, self::$sent, self::$fell] = [$blow, $at, $after, 0, false];
    }

    /** Nothing more can be written on any bench. */
    public static function fill(): void
    {
        foreach (glob(getenv('ORTHOLEX_DATA').'/bench/*/world.json') ?: [] as $world) {
            mkdir("$world.next");
        }
    }

    private static function makeRoom(): void
    {
        array_map(rmdir(...), glob(getenv('ORTHOLEX_DATA').'/bench/*/world.json.next') ?: []);
    }

    public static function none(): void
    {
        self::lay(null, 0, false);
    }
}
