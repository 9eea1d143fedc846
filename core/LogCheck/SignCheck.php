<?php

declare(strict_types=1);

namespace Ortholex\Core\LogCheck;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\Place;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Incident\Motion\CraftModel;
use Ortholex\Core\Incident\Motion\Motion;
use Ortholex\Core\Signal\Statistics;

/**
 * Whether a log counts its axes as we do: rotation must follow its command, and what the motors do to the rotation
 * (CraftModel) must point as the mixer says. The mixer is known from the motors' places for roll and pitch alone; for yaw, and
 * where the places are not known, only command and rotation can be held against each other.
 */
final readonly class SignCheck
{
    private const FOLLOWS = 0.5;
    private const LEAST_DPS = 10.0;
    private const POINTS = 0.6;

    /** So many samples a second are looked at, and averaged to so many. */
    private const LOOKED_AT_HZ = 500.0;

    private const RATE_HZ = 100.0;

    /**
     * @param float|null   $follows how rotation correlates with its command, −1 to 1; null when nothing moved
     * @param float|null   $points  cosine of the motors' effect against the mixer's; null when it cannot be told
     * @param list<string> $turn    traces that would have to be turned about; empty when all is as it should be
     */
    private function __construct(
        public Axis $axis,
        public ?float $follows,
        public ?float $points,
        public array $turn,
        public ?SignCode $what,
    ) {
    }

    /** What is wrong; null when nothing is. */
    public function fact(): ?Fact
    {
        return null === $this->what ? null : Fact::of($this->what, axis: $this->axis);
    }

    /**
     * @param Motion|null $motion of the log, where it was made already
     *
     * @return list<self> one per axis that was logged
     */
    public static function of(FlightLog $log, ?Motion $motion = null): array
    {
        $points = self::mixer($log, ($motion ?? Motion::of($log))->model);
        $checks = [];
        foreach (Axis::cases() as $axis) {
            $rates = array_values(array_filter([Traces::measuredRate($axis), Traces::filteredRate($axis)], $log->has(...)));
            if ([] === $rates) {
                continue;
            }
            $set = Traces::setpoint($axis);
            $follows = $log->has($set) ? self::correlation($log, $set, $rates[0]) : null;
            $p = $points[$axis->value] ?? null;
            $against = null !== $follows && $follows < -self::FOLLOWS;
            $along = null !== $follows && $follows > self::FOLLOWS;
            $wrong = null !== $p && $p < -self::POINTS;
            $right = null !== $p && $p > self::POINTS;
            $terms = array_map(static fn (string $term): string => Traces::term($term, $axis), Traces::TERMS);
            [$turn, $what] = match (true) {
                $wrong && $along => [[$set, ...$rates, ...array_filter($terms, $log->has(...))], SignCode::CountedOtherWay],
                $wrong && $against => [$rates, SignCode::RotationTurned],
                $right && $against => [[$set], SignCode::CommandTurned],
                $against => [$rates, SignCode::OneIsTurned],
                default => [[], null],
            };
            $checks[] = new self($axis, $follows, $p, $turn, $what);
        }

        return $checks;
    }

    private static function correlation(FlightLog $log, string $set, string $rate): ?float
    {
        $every = max(1, (int) ($log->clock->rateHz / self::LOOKED_AT_HZ));
        $factor = max(1, (int) ($log->clock->rateHz / $every / self::RATE_HZ));
        $x = Statistics::decimated($log->column($set)->each($every), $factor);
        $y = Statistics::decimated($log->column($rate)->each($every), $factor);
        $xy = $xx = $yy = 0.0;
        foreach ($x as $i => $v) {
            $xy += $v * $y[$i];
            $xx += $v * $v;
            $yy += $y[$i] ** 2;
        }

        return [] !== $x && $xx > 0 && $yy > 0 && sqrt($xx / \count($x)) > self::LEAST_DPS ? $xy / sqrt($xx * $yy) : null;
    }

    /** @return array<string, float> cosine by axis */
    private static function mixer(FlightLog $log, ?CraftModel $model): array
    {
        $places = $log->places();
        $sides = array_values(array_filter(array_map(Place::tryFrom(...), $places)));
        if (\count($places) < 3 || \count($sides) < \count($places)) {
            return [];
        }
        if (null === $model) {
            return [];
        }
        $cosines = [];
        foreach ([0 => 'roll', 1 => 'pitch'] as $i => $axis) {
            $dot = $ee = $mm = 0.0;
            foreach ($sides as $m => $side) {
                // Roll: minus right; pitch: plus forward. The mean of all motors says nothing of the direction.
                $prior = 0 === $i ? -$side->right() : $side->forward();
                $dot += $model->effectiveness[$i][$m] * $prior;
                $ee += $model->effectiveness[$i][$m] ** 2;
                $mm += $prior ** 2;
            }
            if ($ee > 0 && $mm > 0 && $model->r2[$i] > 0.1) {
                $cosines[$axis] = $dot / sqrt($ee * $mm);
            }
        }

        return $cosines;
    }

    /** @return array{axis: string, follows: ?float, points: ?float, turn: list<string>, what: ?string} */
    public function toArray(): array
    {
        return [
            'axis' => $this->axis->value,
            'follows' => $this->follows,
            'points' => $this->points,
            'turn' => $this->turn,
            'what' => $this->what?->value,
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        return new self(
            $data->choice('axis', Axis::class),
            $data->optional('follows'),
            $data->optional('points'),
            $data->texts('turn'),
            SignCode::tryFrom($data->optionalText('what') ?? ''),
        );
    }
}
