<?php

declare(strict_types=1);

namespace Ortholex\App\Sticks;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\RadioReading;
use Ortholex\Core\Radio\Span\Showing;
use Ortholex\Core\Radio\Span\SpanCapture;
use Ortholex\Core\Switches\FoundSwitch;

/** Looks at a craft's radio, and goes on with the capture that is under way. */
final readonly class Listening
{
    private const INTERVAL_MS = 7.0;

    public function __construct(
        private Benches $benches,
        private LinkService $links,
        private Jobs $jobs,
        private Captures $captures,
        private Staging $staging,
        private EntityManagerInterface $entities,
    ) {
    }

    /** What the board makes of its receiver now; null when it is not linked, restarting or being flashed. */
    public function now(Craft $craft, int $since = 0): ?RadioReading
    {
        if (!$this->links->isLinked($craft) || $craft->inBootloader || $this->jobs->holdsLink($craft)) {
            return null;
        }
        $capture = $this->captures->of($craft);
        try {
            $reading = $this->benches->client($craft)->radio(null === $capture ? $since : min($since, $capture->lastFrame));
        } catch (LinkError) {
            return null;
        }
        if (null !== $capture) {
            $this->goOn($craft, $capture, $reading);
        }

        return $reading;
    }

    public function begin(Craft $craft, CaptureKind $kind): void
    {
        $this->links->demandLinked($craft);
        $reading = $this->benches->client($craft)->radio(\PHP_INT_MAX >> 32);
        $asked = CaptureKind::Order === $kind ? Channel::Roll : null;
        $plugging = $this->benches->of($craft)->state()->cableMoves;
        if (CaptureKind::Order === $kind) {
            $this->keep($craft, $this->evidence($craft)->withNothingShowing());
        }
        $this->captures->begin($craft, $kind, $asked, $plugging, $reading->newest);
    }

    /** Asks for the same stick again: what moved until now does not count. */
    public function again(Craft $craft): void
    {
        $this->links->demandLinked($craft);
        $capture = $this->captures->of($craft);
        if (null !== $capture) {
            $newest = $this->benches->client($craft)->radio(\PHP_INT_MAX >> 32)->newest;
            $this->captures->begin($craft, $capture->kind, $capture->asked, $capture->plugging, $newest);
        }
    }

    /** What is known of the radio. */
    public function evidence(Craft $craft): Evidence
    {
        return Evidence::of($craft->radio);
    }

    public function keep(Craft $craft, Evidence $evidence): void
    {
        $craft->radio = $evidence->toArray();
        $this->entities->flush();
    }

    /** Ends the capture of spans or levers, and keeps what it taught. */
    public function finish(Craft $craft): void
    {
        $capture = $this->captures->of($craft);
        if (null === $capture) {
            return;
        }
        $reading = $this->now($craft);
        $history = $this->captures->history($craft, $reading->intervalMs ?? self::INTERVAL_MS);
        $evidence = $this->evidence($craft);
        if (CaptureKind::Spans === $capture->kind) {
            $this->keep($craft, $evidence->withSpans(SpanCapture::of($history)->channels));
        } elseif (CaptureKind::Levers === $capture->kind) {
            $found = [];
            foreach (array_diff(array_keys($history->channels), $this->stickChannels($craft)) as $channel) {
                $one = FoundSwitch::in($history, $channel);
                if (null !== $one) {
                    $found[$channel] = $one;
                }
            }
            $this->keep($craft, $evidence->withLevers($found));
        }
        $this->captures->end($craft);
    }

    /** Leaves a capture; what was known before stands. */
    public function stop(Craft $craft): void
    {
        $this->captures->end($craft);
        $this->keep($craft, $this->evidence($craft)->withNothingShowing());
    }

    public function capture(Craft $craft): ?Capture
    {
        return $this->captures->of($craft);
    }

    /** @return list<int> channels that sticks have, as staged */
    public function stickChannels(Craft $craft): array
    {
        $set = $this->staging->preview($craft);

        return array_map(
            static fn (Channel $s): int => $set->whole("channel.$s->value.number", $s->usual()),
            Channel::cases(),
        );
    }

    private function goOn(Craft $craft, Capture $capture, RadioReading $reading): void
    {
        // The cable was out, or the board began anew: what was seen before does not go with what comes now.
        $plugging = $this->benches->of($craft)->state()->cableMoves;
        if ($plugging !== $capture->plugging || $reading->newest < $capture->lastFrame) {
            $this->captures->begin($craft, $capture->kind, $capture->asked, $plugging, $reading->newest);

            return;
        }
        $this->captures->add($craft, $capture, $reading);
        if (null !== $capture->asked && null === $capture->why) {
            $this->ask($craft, $capture, $capture->asked, $reading);
        }
    }

    /** Whether the stick that is asked for was shown; then the next is. What hinders stays until it is asked for again. */
    private function ask(Craft $craft, Capture $capture, Channel $asked, RadioReading $reading): void
    {
        $evidence = $this->evidence($craft);
        $history = $this->captures->history($craft, $reading->intervalMs ?? self::INTERVAL_MS);
        $showing = Showing::of($asked, $history, array_map(static fn (array $one): int => $one['number'], $evidence->showing));
        if (null !== $showing->why) {
            $this->captures->hinder($craft, $showing->why);
        }
        if (null === $showing->stick) {
            return;
        }
        $more = $evidence->shows($showing->stick);
        $this->keep($craft, $more);
        if ([] === $more->showing) {
            $this->captures->end($craft);
        } else {
            $this->captures->begin($craft, CaptureKind::Order, $more->left()[0], $capture->plugging, $reading->newest);
        }
    }
}
