<?php

declare(strict_types=1);

namespace Ortholex\App\Feel;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\LogCheck\Hover;
use Ortholex\Core\Radio\Delay\CommandLowPass;
use Symfony\Contracts\Cache\CacheInterface;

/** What the command low-pass trades on the sticks of the last log, or on a standard move where there is none; and hover from that log. */
final readonly class LowPassTrade
{
    private const TRACES = ['stick_roll_us', 'throttle_pct', 'accel_z_g', 'setpoint_roll_dps', 'setpoint_pitch_dps'];
    private const FRAME_HZ = 150.0;

    /** Seconds of a log that are looked at: a hand does not change from one minute to the next. */
    private const MOST_S = 12.0;

    public function __construct(private LogBook $book, private LogStore $logs, private CacheInterface $cache)
    {
    }

    public function of(Craft $craft, ?float $intervalMs): Trade
    {
        $hz = null === $intervalMs ? self::FRAME_HZ : 1000 / $intervalMs;
        $log = $craft->isKnown() ? $this->book->chosen($craft, 0) : null;
        $key = \sprintf('command_low_pass.%d.%.0f', $log->id ?? 0, $hz);

        return $this->cache->get($key, function () use ($log, $hz): Trade {
            $frames = $hover = null;
            if (null !== $log) {
                try {
                    $read = $this->logs->load($log, self::TRACES);
                    $hover = Hover::of($read);
                    $frames = $read->has('stick_roll_us') ? self::frames($read->trace('stick_roll_us'), $read->clock->rateHz, $hz) : null;
                } catch (LogError) {
                    // Another's log may have none of it: then the standard move stands in.
                    $frames = null;
                }
            }
            $trade = CommandLowPass::trade($frames ?? CommandLowPass::standardMove($hz), $hz);

            $of = null === $frames || null === $log ? '' : $log->code;

            return new Trade($of, $trade->curve, $trade->knee(), $hover?->throttlePct, $hover?->spreadPct);
        });
    }

    /**
     * The busiest stretch of a stick, as each frame told it.
     *
     * @param list<float> $us
     *
     * @return list<float>|null −1 to 1; null when it hardly moved
     */
    private static function frames(array $us, float $rateHz, float $frameHz): ?array
    {
        $per = $rateHz / $frameHz;
        $all = [];
        for ($i = 0.0, $n = \count($us); $i < $n; $i += $per) {
            $all[] = ($us[(int) $i] - 1500) / 500;
        }
        $most = (int) (self::MOST_S * $frameHz);
        $from = max(0, intdiv(\count($all) - $most, 2));
        $part = \array_slice($all, $from, $most);

        return \count($part) > 100 && max($part) - min($part) > 0.2 ? $part : null;
    }
}
