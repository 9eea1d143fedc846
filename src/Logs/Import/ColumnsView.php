<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Import;

use Ortholex\App\FlightLog\Log;
use Ortholex\Core\FlightLog\Reading\ColumnGuess;
use Ortholex\Core\FlightLog\Reading\LogPlan;
use Ortholex\Core\FlightLog\Reading\RateFollows;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\FlightLog\Units\UnitGuess;

/** The columns of a foreign log, with what each is taken for. */
final readonly class ColumnsView
{
    /** Half a side of the drawing of an axis. */
    private const HALF = 46;

    /** The drawing ends at a round figure. */
    private const ROUND_DPS = [10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000, 20000, 50000, 100000, 1000000];

    /**
     * @param list<ColumnGuess>     $asked  what only a person can say
     * @param array<string, string> $traces words by canonical name, to choose from
     * @param Log|null              $again  a log whose columns are matched once more
     */
    public function __construct(
        public LogPlan $plan,
        public array $asked,
        public array $traces,
        public string $upload,
        public string $name,
        public ?Log $again,
    ) {
    }

    /** @return list<string> units that a trace can be read in, to choose from; none where there is no choice */
    public function units(?string $trace): array
    {
        $ours = null === $trace ? null : (Traces::TIME === $trace ? 's' : Traces::unitOf($trace));

        return null === $ours || str_starts_with((string) $trace, 'term_') ? [] : array_keys(UnitGuess::CHOICES[$ours] ?? []);
    }

    /** Whether somebody has to say something of a column. */
    public function isAsked(string $column): bool
    {
        return \in_array($column, array_column($this->asked, 'name'), true);
    }

    /** Where the drawing of an axis ends, deg/s. */
    public function reach(RateFollows $follows): int
    {
        $most = 0.0;
        foreach ($follows->points as $point) {
            $most = max($most, abs($point[0]), abs($point[1]));
        }
        foreach (self::ROUND_DPS as $dps) {
            if ($dps >= $most) {
                return $dps;
            }
        }

        return (int) ceil($most);
    }

    /** @return string the moments as a path of dots, setpoint to the right, rate upwards */
    public function dots(RateFollows $follows): string
    {
        $scale = self::HALF / $this->reach($follows);

        return implode(
            '',
            array_map(static fn (array $p): string => \sprintf('M%.1f %.1fh0', $p[0] * $scale, -$p[1] * $scale), $follows->points),
        );
    }
}
