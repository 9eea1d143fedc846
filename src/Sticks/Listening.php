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
use Ortholex\Core\Radio\RadioReading;
use Ortholex\Core\Radio\Span\MovedStick;
use Ortholex\Core\Radio\Span\SpanCapture;
use Ortholex\Core\Switches\FoundSwitch;

/** Looks at a craft's radio, and goes on with the capture that is under way. */
final readonly class Listening
{
    /** A sprung stick is back when it is this near to where it was, µs, for so many frames. */
    private const BACK_US = 40.0;

    private const BACK_FRAMES = 12;
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
            $this->keep($craft, $this->evidence($craft)->withOrder([]));
        }
        $this->captures->begin($craft, $kind, $asked, $plugging, $reading->newest);
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

    public function stop(Craft $craft): void
    {
        $this->captures->end($craft);
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
        if (null !== $capture->asked) {
            $this->ask($craft, $capture, $reading);
        }
    }

    /** Whether the stick that is asked for was shown; then the next is. */
    private function ask(Craft $craft, Capture $capture, RadioReading $reading): void
    {
        $asked = $capture->asked ?? Channel::Roll;
        $history = $this->captures->history($craft, $reading->intervalMs ?? self::INTERVAL_MS);
        $moved = MovedStick::of($asked, $history);
        if (null === $moved->number || !self::isBack($history->channel($moved->number), Channel::Throttle === $asked)) {
            return;
        }
        $evidence = $this->evidence($craft);
        $order = $evidence->order;
        $order[$asked->value] = ['number' => $moved->number, 'reversed' => $moved->reversed, 'margin' => $moved->margin];
        $this->keep($craft, $evidence->withOrder($order));
        $left = array_values(array_filter(Channel::cases(), static fn (Channel $c): bool => !isset($order[$c->value])));
        if ([] === $left) {
            $this->captures->end($craft);

            return;
        }
        $this->captures->begin($craft, CaptureKind::Order, $left[0], $capture->plugging, $reading->newest);
    }

    /**
     * A sprung stick has come back; a throttle stays where it was put, for a moment.
     *
     * @param list<float> $us
     */
    private static function isBack(array $us, bool $throttle): bool
    {
        $last = \array_slice($us, -self::BACK_FRAMES);
        if (\count($last) < self::BACK_FRAMES) {
            return false;
        }

        return max($last) - min($last) < self::BACK_US && ($throttle || abs($last[0] - $us[0]) < self::BACK_US);
    }
}
