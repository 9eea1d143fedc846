<?php

declare(strict_types=1);

namespace Ortholex\App\Work\Process;

/**
 * Seconds that work will still take, by how far it has come. What was told once is counted down; it is told anew where the work turns
 * out quicker, and with a word where it turns out slower, so that no time left ever climbs unsaid.
 */
final class TimeLeft
{
    /** Before that, how far it is says nothing of how long it takes. */
    private const TELLS_FROM = 0.05;

    private const SLOWER_SHARE = 0.25;
    private const SLOWER_S = 3.0;

    private ?float $endsAt = null;
    private float $said = 0.0;
    private bool $slower = false;
    private ?float $began = null;

    /**
     * @param float      $now   seconds, of a clock that only goes forward
     * @param float      $share 0 to 1
     * @param float|null $own   seconds, where the work knows better than its progress tells
     *
     * @return array{left_s: float|null, slower: bool}
     */
    public function at(float $now, float $share, ?float $own = null): array
    {
        $this->began ??= $now;
        $left = $own ?? ($share < self::TELLS_FROM ? null : (($now - $this->began) * (1 - $share)) / $share);
        if (null === $left) {
            return ['left_s' => null, 'slower' => false];
        }
        $ends = $now + $left;
        if (null === $this->endsAt || $ends <= $this->endsAt) {
            $this->endsAt = $ends;
        } elseif ($ends > $this->endsAt + max(self::SLOWER_S, self::SLOWER_SHARE * $left)) {
            // From here on it has been slower than was thought, and that stays said.
            [$this->endsAt, $this->slower] = [$ends, true];
        }
        $told = max(1.0, ceil($this->endsAt - $now));
        if (!$this->slower && $this->said > 0) {
            $told = min($told, $this->said);
        }
        $this->said = $told;

        return ['left_s' => $told, 'slower' => $this->slower];
    }
}
