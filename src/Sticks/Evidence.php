<?php

declare(strict_types=1);

namespace Ortholex\App\Sticks;

use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Radio\Span\CapturedChannel;
use Ortholex\Core\Radio\Span\ChannelOrder;
use Ortholex\Core\Radio\Span\MovedStick;
use Ortholex\Core\Switches\FoundSwitch;

/** What the builder has shown of a craft's radio: which channel each stick moves, their spans, and the levers; as its book keeps it. */
final readonly class Evidence
{
    /**
     * @param array<string, array{number: int, reversed: bool, margin: float}> $order   by stick
     * @param array<int, CapturedChannel>                                     $spans   by channel
     * @param array<int, FoundSwitch>                                         $levers  by channel
     * @param array<string, array{number: int, reversed: bool, margin: float}> $showing an order that is being shown: not all of it yet
     */
    private function __construct(public array $order, public array $spans, public array $levers, public array $showing)
    {
    }

    /** @param array<mixed> $kept as toArray() gave it; what does not fit is not known */
    public static function of(array $kept): self
    {
        $part = static fn (string $name): array => \is_array($kept[$name] ?? null) ? $kept[$name] : [];
        $number = static fn (mixed $v): ?float => \is_int($v) || \is_float($v) ? (float) $v : null;
        $spans = $levers = [];
        foreach ($part('spans') as $channel => $one) {
            if (\is_array($one)) {
                $spans[(int) $channel] = new CapturedChannel(
                    true === ($one['moved'] ?? false),
                    $number($one['low'] ?? null),
                    $number($one['middle'] ?? null),
                    $number($one['high'] ?? null),
                    $number($one['jitter'] ?? null) ?? 0.0,
                    $number($one['rests'] ?? null) ?? 0.0,
                );
            }
        }
        foreach ($part('levers') as $channel => $one) {
            $positions = \is_array($one) && \is_array($one['positions'] ?? null) ? array_map($number, $one['positions']) : [];
            $positions = array_values(array_filter($positions, static fn (?float $p): bool => null !== $p));
            if (\is_array($one) && \count($positions) > 1) {
                $knob = true === ($one['knob'] ?? false);
                $levers[(int) $channel] = FoundSwitch::at((int) $channel, $positions, $number($one['jitter'] ?? null) ?? 0.0, $knob);
            }
        }
        ksort($levers);

        return new self(self::sticks($part('order')), $spans, $levers, self::sticks($part('showing')));
    }

    /**
     * @param array<mixed> $kept
     *
     * @return array<string, array{number: int, reversed: bool, margin: float}>
     */
    private static function sticks(array $kept): array
    {
        $order = [];
        foreach ($kept as $stick => $one) {
            if (null !== Channel::tryFrom((string) $stick) && \is_array($one) && \is_int($one['number'] ?? null)) {
                $margin = $one['margin'] ?? null;
                $order[(string) $stick] = [
                    'number' => $one['number'],
                    'reversed' => true === ($one['reversed'] ?? false),
                    'margin' => \is_int($margin) || \is_float($margin) ? (float) $margin : 0.0,
                ];
            }
        }

        return $order;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'order' => $this->order,
            'spans' => array_map(
                static fn (CapturedChannel $c): array => [
                    'moved' => $c->moved,
                    'low' => $c->lowUs,
                    'middle' => $c->middleUs,
                    'high' => $c->highUs,
                    'jitter' => $c->jitterUs,
                    'rests' => $c->restsUs,
                ],
                $this->spans,
            ),
            'levers' => array_map(static fn (FoundSwitch $s): array => $s->toArray(), $this->levers),
        ] + ([] === $this->showing ? [] : ['showing' => $this->showing]);
    }

    /** The sticks that were shown, as an order: a bijection, or what clashes. */
    public function channelOrder(): ChannelOrder
    {
        $moved = [];
        foreach ($this->order as $stick => $one) {
            $moved[] = MovedStick::known(Channel::from($stick), $one['number'], $one['reversed'], $one['margin']);
        }

        return ChannelOrder::of($moved);
    }

    /** @return list<Channel> sticks that are yet to be shown, in the order they are asked for */
    public function left(): array
    {
        return array_values(array_filter(Channel::cases(), fn (Channel $c): bool => !isset($this->showing[$c->value])));
    }

    /** One stick more of an order that is being shown; the last makes it the order, and until then the one of before stands. */
    public function shows(MovedStick $moved): self
    {
        $one = ['number' => (int) $moved->number, 'reversed' => $moved->reversed, 'margin' => $moved->margin];
        $next = new self($this->order, $this->spans, $this->levers, [$moved->asked->value => $one] + $this->showing);

        return [] === $next->left() ? $this->withOrder($next->showing) : $next;
    }

    /** @param array<string, array{number: int, reversed: bool, margin: float}> $order */
    public function withOrder(array $order): self
    {
        return new self($order, $this->spans, $this->levers, []);
    }

    public function withNothingShowing(): self
    {
        return new self($this->order, $this->spans, $this->levers, []);
    }

    /** @param array<int, CapturedChannel> $spans */
    public function withSpans(array $spans): self
    {
        return new self($this->order, $spans, $this->levers, $this->showing);
    }

    /** @param array<int, FoundSwitch> $levers those found anew; others stay */
    public function withLevers(array $levers): self
    {
        $all = array_replace($this->levers, $levers);
        ksort($all);

        return new self($this->order, $this->spans, $all, $this->showing);
    }

    public function withoutLever(int $channel): self
    {
        $levers = $this->levers;
        unset($levers[$channel]);

        return new self($this->order, $this->spans, $levers, $this->showing);
    }
}
