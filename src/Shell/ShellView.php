<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Ortholex\App\Craft\Craft;
use Ortholex\App\Tray\TrayView;
use Ortholex\Core\Airframe\Airframe;

/** The frame that a sheet hangs in. */
final readonly class ShellView
{
    /**
     * @param list<Craft>           $crafts
     * @param array<int, Sheet> $tabs
     * @param array<int, string> $marks   per part: what the small mark says
     * @param array<string, mixed>  $live    first state of the bench and the link, as the poll gives it
     */
    public function __construct(
        public Craft $craft,
        public Sheet $sheet,
        public array $crafts,
        public array $tabs,
        public array $marks,
        public TrayView $tray,
        public array $live,
        public string $date,
        public Airframe $frame,
    ) {
    }
}
