<?php

declare(strict_types=1);

namespace Ortholex\Bench\Radio;

/** What the transmitter and the receiver of a craft are at this moment, as plain values: kept with its world. */
final class RadioState
{
    /** The memory that a radio has when nothing was ever set. */
    public const FIRST = '1';

    /** Seconds of moves that are remembered: the board is asked more often than that. */
    private const MEMORY_S = 4.0;

    private const MOST_MOVES = 160;

    /** How many positions each lever has, A to F. */
    public const LEVERS = [3, 3, 2, 3, 2, 3];

    /** Which model memory is called up. */
    public string $model = self::FIRST;

    /** @var array<string, array<mixed>> what differs from a sound model, by name */
    public array $models = [];

    /** @var list<float> where each control stands now, −1 to 1 */
    public array $controls = [0.0, 0.0, -1.0, 0.0, -1.0, -1.0, -1.0, -1.0, -1.0, -1.0, 0.0, 0.0];

    /** @var list<array{float, list<float>}> moves of a moment ago: when, and where all controls then stood */
    public array $moves = [];

    /** When the transmitter was switched off or on last. */
    public float $switchedAt = 0.0;

    /** Which model the receiver is bound to; '' for none. */
    public string $boundTo = self::FIRST;

    /** Its bind button is held. */
    public bool $button = false;

    /** It had its button held as power came, and waits for a transmitter to bind to. */
    public bool $binding = false;

    /** Whether the receiver had power when it was looked at last. */
    public bool $powered = false;

    public ?Manner $manner = null;

    /** How far a worn stick trembles, µs. */
    public float $tremble = 0.0;

    /** Share of frames that do not get through. */
    public float $drops = 0.0;

    /** Wear of the sticks: some craft have older radios, which rest a little beside their middle. */
    public int $seed = 1;

    /** @param array<mixed> $kept as toArray() gave it; an older world has none, and a radio that is sound and bound */
    public static function fromArray(array $kept): self
    {
        $r = new self();
        foreach (['model', 'boundTo'] as $name) {
            $r->{$name} = \is_string($kept[$name] ?? null) ? $kept[$name] : $r->{$name};
        }
        foreach (['button', 'binding', 'powered'] as $name) {
            $r->{$name} = true === ($kept[$name] ?? false);
        }
        foreach (['switchedAt', 'tremble', 'drops'] as $name) {
            $value = $kept[$name] ?? null;
            $r->{$name} = \is_int($value) || \is_float($value) ? (float) $value : $r->{$name};
        }
        $r->seed = \is_int($kept['seed'] ?? null) ? $kept['seed'] : 1;
        $r->manner = \is_string($kept['manner'] ?? null) ? Manner::tryFrom($kept['manner']) : null;
        foreach (\is_array($kept['models'] ?? null) ? $kept['models'] : [] as $name => $model) {
            if (\is_array($model)) {
                $r->models[(string) $name] = $model;
            }
        }
        $controls = self::controls($kept['controls'] ?? null);
        $r->controls = $controls ?? $r->controls;
        foreach (\is_array($kept['moves'] ?? null) ? $kept['moves'] : [] as $move) {
            $then = \is_array($move) ? self::controls($move[1] ?? null) : null;
            if (null !== $then && (\is_float($move[0] ?? null) || \is_int($move[0] ?? null))) {
                $r->moves[] = [(float) $move[0], $then];
            }
        }

        return $r;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        $kept = [];
        foreach (get_object_vars($this) as $name => $value) {
            $kept[(string) $name] = $value instanceof Manner ? $value->value : $value;
        }

        return $kept;
    }

    /** Power came or went: with its button held as it comes, a receiver waits to be bound. */
    public function power(bool $powered): void
    {
        if ($powered !== $this->powered) {
            $this->powered = $powered;
            $this->binding = $powered && $this->button;
        }
    }

    public function memory(): Model
    {
        return Model::fromArray($this->models[$this->model] ?? []);
    }

    public function dial(int $channel, string $what, float $value): void
    {
        $this->models[$this->model] = $this->memory()->dialled($channel, $what, $value)->toArray();
    }

    /** Moves controls, and remembers where they stood. */
    public function move(float $now, int $control, float $to): void
    {
        if ([] === $this->moves) {
            $this->moves[] = [$now - 0.001, $this->controls];
        }
        $controls = $this->controls;
        $controls[$control] = max(-1.0, min(1.0, $to));
        $this->controls = array_values($controls);
        $this->moves[] = [$now, $this->controls];
        $this->moves = array_values(
            \array_slice(array_filter($this->moves, static fn (array $m): bool => $m[0] > $now - self::MEMORY_S), -self::MOST_MOVES),
        );
    }

    /** @return list<float> where all controls stood: a hand goes evenly from one place that was told to the next, if that is soon */
    public function at(float $time): array
    {
        $moves = $this->moves;
        $n = \count($moves);
        if (0 === $n || $time >= $moves[$n - 1][0]) {
            return $this->controls;
        }
        if ($time <= $moves[0][0]) {
            return $moves[0][1];
        }
        for ($i = $n - 1; $i > 0 && $moves[$i - 1][0] > $time; --$i) {
        }
        [$from, $before] = $moves[$i - 1];
        [$to, $after] = $moves[$i];
        // A lever flicks; a stick that rested does not creep towards where it will be moved next.
        $share = $to - $from > 0.15 ? max(0.0, 1 - ($to - $time) / 0.05) : ($time - $from) / max(1e-6, $to - $from);
        $so = [];
        foreach ($before as $c => $value) {
            $so[] = $c < 4 || $c >= 10 ? $value + ($after[$c] - $value) * $share : $value;
        }

        return $so;
    }

    /** @return list<float>|null */
    private static function controls(mixed $list): ?array
    {
        if (!\is_array($list) || \count($list) !== \count(Model::CONTROLS)) {
            return null;
        }
        $out = [];
        foreach ($list as $value) {
            if (!\is_int($value) && !\is_float($value)) {
                return null;
            }
            $out[] = (float) $value;
        }

        return $out;
    }
}
