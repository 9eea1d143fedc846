<?php

declare(strict_types=1);

namespace Ortholex\App\Radio;

use Ortholex\App\Sticks\Capture;
use Ortholex\App\Sticks\CaptureKind;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Radio\Delay\CommandDelay;
use Ortholex\Core\Radio\Heard;
use Ortholex\Core\Radio\Protocol\Protocol;
use Ortholex\Core\Radio\Protocol\RadioFrame;
use Ortholex\Core\Settings\Setting;

/** What sheet 21 shows, in the units of its drawing: the sticks in boxes of 1000 µs, a ruler for every channel. */
final readonly class RadioView
{
    /** Half of a stick's nominal travel, in units. */
    public const HALF = 104;

    private const STICKS = ['left' => ['x' => 'yaw', 'y' => 'throttle'], 'right' => ['x' => 'roll', 'y' => 'pitch']];

    /** @param list<Setting> $fields of receiver and channels */
    public function __construct(
        public RadioState $state,
        public ?Capture $capture,
        private Words $words,
        public TelemetryView $telemetry,
        public SettingSet $staged,
        private bool $known,
        private string $cause,
        public array $fields,
    ) {
    }

    public function step(): RadioStep
    {
        return $this->state->step();
    }

    /** Whether this is the step, and no capture goes on beside it. */
    public function next(string $step): bool
    {
        return $this->step()->value === $step;
    }

    public function captures(string $kind): bool
    {
        return $this->capture?->kind === CaptureKind::from($kind);
    }

    /** The stick that is asked for, and where it is to go. */
    public function asked(): string
    {
        return match ($this->capture?->asked) {
            Channel::Roll => 'Push the roll stick all the way to the right, and let it go.',
            Channel::Pitch => 'Pull the pitch stick all the way towards you, nose up, and let it go.',
            Channel::Throttle => 'Push the throttle all the way up, and leave it there. If it is up already, fetch it from below.',
            Channel::Yaw => 'Push the yaw stick all the way to the right, and let it go.',
            null => '',
        };
    }

    /** What was shown until now: the channel of each stick. */
    public function shownSoFar(): string
    {
        $said = [];
        foreach ($this->state->evidence->showing as $stick => $one) {
            $said[] = "$stick is channel {$one['number']}".($one['reversed'] ? ', backwards' : '');
        }

        return implode('; ', $said);
    }

    /** What hinders the stick that is asked for from being told, in words; '' for nothing. */
    public function hinders(): string
    {
        return null === $this->capture?->why ? '' : $this->words->of($this->capture->why);
    }

    public function answer(): string
    {
        $heard = $this->state->reading?->heard;

        return match ($this->step()) {
            RadioStep::Link => $this->known
                ? 'Link the craft, and the sticks show here.'
                : 'Once the craft is linked, the sticks show here what they send.',
            RadioStep::Find => Heard::NotSet === $heard
                ? 'The board listens to no receiver yet.'
                : 'No valid frame arrives: wrong protocol, rate or polarity.',
            RadioStep::Commit => null !== $heard && Heard::Frames === $heard
                ? 'The sticks will say what you mean once this is committed.'
                : 'The receiver is found; the board hears it once this is committed.',
            RadioStep::Power => 'The receiver is silent: no power on its rail, a wrong pad, or it never heard its transmitter.',
            RadioStep::Bind => Heard::Failsafe === $heard
                ? 'The receiver hears no transmitter, and gives its failsafe values.'
                : 'The receiver works, but hears no transmitter.',
            RadioStep::Order => 'Frames arrive. Which channel is which stick is not shown yet.',
            RadioStep::Spans => $this->state->evidence->spans
                ? 'The sticks reach other ends than the board is set to.'
                : 'Each stick has its channel. How far they really reach is not shown yet.',
            RadioStep::DeadBand => \sprintf(
                'At rest the sticks tremble by %.0f µs, more than the dead band covers.',
                $this->state->neededDeadBand(),
            ),
            RadioStep::Sound => 'The sticks say what you mean.',
        };
    }

    /** @return list<array{side: string, x: string, y: string, at: int}> both sticks, and where they stand on the drawing */
    public function sticks(): array
    {
        $out = [];
        foreach (self::STICKS as $side => $axes) {
            $out[] = ['side' => $side, 'x' => $axes['x'], 'y' => $axes['y'], 'at' => 'left' === $side ? 122 : 366];
        }

        return $out;
    }

    /** @return array{x: array{float, float}, y: array{float, float}}|null where a stick was seen to reach, in the same units */
    public function seen(string $x, string $y): ?array
    {
        $of = function (string $stick): ?array {
            $span = $this->state->span(Channel::from($stick));

            return null === $span ? null : $this->drawn($stick, $span->lowUs, $span->highUs);
        };
        [$wide, $tall] = [$of($x), $of($y)];

        return null === $wide || null === $tall ? null : ['x' => $wide, 'y' => $tall];
    }

    /** @return array{float, float} two ends in units from the middle, the way the stick is drawn */
    private function drawn(string $stick, float $lowUs, float $highUs): array
    {
        if ($this->state->reversed(Channel::from($stick))) {
            [$lowUs, $highUs] = [3000 - $highUs, 3000 - $lowUs];
        }

        return [self::HALF * ($lowUs - 1500) / 500, self::HALF * ($highUs - 1500) / 500];
    }

    /** @return array{float, float} where a stick reaches, as set or staged, in units from its middle */
    public function reach(string $stick): array
    {
        $end = fn (string $part, float $usual): float => $this->state->preview->number("channel.$stick.{$part}_us", $usual);

        return $this->drawn($stick, $end('low', 1000), $end('high', 2000));
    }

    /** @return list<array{number: int, stick: string, low: ?float, middle: ?float, high: ?float, reversed: bool}> one a channel */
    public function rulers(): array
    {
        $by = [];
        foreach (Channel::cases() as $stick) {
            $by[$this->state->number($stick)] = $stick;
        }
        $out = [];
        for ($number = 1; $number <= RadioFrame::CHANNELS; ++$number) {
            $stick = $by[$number] ?? null;
            $seen = $this->state->evidence->spans[$number] ?? null;
            $set = fn (string $part): ?float => null === $stick ? null : $this->state->preview->number("channel.$stick->value.{$part}_us");
            $out[] = [
                'number' => $number,
                'stick' => $stick->value ?? '',
                'low' => $set('low') ?? ($seen?->moved ? $seen->lowUs : null),
                'middle' => Channel::Throttle === $stick ? null : $set('middle'),
                'high' => $set('high') ?? ($seen?->moved ? $seen->highUs : null),
                'reversed' => null !== $stick && $this->state->reversed($stick),
            ];
        }

        return $out;
    }

    /** Whether anything of a channel is staged. */
    public function isStaged(string $stick): bool
    {
        return '' !== $stick && !$this->staged->where(static fn (string $n): bool => str_starts_with($n, "channel.$stick."))->isEmpty();
    }

    public function delay(): ?CommandDelay
    {
        $set = $this->state->preview;
        $protocol = Protocol::tryFrom($set->text('receiver.protocol'));
        $interval = $this->state->reading?->intervalMs;

        return null === $protocol || null === $interval
            ? null
            : CommandDelay::of($protocol, $interval, $set->number('command_low_pass.cutoff_hz', 40), $set->loopHz());
    }

    /** Sticks that were not seen at both ends, in words. */
    public function notShown(): string
    {
        return implode(', ', array_column($this->state->notShown(), 'value'));
    }

    /** Whether any span differs from stock. */
    public function spansDiffer(): bool
    {
        foreach (Channel::cases() as $stick) {
            foreach (['low' => 1000.0, 'middle' => 1500.0, 'high' => 2000.0] as $part => $stock) {
                if ($this->state->preview->number("channel.$stick->value.{$part}_us", $stock) !== $stock) {
                    return true;
                }
            }
        }

        return false;
    }

    /** What clashes in the order that was shown, in words; '' for nothing. */
    public function clash(): string
    {
        $order = $this->state->evidence->channelOrder();

        return null === $order->clash || [] === $this->state->evidence->order ? '' : $this->words->of($order->clash);
    }

    public function said(): string
    {
        $heard = $this->state->reading?->heard;

        return match (true) {
            '' !== $this->cause => $this->cause,
            null === $heard => '',
            default => $this->words->capital($heard).'.',
        };
    }
}
