<?php

declare(strict_types=1);

namespace Ortholex\App\Page;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Mark\Mark;
use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Settings\Tray\TrayView;
use Ortholex\App\Work\Job;
use Ortholex\Core\Airframe\Airframe;

/** The frame that a sheet hangs in. */
final readonly class ShellView
{
    /**
     * @param list<array{slug: string, name: string, kind: string}> $crafts
     * @param array<int, Sheet>     $sheets all, by number
     * @param list<Sheet>           $firsts the first sheet of each part
     * @param array<int, Sheet>     $tabs   sheets of this part
     * @param array<int, Mark>      $marks  by part
     * @param list<Job>             $jobs   open ones, and those whose end was not yet seen
     * @param array<string, mixed>  $live    first state of the bench and the link, as the poll gives it
     */
    public function __construct(
        public Craft $craft,
        public Sheet $sheet,
        public array $crafts,
        public array $sheets,
        public array $firsts,
        public array $tabs,
        public array $marks,
        public TrayView $tray,
        public array $live,
        public BenchView $bench,
        public array $jobs,
        public string $date,
        public Airframe $frame,
    ) {
    }

    /** @return list<string> numbers of the sheets that are built */
    public function built(): array
    {
        return array_values(
            array_map(static fn (Sheet $s): string => $s->number, array_filter($this->sheets, static fn (Sheet $s): bool => $s->built)),
        );
    }
}
