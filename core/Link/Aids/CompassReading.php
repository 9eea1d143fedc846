<?php

declare(strict_types=1);

namespace Ortholex\Core\Link\Aids;

/** One reading of the compass, and how the craft lay. */
final readonly class CompassReading
{
    /**
     * @param array{float, float, float} $fieldUt in the compass's own axes
     * @param array{float, float, float} $forceG  specific force in the craft's axes, as the board takes them
     */
    public function __construct(public array $fieldUt, public array $forceG, public float $outputPct)
    {
    }

    /** @return list<float> */
    public function toArray(): array
    {
        return [...$this->fieldUt, ...$this->forceG, $this->outputPct];
    }

    /** @param mixed $kept as toArray() gave it */
    public static function fromArray(mixed $kept): ?self
    {
        $v = \is_array($kept) ? array_values(array_filter($kept, is_numeric(...))) : [];

        return 7 === \count($v)
            ? new self([(float) $v[0], (float) $v[1], (float) $v[2]], [(float) $v[3], (float) $v[4], (float) $v[5]], (float) $v[6])
            : null;
    }
}
