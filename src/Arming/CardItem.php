<?php

declare(strict_types=1);

namespace Ortholex\App\Arming;

/** One line of the go card. */
final readonly class CardItem
{
    /**
     * @param string     $key      under which its tick is kept
     * @param bool       $maiden   whether it stands on the card of a first flight only
     * @param bool|null  $byItself what the craft itself says of it; null where the builder ticks it
     * @param float|null $tickedAt seconds since 1970
     * @param int        $revision of the settings when it was ticked
     * @param bool       $stale    ticked, and the settings were changed since
     */
    public function __construct(
        public string $key,
        public string $text,
        public bool $maiden,
        public ?bool $byItself,
        public ?float $tickedAt,
        public int $revision,
        public bool $stale,
    ) {
    }

    public function isDone(): bool
    {
        return $this->byItself ?? (null !== $this->tickedAt && !$this->stale);
    }
}
