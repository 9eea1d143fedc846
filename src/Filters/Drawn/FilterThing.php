<?php

declare(strict_types=1);

namespace Ortholex\App\Filters\Drawn;

use Ortholex\Core\Settings\Setting;

/** One filter as it stands over the spectrum: what is dragged of it, and what is typed. */
final readonly class FilterThing
{
    /**
     * @param string                                $id       for the page
     * @param string                                $title    in few words
     * @param array<string, string>                 $grips    setting of what is dragged => what it is called
     * @param list<Setting>                         $settings of what is typed
     * @param array<string, float|int|bool|string>  $away     what takes it away
     * @param bool                                  $changed  by what is staged
     * @param string|null                           $need     what it lacks to do anything
     */
    public function __construct(
        public FilterLane $lane,
        public string $id,
        public string $title,
        public array $grips,
        public array $settings,
        public array $away,
        public bool $changed,
        public ?string $need = null,
    ) {
    }
}
