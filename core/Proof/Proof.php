<?php

declare(strict_types=1);

namespace Ortholex\Core\Proof;

use Ortholex\Core\Craft\SettingSet;

/** One thing that was proved: when, on which settings it rested, and what was found. */
final readonly class Proof
{
    /**
     * @param float                $at    seconds since 1970
     * @param array<string, mixed> $found
     * @param string               $undone the part whose replacement undid it; '' for none
     */
    private function __construct(
        public Proved $what,
        public float $at,
        public SettingSet $rests,
        public array $found,
        public string $undone,
    ) {
    }

    /** @param array<string, mixed> $found */
    public static function now(Proved $what, SettingSet $settings, float $at, array $found = []): self
    {
        return new self($what, $at, self::among($what, $settings), $found, '');
    }

    /** @param array<mixed> $kept as toArray() gave it */
    public static function fromArray(Proved $what, array $kept): self
    {
        /** @var array<string, float|int|bool|string> $rests */
        $rests = \is_array($kept['rests'] ?? null) ? array_filter($kept['rests'], \is_scalar(...)) : [];
        /** @var array<string, mixed> $found */
        $found = \is_array($kept['found'] ?? null) ? $kept['found'] : [];

        return new self(
            $what,
            is_numeric($kept['at'] ?? null) ? (float) $kept['at'] : 0.0,
            SettingSet::of($rests),
            $found,
            \is_string($kept['undone'] ?? null) ? $kept['undone'] : '',
        );
    }

    /** The same, undone by the replacement of a part. */
    public function undoneBy(ReplacedPart $part): self
    {
        return new self($this->what, $this->at, $this->rests, $this->found, $part->value);
    }

    /** @return list<string> settings that it rested on and that are other now */
    public function changed(SettingSet $now): array
    {
        $then = $this->rests->toArray();
        $names = [];
        foreach (self::among($this->what, $now)->toArray() as $name => $value) {
            if (!\array_key_exists($name, $then) || !self::same($then[$name], $value)) {
                $names[] = $name;
            }
        }

        return $names;
    }

    public function holds(SettingSet $now): bool
    {
        return '' === $this->undone && [] === $this->changed($now);
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return ['at' => $this->at, 'rests' => $this->rests->toArray(), 'found' => $this->found, 'undone' => $this->undone];
    }

    private static function same(float|int|bool|string $a, float|int|bool|string $b): bool
    {
        return $a === $b || (!\is_bool($a) && !\is_bool($b) && is_numeric($a) && is_numeric($b) && (float) $a === (float) $b);
    }

    private static function among(Proved $what, SettingSet $settings): SettingSet
    {
        return $settings->where(static function (string $name) use ($what): bool {
            foreach ($what->restsOn() as $begin) {
                if (str_starts_with($name, $begin)) {
                    return true;
                }
            }

            return false;
        });
    }
}
