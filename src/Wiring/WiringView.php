<?php

declare(strict_types=1);

namespace Ortholex\App\Wiring;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Wiring\Pad;
use Ortholex\Core\Wiring\PadKind;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\Wiring\Wiring;
use Ortholex\Core\Wiring\WiringFault;

/** What sheet 13 shows: where everything stands on the drawing, in its own units. */
final readonly class WiringView
{
    public const BOARD_HALF = 90;
    private const PITCH = 40;

    /**
     * @param bool                                 $toSolder whether the drawing differs from what is soldered
     * @param list<string>                         $bridged
     * @param list<Part>                           $others  parts that could be put down
     */
    public function __construct(
        public ?Wiring $wiring,
        public SettingSet $toStage,
        public SettingSet $staged,
        public bool $linked,
        public bool $cable,
        public bool $pack,
        public bool $toSolder,
        public array $bridged,
        public array $others,
    ) {
    }

    /** @return list<array{part: Part, pin: Pad, pad: string, uart: string}> the wires by name */
    public function list(): array
    {
        $list = [];
        foreach ($this->wiring->wires ?? [] as [$pin, $pad]) {
            $part = $this->wiring->parts[explode('.', $pin)[0]] ?? null;
            $end = $part?->pin($pin);
            if (null !== $part && null !== $end) {
                $list[] = ['part' => $part, 'pin' => $end, 'pad' => $pad, 'uart' => $this->wiring->uarts[$part->id] ?? ''];
            }
        }

        return $list;
    }

    /** @return list<Part> parts on a UART that say something of themselves */
    public function speaking(): array
    {
        return array_values(
            array_filter($this->wiring->parts ?? [], fn (Part $p): bool => isset($this->wiring->uarts[$p->id]) && $p->role->speaks()),
        );
    }

    /** @return list<string> jumpers of the board */
    public function jumpers(): array
    {
        return array_values(array_filter(array_map(static fn (array $p): ?string => $p['pad']->bridge, $this->pads())));
    }

    /** Whether the drawing is whole and differs from what is soldered. */
    public function mayBeSoldered(): bool
    {
        return $this->toSolder && null !== $this->wiring && [] === $this->wiring->refusals() && [] !== $this->wiring->wires;
    }

    private static function about(Part $part, ?string $uart): string
    {
        $on = match (true) {
            null === $uart => '',
            str_starts_with($uart, 'software') => 'software UART, ',
            default => "UART $uart, ",
        };

        $how = $part->pulses() ? 'pulses' : "$part->baud baud";

        return "{$part->role->value}, $on$how".($part->inverted ? ', inv.' : '');
    }

    /** @return list<array{pad: Pad, x: int, y: int, side: int, dead: bool}> */
    public function pads(): array
    {
        $out = [];
        foreach ([-1 => $this->wiring->board->left ?? [], 1 => $this->wiring->board->right ?? []] as $side => $pads) {
            foreach ($pads as $i => $pad) {
                $out[] = [
                    'pad' => $pad,
                    'x' => $side * self::BOARD_HALF,
                    'y' => (int) (($i - (\count($pads) - 1) / 2) * self::PITCH),
                    'side' => $side,
                    'dead' => PadKind::Power === $pad->kind && !$this->pack && !($this->cable && $pad->aliveOnUsb),
                ];
            }
        }

        return $out;
    }

    /**
     * Parts in turn on both sides, each beside the pads it hangs on.
     *
     * @return list<array{part: Part, x: int, y: int, side: int, height: int, pins: list<array{pin: Pad, x: int, y: int}>, about: string}>
     */
    public function parts(): array
    {
        if (null === $this->wiring) {
            return [];
        }
        $at = array_column($this->pads(), null, null);
        $side = [];
        foreach ($at as $one) {
            $side[$one['pad']->id] = $one['side'];
        }
        $sides = [-1 => [], 1 => []];
        foreach ($this->wiring->parts as $part) {
            $pull = 0;
            foreach ($this->wiring->wires as [$pin, $pad]) {
                $pull += str_starts_with($pin, "$part->id.") ? $side[$pad] : 0;
            }
            $sides[0 !== $pull ? ($pull > 0 ? 1 : -1) : (\count($sides[-1]) <= \count($sides[1]) ? -1 : 1)][] = $part;
        }
        $out = [];
        foreach ($sides as $s => $parts) {
            $total = array_sum(array_map(static fn (Part $p): int => 34 + 22 * \count($p->pins), $parts)) + 14 * max(0, \count($parts) - 1);
            $y = (int) (-$total / 2);
            foreach ($parts as $part) {
                $height = 34 + 22 * \count($part->pins);
                $pins = [];
                foreach ($part->pins as $i => $pin) {
                    $pins[] = ['pin' => $pin, 'x' => $s * 250, 'y' => $y + 38 + 22 * $i];
                }
                $out[] = [
                    'part' => $part,
                    'x' => 1 === $s ? 250 : -400,
                    'y' => $y,
                    'side' => $s,
                    'height' => $height,
                    'pins' => $pins,
                    'about' => self::about($part, $this->wiring->uarts[$part->id] ?? null),
                ];
                $y += $height + 14;
            }
        }

        return $out;
    }

    public function boardHalfHeight(): int
    {
        return (int) ((self::PITCH * max(\count($this->wiring->board->left ?? []), \count($this->wiring->board->right ?? []))) / 2) + 34;
    }

    /** @return list<array{from: string, to: string, path: string, kind: string, faults: list<int>, mind: bool, at: array{float, float}}> */
    public function wires(): array
    {
        if (null === $this->wiring) {
            return [];
        }
        $spot = [];
        foreach ($this->pads() as $one) {
            $spot[$one['pad']->id] = [$one['x'], $one['y'], $one['pad']->kind];
        }
        foreach ($this->parts() as $part) {
            foreach ($part['pins'] as $one) {
                $spot[$one['pin']->id] = [$one['x'], $one['y'], $one['pin']->kind];
            }
        }
        $out = [];
        foreach ($this->wiring->wires as $i => [$pin, $pad]) {
            [$x1, $y1, $kind] = $spot[$pin];
            [$x2, $y2] = $spot[$pad];
            // Wires that leave for the far side of the board go round it, above or below.
            $over = $x1 < 0 !== $x2 < 0 ? ($y1 < 0 ? -1 : 1) * ($this->boardHalfHeight() + 22) : null;
            $middle = null === $over ? ($x1 + $x2) / 2 : ($x1 < 0 ? -1 : 1) * 175;
            $path =
                null === $over
                    ? \sprintf('M%d %dC%.0f %d %.0f %d %d %d', $x1, $y1, $middle, $y1, $middle, $y2, $x2, $y2)
                    : \sprintf(
                        'M%d %dC%.0f %d %.0f %d %.0f %dS%.0f %d %d %d',
                        $x1,
                        $y1,
                        $middle,
                        $y1,
                        $middle,
                        $over,
                        0,
                        $over,
                        -$middle,
                        $y2,
                        $x2,
                        $y2,
                    );
            $here = array_filter($this->faults(), static fn (array $one): bool => $one['fault']->wire === $i);
            $out[] = [
                'from' => $pin,
                'to' => $pad,
                'path' => $path,
                'kind' => str_replace('_', '-', $kind->value),
                'faults' => array_column($here, 'n'),
                'mind' => [] === array_filter($here, static fn (array $one): bool => $one['fault']->refuses),
                // The mark stands near the part, where wires that cross further on are still apart.
                'at' => null === $over ? [0.72 * $x1 + 0.28 * $x2, 0.81 * $y1 + 0.19 * $y2] : [0.0, (float) $over],
            ];
        }

        return $out;
    }

    /** @return list<array{n: int, fault: WiringFault}> */
    public function faults(): array
    {
        $out = [];
        foreach ($this->wiring->faults ?? [] as $i => $fault) {
            $out[] = ['n' => $i + 1, 'fault' => $fault];
        }

        return $out;
    }

    /** @return list<array{n: int, x: float, y: float, mind: bool, wire: ?int}> */
    public function marks(): array
    {
        $atPart = [];
        foreach ($this->parts() as $one) {
            $atPart[$one['part']->id] = [$one['x'] + ($one['side'] > 0 ? 150.0 : 0.0), (float) $one['y']];
        }

        return FaultMarks::of($this->wiring->faults ?? [], array_column($this->wires(), 'at'), $atPart);
    }
}
