<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop\Listing;

use Ortholex\App\Book\Mark\Mark;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\Core\Airframe\Airframe;

/** One craft as the Workshop shows it. */
final readonly class CraftSummary
{
    /**
     * @param list<NextStep>   $steps  what it needs next, most pressing first
     * @param array<int, Mark> $marks  the line of its work, by part
     * @param bool             $lies   whether anything lies on its bench
     * @param string           $flown  date of its last flight; '' for none
     */
    public function __construct(
        public string $slug,
        public string $name,
        public string $kind,
        public string $purpose,
        public string $story,
        public ?string $board,
        public string $firmware,
        public int $revision,
        public string $read,
        public Airframe $frame,
        public array $steps,
        public array $marks,
        public bool $lies,
        public bool $byHand,
        public bool $linked,
        public bool $cable,
        public bool $pack,
        public int $logs,
        public string $flown,
    ) {
    }

    /** How pressing what it needs next is; 9 when nothing is. */
    public function urgency(): int
    {
        return isset($this->steps[0]) ? $this->steps[0]->urgency->value : 9;
    }
}
