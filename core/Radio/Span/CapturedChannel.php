<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Span;

/** What a capture learned of one channel; µs, null for what it did not show. */
final readonly class CapturedChannel
{
    /**
     * @param float|null $middleUs  where it came to rest between its ends; null where it never did, as a throttle
     * @param float      $jitterUs  99.5th percentile of how far it trembles about its rest
     * @param float      $restsUs   the same about the middle, with the rests beside each other: what a dead band must cover
     */
    public function __construct(
        public bool $moved,
        public ?float $lowUs,
        public ?float $middleUs,
        public ?float $highUs,
        public float $jitterUs,
        public float $restsUs,
    ) {
    }

    /** Whether both ends were reached. */
    public function isWhole(): bool
    {
        return $this->moved && null !== $this->lowUs && null !== $this->highUs;
    }

    /** @return array{moved: bool, low_us: float|null, middle_us: float|null, high_us: float|null, jitter_us: float} */
    public function toArray(): array
    {
        $one = static fn (?float $us): ?float => null === $us ? null : round($us, 1);

        return [
            'moved' => $this->moved,
            'low_us' => $one($this->lowUs),
            'middle_us' => $one($this->middleUs),
            'high_us' => $one($this->highUs),
            'jitter_us' => round($this->jitterUs, 1),
        ];
    }
}
