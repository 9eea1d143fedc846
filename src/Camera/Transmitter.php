<?php

declare(strict_types=1);

namespace Ortholex\App\Camera;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Link\Ports;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\Link\Aids\AidsClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Video\Wire\HeronFrame;
use Ortholex\Core\Video\Wire\HeronState;
use Ortholex\Core\Video\Wire\HeronTable;
use Ortholex\Core\Video\Wire\HeronVerb;
use Ortholex\Core\Wiring\PartRole;
use Psr\Clock\ClockInterface;

/** The video transmitter of a craft: its table read over its one wire, what it does now, and how warm it got. */
final readonly class Transmitter
{
    private const MOST = 300;

    public function __construct(
        private Benches $benches,
        private LinkService $links,
        private Jobs $jobs,
        private Ports $ports,
        private EntityManagerInterface $entities,
        private ClockInterface $clock,
    ) {
    }

    /** What was read of it before; null for never. */
    public function table(Craft $craft): ?HeronTable
    {
        $kept = $craft->video['table'] ?? null;

        return \is_string($kept) ? HeronTable::unpack((string) base64_decode($kept, true)) : null;
    }

    /** @return list<array{float, float, float}> seconds since its power came, °C, and mW */
    public function warmed(Craft $craft): array
    {
        $warmed = [];
        foreach (\is_array($craft->video['heat'] ?? null) ? $craft->video['heat'] : [] as $h) {
            if (\is_array($h) && is_numeric($h[0] ?? null) && is_numeric($h[1] ?? null) && is_numeric($h[2] ?? null)) {
                $warmed[] = [(float) $h[0], (float) $h[1], (float) $h[2]];
            }
        }

        return $warmed;
    }

    /** Reads its table, and keeps it. */
    public function read(Craft $craft): ?HeronTable
    {
        $answer = $this->ask($craft, HeronVerb::Table);
        $table = null === $answer ? null : HeronTable::unpack($answer);
        if (null !== $table) {
            $craft->video = ['table' => base64_encode($table->pack())] + $craft->video;
            $this->entities->flush();
        }

        return $table;
    }

    /** What it does now; kept for how warm it gets. */
    public function now(Craft $craft): ?HeronState
    {
        $answer = $this->ask($craft, HeronVerb::State);
        $state = null === $answer ? null : HeronState::unpack($answer);
        if (null !== $state) {
            $this->warm($craft, $state);
        }

        return $state;
    }

    /** Tells it a power, mW, or a frequency, MHz; whether it took it. */
    public function tell(Craft $craft, HeronVerb $verb, float $value): bool
    {
        return null !== $this->ask($craft, $verb, pack('v', (int) $value));
    }

    private function warm(Craft $craft, HeronState $state): void
    {
        $now = (float) $this->clock->now()->format('U.u');
        $moves = $this->benches->of($craft)->state()->powerMoves;
        $began = $craft->video['heat_began'] ?? 0.0;
        $warmed = $this->warmed($craft);
        if (($craft->video['heat_moves'] ?? -1) !== $moves || !is_numeric($began)) {
            [$began, $warmed] = [$now, []];
        }
        $last = [] === $warmed ? null : $warmed[\count($warmed) - 1];
        if (null === $last || $now - (float) $began - $last[0] > 1.5) {
            $warmed[] = [round($now - (float) $began, 1), $state->degC, $state->mw];
            $warmed = \array_slice($warmed, -self::MOST);
            $craft->video = ['heat' => $warmed, 'heat_began' => $began, 'heat_moves' => $moves] + $craft->video;
            $this->entities->flush();
        }
    }

    private function ask(Craft $craft, HeronVerb $verb, string $payload = ''): ?string
    {
        $port = $this->ports->of($craft, PartRole::Video);
        if (null === $port || !$this->links->isLinked($craft) || $craft->inBootloader || $this->jobs->holdsLink($craft)) {
            return null;
        }
        try {
            $back = (new AidsClient($this->benches->client($craft)))->say($port[1], HeronFrame::BAUD, HeronFrame::ask($verb, $payload));
        } catch (LinkError) {
            return null;
        }
        $frame = HeronFrame::in($back);

        return null !== $frame && $frame->answers($verb) ? $frame->payload : null;
    }
}
