<?php

declare(strict_types=1);

namespace Ortholex\App\LinkLoss;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\LinkLoss\HoverOutput;
use Ortholex\Core\Pack\PackError;
use Symfony\Contracts\Cache\CacheInterface;

/** At which output a craft hovers, from its newest log that tells. */
final readonly class HoverKnown
{
    /** So many of the newest logs are asked. */
    private const LOGS = 3;

    public function __construct(private LogBook $book, private LogStore $logs, private CacheInterface $cache)
    {
    }

    /** @return array{HoverOutput, string}|null what it is, and the code of the log it comes from */
    public function of(Craft $craft): ?array
    {
        foreach (\array_slice($this->book->of($craft), 0, self::LOGS) as $log) {
            $hover = $this->cache->get("hover_output.$log->id", fn (): ?HoverOutput => $this->in($log));
            if (null !== $hover) {
                return [$hover, $log->code];
            }
        }

        return null;
    }

    private function in(Log $log): ?HoverOutput
    {
        $wanted = ['throttle_pct', 'accel_z_g', 'battery_v', 'setpoint_roll_dps', 'setpoint_pitch_dps'];
        try {
            $outputs = array_filter($log->traces, static fn (string $t): bool => 1 === preg_match('~^output_\w+_pct$~', $t));

            return HoverOutput::of($this->logs->load($log, [...$wanted, ...array_values($outputs)]));
        } catch (LogError|PackError) {
            // Another's log may have none of it: an older one is asked.
            return null;
        }
    }
}
