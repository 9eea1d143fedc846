<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

/** Where a job is, in figures, for drawings; the words for people go beside it. */
final readonly class JobStep
{
    /**
     * @param int        $done  pages
     * @param int        $of    pages; 0 where there are none
     * @param string     $place of the ESC that it is about, '' for none
     * @param float|null $leftS seconds, where the work knows better than its progress tells, as when it is resumed
     */
    public function __construct(
        public ?JobPhase $phase = null,
        public int $done = 0,
        public int $of = 0,
        public string $place = '',
        public ?float $leftS = null,
    ) {
    }

    /** @return array{phase: string|null, done: int, of: int, place: string, left_s: float|null} */
    public function toArray(): array
    {
        return [
            'phase' => $this->phase?->value,
            'done' => $this->done,
            'of' => $this->of,
            'place' => $this->place,
            'left_s' => $this->leftS,
        ];
    }
}
