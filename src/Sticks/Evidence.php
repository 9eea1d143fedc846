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
     * @param array<string, array{number: int, reversed: bool, margin: float}> $order  by stick
     * @param array<int, CapturedChannel>                                     $spans  by channel
     * @param array<int, FoundSwitch>                                         $levers by channel
     */
    private function __construct(public array $order, public array $spans, public array $levers)
    {
    }

    /** @param array<mixed> $kept as toArray() gave it; what does not fit is not known */
    public static function of(array $kept): self
    {
        $part = static fn (string $name): array => \is_array($kept[$name] ?? null) ? $kept[$name] : [];
        $number = static fn (mixed $v): ?float => \is_int($v) || \is_float($v) ? (float) $v : null;
        $order = $spans = $levers = [];
        foreach ($part('order') as $stick => $one) {
            if (null !== Channel::tryFrom((string) $stick) && \is_array($one) && \is_int($one['number'] ?? null)) {
                $order[(string) $stick] = [
                    'number' => $one['number'],
                    'reversed' => true === ($one['reversed'] ?? false),
                    'margin' => $number($one['margin'] ?? null) ?? 0.0,
                ];
            }
        }
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

        return new self($order, $spans, $levers);
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
        ];
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

    /** @return array<string, int> the channel of each stick that was shown, by stick */
    public function numbers(): array
    {
        return array_map(static fn (array $one): int => $one['number'], $this->order);
    }

    /** @param array<string, array{number: int, reversed: bool, margin: float}> $order */
    public function withOrder(array $order): self
    {
        return new self($order, $this->spans, $this->levers);
    }

    /** @param array<int, CapturedChannel> $spans */
    public function withSpans(array $spans): self
    {
        return new self($this->order, $spans, $this->levers);
    }

    /** @param array<int, FoundSwitch> $levers those found anew; others stay */
    public function withLevers(array $levers): self
    {
        $all = array_replace($this->levers, $levers);
        ksort($all);

        return new self($this->order, $this->spans, $all);
    }

    public function withoutLever(int $channel): self
    {
        $levers = $this->levers;
        unset($levers[$channel]);

        return new self($this->order, $this->spans, $levers);
    }
}
