<?php

declare(strict_types=1);

namespace Ortholex\Core\Time;

/**
 * Seconds that only go forward, the same in every process: the machine's time since it was switched on, and what stands in a file of
 * how that lies to the clock on the wall. A wall clock that is set, forward or back, moves nothing that is under way.
 */
final class SteadyClock
{
    private ?float $offset = null;

    /** @param (\Closure(): array{boot: string, sinceS: float, wallS: float})|null $machine what it tells of itself; null: this one */
    public function __construct(private readonly string $file, private readonly ?\Closure $machine = null)
    {
    }

    /** Seconds; close to Unix time, as far as the wall was right when the machine was switched on. */
    public function now(): float
    {
        $machine = $this->machine();
        $this->offset ??= $this->found($machine);

        return $machine['sinceS'] + $this->offset;
    }

    /** @return array{boot: string, sinceS: float, wallS: float} */
    private function machine(): array
    {
        if (null !== $this->machine) {
            return ($this->machine)();
        }
        $boot = @file_get_contents('/proc/sys/kernel/random/boot_id');

        return ['boot' => false === $boot ? '' : trim($boot), 'sinceS' => hrtime(true) / 1e9, 'wallS' => microtime(true)];
    }

    /**
     * What was settled since the machine was switched on, or else settles it: never before the last that was settled.
     *
     * @param array{boot: string, sinceS: float, wallS: float} $machine
     */
    private function found(array $machine): float
    {
        $handle = @fopen($this->file, 'c+');
        if (false === $handle) {
            // A folder that is only read: nothing is under way there.
            return self::kept((string) @file_get_contents($this->file), $machine) ?? $machine['wallS'] - $machine['sinceS'];
        }
        flock($handle, \LOCK_EX);
        $text = (string) stream_get_contents($handle);
        $offset = self::kept($text, $machine);
        if (null === $offset) {
            $is = json_decode($text, true);
            $last = \is_array($is) ? $is['at'] ?? null : null;
            $from = max($machine['wallS'], \is_float($last) ? $last : 0.0);
            $offset = $from - $machine['sinceS'];
            $now = ['boot' => $machine['boot'], 'since' => $machine['sinceS'], 'at' => $from, 'offset' => $offset];
            ftruncate($handle, 0);
            rewind($handle);
            fwrite($handle, json_encode($now, \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR));
        }
        fclose($handle);

        return $offset;
    }

    /** @param array{boot: string, sinceS: float, wallS: float} $machine */
    private static function kept(string $text, array $machine): ?float
    {
        $is = json_decode($text, true);
        $same = \is_array($is) && ($is['boot'] ?? null) === $machine['boot'] && ($is['since'] ?? \INF) <= $machine['sinceS'];

        return $same && \is_float($is['offset'] ?? null) ? $is['offset'] : null;
    }
}
