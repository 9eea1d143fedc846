<?php

declare(strict_types=1);

namespace Ortholex\Bench\Radio;

use Ortholex\Core\LinkLoss\Manner;
use Ortholex\Core\World\NothingToMove;

/** Hands on the transmitter, and on the button of the receiver. */
final readonly class Hands
{
    /** What springs back when it is let go: all sticks but throttle. */
    private const SPRUNG = [0, 1, 3];

    public function __construct(private RadioState $radio, private bool $on, private float $now)
    {
    }

    /** @throws NothingToMove */
    public function move(string $what, string $to): void
    {
        [$kind, $name, $part] = [...explode('.', $what, 3), '', ''];
        match (Hand::tryFrom($kind)) {
            Hand::Sticks => $this->sticks($to),
            Hand::LetGo => $this->letGo(),
            Hand::Lever => $this->lever($name, $to),
            Hand::Knob => $this->control($name, $this->number($what, $to)),
            Hand::Model => $this->model($to),
            Hand::Bind => $this->bind(),
            Hand::Button => $this->radio->button = '1' === $to,
            Hand::Manner => $this->radio->manner = Manner::tryFrom($to),
            Hand::Preset => $this->radio->presetThrottle = $this->within($what, $to, 880.0, 2100.0),
            Hand::Distance => $this->radio->distanceM = $this->within($what, $to, 1.0, 5000.0),
            Hand::Quiet => $this->radio->quiet = '1' === $to,
            Hand::Dial => $this->dial($what, $name, $part, $to),
            null => throw NothingToMove::control($what, $to),
        };
    }

    /** @param string $to as roll=0.5,pitch=-1 */
    private function sticks(string $to): void
    {
        foreach (explode(',', $to) as $one) {
            [$name, $value] = [...explode('=', $one, 2), ''];
            if (!\in_array($name, \array_slice(Model::CONTROLS, 0, 4), true)) {
                throw NothingToMove::control($name, $value);
            }
            $this->control($name, $this->number($name, $value));
        }
    }

    private function letGo(): void
    {
        foreach (self::SPRUNG as $control) {
            $this->radio->move($this->now, $control, 0.0);
        }
    }

    private function lever(string $name, string $to): void
    {
        $at = 1 === preg_match('~^[A-F]$~', $name) ? \ord($name) - \ord('A') : -1;
        $positions = RadioState::LEVERS[$at] ?? 0;
        $position = (int) $this->number($name, $to);
        if ($position < 0 || $position >= $positions) {
            throw NothingToMove::control("lever $name", $to);
        }
        $this->radio->move($this->now, 4 + $at, (2 * $position) / ($positions - 1) - 1);
    }

    private function control(string $name, float $to): void
    {
        $control = array_search($name, Model::CONTROLS, true);
        if (false === $control) {
            throw NothingToMove::control($name, (string) $to);
        }
        $this->radio->move($this->now, $control, $to);
    }

    private function model(string $to): void
    {
        if ($to !== $this->radio->model && !isset($this->radio->models[$to])) {
            throw NothingToMove::control('model', $to);
        }
        // The one that is left is kept among the memories, even if it is as sound as any.
        $this->radio->models[$this->radio->model] ??= Model::sound()->toArray();
        $this->radio->model = $to;
    }

    private function bind(): void
    {
        if (!$this->on) {
            throw NothingToMove::bindsNothing();
        }
        if ($this->radio->binding) {
            $this->radio->binding = false;
            // Nobody holds the button of a receiver that is bound.
            $this->radio->button = false;
            $this->radio->boundTo = $this->radio->model;
        }
    }

    private function dial(string $what, string $channel, string $part, string $to): void
    {
        $number = (int) $channel;
        $dial = Dial::tryFrom($part);
        if ($number < 1 || $number > Model::CHANNELS || null === $dial) {
            throw NothingToMove::control($what, $to);
        }
        $this->radio->dial($number - 1, $dial, $this->number($what, $to));
    }

    private function within(string $what, string $to, float $least, float $most): float
    {
        $is = $this->number($what, $to);

        return $is >= $least && $is <= $most ? $is : throw NothingToMove::control($what, $to);
    }

    private function number(string $what, string $to): float
    {
        return is_numeric($to) && is_finite((float) $to) ? (float) $to : throw NothingToMove::control($what, $to);
    }
}
