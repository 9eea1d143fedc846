<?php

declare(strict_types=1);

namespace Ortholex\App\Radio;

use Ortholex\App\Book\Craft;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Sticks\Evidence;
use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\RadioReading;
use Ortholex\Core\Radio\ChannelSpan;
use Ortholex\Core\Radio\Heard;
use Ortholex\Core\Radio\Span\CapturedChannel;
use Ortholex\Core\Radio\Span\TransmitterCure;
use Ortholex\Core\Radio\SpanError;

/** How a craft's radio stands: what is heard, what was shown of it, and what follows. */
final readonly class RadioState
{
    /** A span that was captured and one that is set are the same within this, µs. */
    private const SAME_US = 3.0;

    public function __construct(
        public ?RadioReading $reading,
        public Evidence $evidence,
        public SettingSet $set,
        public SettingSet $preview,
        private bool $staged,
    ) {
    }

    public static function of(Craft $craft, ?RadioReading $reading, Evidence $evidence, Staging $staging): self
    {
        $staged = $staging->of($craft);
        $mine = array_filter(
            $staged->names(),
            static fn (string $n): bool => 1 === preg_match('~^(uart|channel|receiver|telemetry)\.~', $n),
        );

        return new self($reading, $evidence, $craft->settings, $staging->preview($craft), [] !== $mine);
    }

    public function step(): RadioStep
    {
        $heard = $this->reading?->heard;

        return match (true) {
            null === $heard => RadioStep::Link,
            Heard::NotSet === $heard, Heard::Rubbish === $heard => $this->staged ? RadioStep::Commit : RadioStep::Find,
            Heard::Silent === $heard => RadioStep::Power,
            Heard::NoLink === $heard, Heard::Failsafe === $heard => RadioStep::Bind,
            !$this->orderHolds() => RadioStep::Order,
            !$this->spansHold() => RadioStep::Spans,
            $this->preview->number('channel.dead_band_us') < $this->neededDeadBand() => RadioStep::DeadBand,
            $this->staged => RadioStep::Commit,
            default => RadioStep::Sound,
        };
    }

    public function number(Channel $stick): int
    {
        return $this->preview->whole("channel.$stick->value.number", $stick->usual());
    }

    public function reversed(Channel $stick): bool
    {
        return $this->preview->flag("channel.$stick->value.reversed");
    }

    /** Whether the order that was shown is the one that is set, or staged. */
    public function orderHolds(): bool
    {
        $order = $this->evidence->channelOrder();
        if (null !== $order->clash) {
            return false;
        }
        foreach ($order->settings() as $name => $value) {
            if (($this->preview[$name] ?? null) !== $value) {
                return false;
            }
        }

        return true;
    }

    /** Whether each stick's span was captured and is set, or staged. */
    public function spansHold(): bool
    {
        foreach ($this->wantedSpans() as $name => $value) {
            if (abs($this->preview->number($name) - $value) > self::SAME_US) {
                return false;
            }
        }

        return [] !== $this->wantedSpans();
    }

    public function captured(Channel $stick): ?CapturedChannel
    {
        return $this->evidence->spans[$this->number($stick)] ?? null;
    }

    /** @return list<Channel> sticks that the capture did not see at both ends */
    public function notShown(): array
    {
        return array_values(
            array_filter(Channel::cases(), fn (Channel $s): bool => [] !== $this->evidence->spans && null === $this->span($s)),
        );
    }

    /** The span that was captured; null where a stick was not moved to both ends, or has no middle and needs one. */
    public function span(Channel $stick): ?ChannelSpan
    {
        $seen = $this->captured($stick);
        if (null === $seen || null === $seen->lowUs || null === $seen->highUs) {
            return null;
        }
        $middle = Channel::Throttle === $stick ? ($seen->lowUs + $seen->highUs) / 2 : $seen->middleUs;
        try {
            return null === $middle ? null : ChannelSpan::of(round($seen->lowUs), round($middle), round($seen->highUs));
        } catch (SpanError) {
            return null;
        }
    }

    /** @return array<string, float> µs from end to end, of sticks that were hardly pushed all the way */
    public function shortSpans(): array
    {
        $short = [];
        foreach (Channel::cases() as $stick) {
            $span = $this->span($stick);
            if (true === $span?->isShort()) {
                $short[$stick->value] = $span->highUs - $span->lowUs;
            }
        }

        return $short;
    }

    /** @return array<string, float> settings of all four spans; none unless all were captured */
    public function wantedSpans(): array
    {
        $wanted = [];
        foreach (Channel::cases() as $stick) {
            $span = $this->span($stick);
            if (null === $span) {
                return [];
            }
            $wanted["channel.$stick->value.low_us"] = $span->lowUs;
            $wanted["channel.$stick->value.middle_us"] = $span->middleUs;
            $wanted["channel.$stick->value.high_us"] = $span->highUs;
        }

        return $wanted;
    }

    /** @return array<string, TransmitterCure> what to dial in the transmitter, by stick; those that are nominal are left out */
    public function cures(): array
    {
        $cures = [];
        foreach (Channel::cases() as $stick) {
            $span = $this->span($stick);
            $cure = null === $span ? null : TransmitterCure::of($span);
            if (null !== $cure) {
                $cures[$stick->value] = $cure;
            }
        }

        return $cures;
    }

    /** The least dead band that the rests which were captured ask for, µs. */
    public function neededDeadBand(): float
    {
        $most = 0.0;
        foreach ([Channel::Roll, Channel::Pitch, Channel::Yaw] as $stick) {
            $most = max($most, $this->captured($stick)->restsUs ?? 0.0);
        }

        return ceil($most);
    }
}
