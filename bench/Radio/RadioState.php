<?php

declare(strict_types=1);

namespace Ortholex\Bench\Radio;

use Ortholex\Core\LinkLoss\Manner;

/** What the transmitter and the receiver of a craft are at this moment, as plain values: kept with its world. */
final class RadioState
{
    /** The memory that a radio has when nothing was ever set. */
    public const FIRST = '1';

    /** Seconds of moves that are remembered: the board is asked more often than that. */
    private const MEMORY_S = 4.0;

    private const MOST_MOVES = 160;

    /** A hand needs so long from where it was to where it is told to go, s. */
    private const GLIDE_S = 0.06;

    /** Where a receiver that was told so puts its channels when the link is gone: sticks in the middle, throttle and levers low. */
    private const PRESET_US = [1500.0, 1500.0, 1000.0, 1500.0, 1000.0, 1000.0];

    private const AT_A_METRE_DBM = -58.0;

    /** At this half of the frames are lost. */
    private const WEAKEST_DBM = -118.0;

    private const CHANNELS = 16;
    private const LEVERS_FROM = 4;
    private const KNOBS_FROM = 10;

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

    /** Since when it has. */
    public float $poweredAt = 0.0;

    public ?Manner $manner = null;

    /** What a receiver that sends presets puts on the throttle's channel, µs. */
    public float $presetThrottle = self::PRESET_US[2];

    /** How far a worn stick trembles, µs. */
    public float $tremble = 0.0;

    /** Share of frames that do not get through. */
    public float $drops = 0.0;

    /** From transmitter to craft, m. */
    public float $distanceM = 1.0;

    /** It sends at a tenth of its power, as for a range walk. */
    public bool $quiet = false;

    /** Wear of the sticks: some craft have older radios, which rest a little beside their middle. */
    public int $seed = 1;

    /** @param array<mixed> $kept as toArray() gave it; an older world has none, and a radio that is sound and bound */
    public static function fromArray(array $kept): self
    {
        $r = new self();
        foreach (['model', 'boundTo'] as $name) {
            $r->{$name} = \is_string($kept[$name] ?? null) ? $kept[$name] : $r->{$name};
        }
        foreach (['button', 'binding', 'powered', 'quiet'] as $name) {
            $r->{$name} = true === ($kept[$name] ?? false);
        }
        foreach (['switchedAt', 'poweredAt', 'tremble', 'drops', 'presetThrottle', 'distanceM'] as $name) {
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
    public function power(bool $powered, float $now): void
    {
        if ($powered !== $this->powered) {
            $this->powered = $powered;
            $this->poweredAt = $now;
            $this->binding = $powered && $this->button;
        }
    }

    /** What the receiver has of its transmitter, dBm: free space, and a tenth of the power is 10 dB less. */
    public function rssi(): float
    {
        return self::AT_A_METRE_DBM - 20 * log10($this->distanceM) - ($this->quiet ? 10.0 : 0.0);
    }

    /** Share of frames that do not get through: what is lost anyway, and what is too weak. */
    public function lost(): float
    {
        return max($this->drops, 1 / (1 + exp(($this->rssi() - self::WEAKEST_DBM) / 1.5)));
    }

    /** @return list<float> of sixteen channels, µs: the throttle's is where the memory has it */
    public function presets(): array
    {
        $us = array_pad(self::PRESET_US, self::CHANNELS, self::PRESET_US[5]);
        $throttle = array_search(2, $this->memory()->order, true);
        if (false !== $throttle && 2 !== $throttle) {
            $us[2] = self::PRESET_US[0];
        }
        $us[false === $throttle ? 2 : $throttle] = $this->presetThrottle;

        return array_values($us);
    }

    public function memory(): Model
    {
        return Model::fromArray($this->models[$this->model] ?? []);
    }

    public function dial(int $channel, Dial $what, float $value): void
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

    /**
     * Where all controls stood. A hand that is told where to go takes a moment to get there; a lever snaps over.
     *
     * @return list<float>
     */
    public function at(float $time): array
    {
        $moves = $this->moves;
        $last = \count($moves) - 1;
        while ($last >= 0 && $moves[$last][0] > $time) {
            --$last;
        }
        if ($last < 0) {
            return $moves[0][1] ?? $this->controls;
        }
        $first = $last;
        while ($first > 0 && $moves[$first][0] - $moves[$first - 1][0] < self::GLIDE_S) {
            --$first;
        }
        $at = $moves[max(0, $first - 1)][1];
        for ($i = $first; $i <= $last; ++$i) {
            $until = min($time, $moves[$i + 1][0] ?? $time);
            $share = min(1.0, ($until - $moves[$i][0]) / self::GLIDE_S);
            $so = [];
            foreach ($moves[$i][1] as $c => $to) {
                $so[] = $c < self::LEVERS_FROM || $c >= self::KNOBS_FROM ? $at[$c] + ($to - $at[$c]) * $share : $to;
            }
            $at = $so;
        }

        return $at;
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
