<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Sheet;

use Symfony\Component\DependencyInjection\Attribute\TaggedIterator;

/** The table of contents: all sheets that are offered, in the order of the work. */
final class Sheets
{
    /** @var array<int, Sheet>|null */
    private ?array $sheets = null;

    /** @param iterable<SheetOffer> $offers */
    public function __construct(#[TaggedIterator(SheetOffer::class)] private readonly iterable $offers)
    {
    }

    /** @return array<int, Sheet> by number; one that is built takes the place of one that is only planned */
    public function all(): array
    {
        if (null === $this->sheets) {
            $this->sheets = [];
            foreach ($this->offers as $offer) {
                foreach ($offer->sheets() as $sheet) {
                    if ($sheet->built || !isset($this->sheets[(int) $sheet->number])) {
                        $this->sheets[(int) $sheet->number] = $sheet;
                    }
                }
            }
            ksort($this->sheets);
        }

        return $this->sheets;
    }

    /** @throws \OutOfBoundsException when the book has no such sheet */
    public function numbered(string $number): Sheet
    {
        return $this->all()[(int) $number] ?? throw new \OutOfBoundsException("The book has no sheet $number.");
    }

    /** @return array<int, Sheet> by number */
    public function ofPart(Part $part): array
    {
        return array_filter($this->all(), static fn (Sheet $s): bool => $s->part() === $part);
    }

    /** @return list<Sheet> the first of each part, to open it by */
    public function firsts(): array
    {
        $firsts = [];
        foreach ($this->all() as $sheet) {
            $firsts[$sheet->part()->value] ??= $sheet;
        }

        return array_values($firsts);
    }
}
