<?php

declare(strict_types=1);

namespace Ortholex\Bench\Radio;

/** One memory of the transmitter: which control goes out on which channel, and how each channel is trimmed. */
final readonly class Model
{
    /** Controls in the order in which the transmitter has them: four sticks, six levers, two knobs. */
    public const CONTROLS = ['roll', 'pitch', 'throttle', 'yaw', 'A', 'B', 'C', 'D', 'E', 'F', 'K1', 'K2'];

    /** Channels that can be dialled. */
    public const CHANNELS = 12;

    /**
     * @param list<int>   $order    by channel: which control it carries
     * @param list<float> $lowPct   end points by channel, % of 500 µs
     * @param list<float> $highPct
     * @param list<float> $trimUs   sub-trims by channel
     * @param list<bool>  $reversed by channel
     */
    public function __construct(
        public array $order,
        public array $lowPct,
        public array $highPct,
        public array $trimUs,
        public array $reversed,
    ) {
    }

    public static function sound(): self
    {
        $all = static fn (float|bool $value): array => array_fill(0, self::CHANNELS, $value);

        /** @var list<float> $full */
        $full = $all(100.0);
        /** @var list<float> $none */
        $none = $all(0.0);
        /** @var list<bool> $straight */
        $straight = $all(false);

        return new self(range(0, self::CHANNELS - 1), $full, $full, $none, $straight);
    }

    /** @param array<mixed> $kept */
    public static function fromArray(array $kept): self
    {
        $sound = self::sound();
        /** @return list<mixed> */
        $numbers = static function (string $name, array $default) use ($kept): array {
            $list = \is_array($kept[$name] ?? null) ? $kept[$name] : $default;

            return array_values(self::CHANNELS === \count($list) ? $list : $default);
        };
        $float = static fn (mixed $v): float => \is_int($v) || \is_float($v) ? (float) $v : 0.0;
        $last = self::CHANNELS - 1;

        return new self(
            array_map(static fn (mixed $v): int => \is_int($v) ? max(0, min($last, $v)) : 0, $numbers('order', $sound->order)),
            array_map($float, $numbers('low', $sound->lowPct)),
            array_map($float, $numbers('high', $sound->highPct)),
            array_map($float, $numbers('trim', $sound->trimUs)),
            array_map(static fn (mixed $v): bool => true === $v, $numbers('reversed', $sound->reversed)),
        );
    }

    /** @return array<string, list<float|int|bool>> */
    public function toArray(): array
    {
        return [
            'order' => $this->order,
            'low' => $this->lowPct,
            'high' => $this->highPct,
            'trim' => $this->trimUs,
            'reversed' => $this->reversed,
        ];
    }

    /**
     * Pulse of a channel.
     *
     * @param list<float> $controls −1 to 1
     */
    public function us(int $channel, array $controls): float
    {
        if ($channel >= self::CHANNELS) {
            return 1500.0;
        }
        $at = $controls[$this->order[$channel]] * ($this->reversed[$channel] ? -1 : 1);
        $end = $at < 0 ? $this->lowPct[$channel] : $this->highPct[$channel];

        return 1500 + $this->trimUs[$channel] + 5 * $end * $at;
    }

    /** The same with one figure of a channel changed. */
    public function dialled(int $channel, Dial $what, float $value): self
    {
        $kept = $this->toArray();
        $kept[$what->value][$channel] = $what->within($value);

        return self::fromArray($kept);
    }
}
