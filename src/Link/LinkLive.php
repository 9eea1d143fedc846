<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Live\LiveSource;
use Ortholex\App\Work\Jobs;

/** Whether the board answers at this moment, and what it says of itself. */
final readonly class LinkLive implements LiveSource
{
    public function __construct(private Benches $benches, private LinkService $links, private Jobs $jobs)
    {
    }

    public function key(): string
    {
        return 'link';
    }

    /** @return array<string, mixed> */
    public function facts(Craft $craft): array
    {
        $s = $this->benches->of($craft)->state();
        $linked = $this->links->isLinked($craft);
        // While a flash holds the link, others keep off it.
        $flashing = $this->jobs->holdsLink($craft);
        $state = $linked && !$flashing ? $this->links->state($craft) : null;

        return [
            'escs' => $s->pack && $linked && null !== $craft->escsSince && $craft->escsSince === $s->powerMoves,
            'linked' => $linked,
            'cable' => $s->cable,
            'bootloader' => $craft->inBootloader,
            'answers' => null !== $state,
            'flashing' => $flashing,
            'board' => $craft->board,
            'firmware' => $craft->firmware,
            'version' => $craft->version,
            'uptime_s' => null === $state ? null : round($state->uptimeS, 1),
            'attitude' => null === $state ? null : [round($state->rollDeg, 1), round($state->pitchDeg, 1), round($state->yawDeg, 1)],
            'battery_v' => null === $state ? null : round($state->batteryV, 2),
            'load_pct' => null === $state ? null : round($state->loadPct, 1),
        ];
    }
}
