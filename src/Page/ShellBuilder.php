<?php

declare(strict_types=1);

namespace Ortholex\App\Page;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Crafts;
use Ortholex\App\Book\Mark\Marks;
use Ortholex\App\Book\Sheet\Sheets;
use Ortholex\App\Link\Benches;
use Ortholex\App\Settings\Airframes;
use Ortholex\App\Settings\Tray\TrayBuilder;
use Ortholex\App\Work\Jobs;
use Psr\Clock\ClockInterface;

/** Builds the frame for a sheet. */
final readonly class ShellBuilder
{
    public function __construct(
        private Crafts $crafts,
        private TrayBuilder $trays,
        private Jobs $jobs,
        private SeenFirst $seen,
        private Airframes $frames,
        private Sheets $sheets,
        private Benches $benches,
        private ClockInterface $clock,
        private Marks $marks,
    ) {
    }

    public function of(Craft $craft, string $sheet): ShellView
    {
        $here = $this->sheets->numbered($sheet);

        return new ShellView(
            $craft,
            $here,
            $this->crafts->listed(),
            $this->sheets->all(),
            $this->sheets->firsts(),
            $this->sheets->ofPart($here->part()),
            $this->marks->of($craft),
            $this->trays->of($craft),
            $this->seen->of($craft),
            $this->bench($craft),
            $this->jobs->of($craft),
            $this->clock->now()->format('Y-m-d'),
            $this->frames->of($craft),
        );
    }

    private function bench(Craft $craft): BenchView
    {
        $bench = $this->benches->of($craft);

        return new BenchView($bench->state(), $bench->faults(), $bench->mishaps(), $bench->radio());
    }
}
