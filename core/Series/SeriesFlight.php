<?php

declare(strict_types=1);

namespace Ortholex\Core\Series;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Report\Report;

/** One flight of a series. */
final readonly class SeriesFlight
{
    /** A step's error is known to no better than this share, whatever its windows say. */
    private const LEAST_SHARE = 0.03;

    /** Noise of one flight is known to this share; how two flights were flown makes them differ by so much before the filters. */
    private const NOISE_OFF = 0.06;

    private const FLIGHTS_DIFFER = 0.12;

    /**
     * @param SettingSet $settings it was flown with
     * @param float|null $delayMs  of its filters at 30 Hz
     * @param bool       $hot      motors were felt hot after it
     */
    public function __construct(
        public float $value,
        public string $name,
        public SettingSet $settings,
        public Report $report,
        public ?float $delayMs = null,
        public bool $hot = false,
    ) {
    }

    /** @return array{float, float}|null figure and how far it may be off (half of a 90 % interval); null where the flight does not tell */
    public function figure(Criterion $by, Axis $axis): ?array
    {
        $a = $axis->value;

        return match ($by) {
            Criterion::Lag => isset($this->report->lags[$a]) ? [$this->report->lags[$a]->ms, $this->report->lags[$a]->halfWidthMs()] : null,
            Criterion::StepError => $this->step($a),
            Criterion::Noise => $this->noise(($this->report->filtered[$a] ?? null)?->rmsDps, max(0.1, $this->delayMs ?? 1.0)),
            Criterion::Shaking => $this->noise(($this->report->measured[$a] ?? null)?->rmsDps, 1.0, self::FLIGHTS_DIFFER),
        };
    }

    /** @return array{float, float}|null */
    private function step(string $axis): ?array
    {
        $step = $this->report->steps[$axis] ?? null;
        if (null === $step?->numbers) {
            return null;
        }
        $error = $step->numbers->errorMs;
        // As the peak is uncertain, so is what is off about it.
        $peak = $step->intervals['peak'] ?? [$step->numbers->peak, $step->numbers->peak];

        return [$error, max(self::LEAST_SHARE, ($peak[1] - $peak[0]) / 2) * $error];
    }

    /** @return array{float, float}|null times what the filters delay, so that quiet that was bought by delay is no gain */
    private function noise(?float $dps, float $times, float $share = self::NOISE_OFF): ?array
    {
        return null === $dps ? null : [$dps * $times, $share * $dps * $times];
    }
}
