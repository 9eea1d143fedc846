<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Home;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Homing\HomeStage;
use Ortholex\Core\World\FlownPath;

/** A return as it was flown. */
final readonly class ReturnPath
{
    /** A flight shows nothing any more once one of these changes. */
    private const RESTS_ON = ['return.', 'hold.', 'compass.', 'location.', 'altitude_hold.'];

    /** As near to home as this it has come home, m. */
    public const HOME_M = 5.0;

    /**
     * @param list<array{float, float, float, float, float, string}> $points s, north, east, height, m/s down, stage
     * @param array{float, float}|null                               $home   where the board took home for
     * @param array<string, mixed>                                   $told   what it was flown with
     * @param array<string, mixed>                                   $set    what it rests on
     */
    private function __construct(
        public array $points,
        public ?array $home,
        public float $usedAh,
        public float $impactMs,
        public array $told,
        private array $set,
    ) {
    }

    /** @param array<mixed> $kept of the job that flew it */
    public static function of(array $kept): ?self
    {
        $points = [];
        foreach (\is_array($kept['points'] ?? null) ? $kept['points'] : [] as $p) {
            if (\is_array($p) && 6 === \count($p) && \is_string($p[5] ?? null)) {
                $number = static fn (int $i): float => is_numeric($p[$i] ?? null) ? (float) $p[$i] : 0.0;
                $points[] = [$number(0), $number(1), $number(2), $number(3), $number(4), $p[5]];
            }
        }
        $number = static fn (string $name): float => is_numeric($kept[$name] ?? null) ? (float) $kept[$name] : 0.0;
        $home = \is_array($kept['home'] ?? null) ? array_values(array_filter($kept['home'], is_numeric(...))) : [];
        /** @var array<string, mixed> $told */
        $told = \is_array($kept['told'] ?? null) ? $kept['told'] : [];
        /** @var array<string, mixed> $set */
        $set = \is_array($kept['set'] ?? null) ? $kept['set'] : [];

        return \count($points) < 2
            ? null
            : new self(
                $points,
                2 === \count($home) ? [(float) $home[0], (float) $home[1]] : null,
                $number('used_ah'),
                $number('impact'),
                $told,
                $set,
            );
    }

    /** @return array<string, float|int|bool|string> */
    public static function rests(SettingSet $set): array
    {
        return $set->where(
            static fn (string $name): bool => [] !== array_filter(
                self::RESTS_ON,
                static fn (string $p): bool => str_starts_with($name, $p),
            ),
        )->toArray();
    }

    /** Whether it was flown with what is set now, and nothing went wrong on purpose. */
    public function holds(SettingSet $set): bool
    {
        return ReturnWrong::Nothing->value === ($this->told['wrong'] ?? '') && self::rests($set) == $this->set;
    }

    public function missedM(): float
    {
        $last = $this->points[\count($this->points) - 1];

        return hypot($last[1], $last[2]);
    }

    /** Whether it met the ground so that it broke. */
    public function fell(): bool
    {
        return $this->impactMs > FlownPath::BREAKS_MS;
    }

    /** Whether it flew back and stands there whole: a return that never began, was blind, or fell, did not. */
    public function cameHome(): bool
    {
        $last = $this->points[\count($this->points) - 1];

        return $this->missedM() <= self::HOME_M && $last[3] < 1.0 && !$this->fell();
    }

    public function wasBlind(): bool
    {
        return \in_array(HomeStage::Blind->value, array_column($this->points, 5), true);
    }

    public function seconds(): float
    {
        return $this->points[\count($this->points) - 1][0];
    }
}
