<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Ortholex\Core\Esc\OddOnes;
use Ortholex\Core\Settings\Setting;

/** One row of sheet 16: what each ESC has of one thing. */
final readonly class EscRow
{
    /** What each has for itself. */
    public const OWN = 'direction';

    /**
     * @param array<string, float|int|bool|string> $values by place, where it can be honoured
     * @param array<string, float|int|bool|string> $staged by place
     * @param array<string, string>                $unable why not, by place
     */
    public function __construct(
        public string $key,
        public string $label,
        public string $unit,
        public string $help,
        public ?Setting $setting,
        public array $values,
        public array $staged,
        public array $unable,
    ) {
    }

    /** Why it cannot be honoured, and where; '' where it can be everywhere. */
    public function cannot(): string
    {
        $said = [];
        foreach ($this->unable as $place => $why) {
            $said[] = str_replace('_', ' ', $place)." ($why)";
        }

        return [] === $said ? '' : 'Cannot: '.implode(', ', $said).'.';
    }

    /** Each motor turns its own way: it is neither common nor odd. */
    public function isOwn(): bool
    {
        return self::OWN === $this->key;
    }

    /** Whether one value can be given to all at once. */
    public function forAll(): bool
    {
        return null !== $this->setting && !$this->isOwn() && [] !== $this->values;
    }

    /** What most have; null while nothing has a majority. */
    public function common(): float|int|bool|string|null
    {
        return $this->differs()->common;
    }

    /** The same, of what is on the craft now. */
    public function commonNow(): float|int|bool|string|null
    {
        return OddOnes::of($this->values)->common;
    }

    public function differs(): OddOnes
    {
        return $this->isOwn() ? OddOnes::of([]) : OddOnes::of($this->all());
    }

    /** @return array<string, float|int|bool|string> by place, as staged */
    public function all(): array
    {
        return array_merge($this->values, $this->staged);
    }

    /** Whether it is to be told at a place: it departs there from the others, stands in a group, or is being changed there alone. */
    public function isToldAt(string $place): bool
    {
        return \in_array($place, $this->differs()->odd, true)
            || (isset($this->staged[$place]) && \count($this->staged) < \count($this->values));
    }

    /** @return list<string> the others that have what a place has, where no value has a majority */
    public function alike(string $place): array
    {
        foreach ($this->differs()->groups as $group) {
            if (\in_array($place, $group, true)) {
                return array_values(array_diff($group, [$place]));
            }
        }

        return [];
    }
}
