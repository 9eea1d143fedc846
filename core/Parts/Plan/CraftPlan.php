<?php

declare(strict_types=1);

namespace Ortholex\Core\Parts\Plan;

use Ortholex\Core\Parts\BoardPart;
use Ortholex\Core\Parts\EscPart;
use Ortholex\Core\Parts\Frame;
use Ortholex\Core\Parts\Motor;
use Ortholex\Core\Parts\PackPart;
use Ortholex\Core\Parts\PartsCatalogue;
use Ortholex\Core\Parts\Prop;

/** What a craft is to be put together from. */
final readonly class CraftPlan
{
    /**
     * @param list<string> $extras   what is soldered to its board: ids of Wiring\Part
     * @param float|null   $weighsG  all of it on the scales, pack included; null: what its parts add up to
     */
    public function __construct(
        public Frame $frame,
        public Motor $motor,
        public Prop $prop,
        public EscPart $esc,
        public PackPart $pack,
        public BoardPart $board,
        public array $extras,
        public ?float $weighsG = null,
    ) {
    }

    public function propInches(): float
    {
        return round($this->prop->diameterMm / 25.4, 1);
    }

    /** @return array<string, float|int|string|list<string>|null> to keep; see fromArray */
    public function toArray(): array
    {
        return [
            'frame' => $this->frame->id,
            'diagonal_mm' => $this->frame->diagonalMm,
            'motor' => $this->motor->id,
            'prop' => $this->prop->id,
            'esc' => $this->esc->id,
            'pack' => $this->pack->id,
            'board' => $this->board->id,
            'extras' => $this->extras,
            'weighs_g' => $this->weighsG,
        ];
    }

    /**
     * @param array<mixed> $kept as toArray() gave it
     *
     * @return self|null null when a part is in no catalogue any more
     */
    public static function fromArray(array $kept, PartsCatalogue $parts): ?self
    {
        $id = static fn (string $name): string => \is_string($kept[$name] ?? null) ? $kept[$name] : '';
        $number = static fn (string $name): ?float => is_numeric($kept[$name] ?? null) ? (float) $kept[$name] : null;
        $frame = $parts->frames[$id('frame')] ?? null;
        $motor = $parts->motors[$id('motor')] ?? null;
        $prop = $parts->props[$id('prop')] ?? null;
        $esc = $parts->escs[$id('esc')] ?? null;
        $pack = $parts->packs[$id('pack')] ?? null;
        $board = $parts->boards[$id('board')] ?? null;
        if (null === $frame || null === $motor || null === $prop || null === $esc || null === $pack || null === $board) {
            return null;
        }
        $extras = \is_array($kept['extras'] ?? null) ? array_values(array_filter($kept['extras'], \is_string(...))) : [];
        $diagonal = $number('diagonal_mm') ?? $frame->diagonalMm;

        return new self(
            $diagonal === $frame->diagonalMm ? $frame : $frame->withDiagonal($diagonal),
            $motor,
            $prop,
            $esc,
            $pack,
            $board,
            $extras,
            $number('weighs_g'),
        );
    }

    public function motors(): int
    {
        return \count($this->frame->airframe()->motors);
    }
}
