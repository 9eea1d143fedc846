<?php

declare(strict_types=1);

namespace Ortholex\Core\Report;

use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Noise\NoiseMap;
use Ortholex\Core\Noise\NotchTrack;
use Ortholex\Core\Tuning\AxisPlant;

/** The curves behind a report, to the digits that a drawing needs. */
final readonly class Charts
{
    /**
     * @param array<string, SpectrumChart>    $spectra by axis
     * @param array<string, StepChart>        $steps   by axis, of those that tell
     * @param array<string, AxisPlant>        $plants  by axis, of those that tell
     * @param list<float>                     $rotorHz mean speed of each motor in flight, where logged
     * @param array<string, MapChart>         $maps    by axis, against throttle
     * @param array<string, MapChart>         $rpmMaps by axis, against rotor speed
     * @param float|null                      $fullRpm what 100 % of the latter is
     * @param array<string, list<NotchTrack>> $notches by what the map is drawn against: throttle, rpm
     */
    private function __construct(
        public array $spectra,
        public array $steps,
        public array $plants,
        public array $rotorHz,
        public array $maps,
        public array $rpmMaps,
        public ?float $fullRpm,
        public array $notches,
    ) {
    }

    public static function of(FlightAnalysis $analysis): self
    {
        $spectra = $steps = [];
        foreach ($analysis->axes as $axis => $report) {
            $spectra[$axis] = SpectrumChart::of($report);
            if (null !== $report->step) {
                $steps[$axis] = StepChart::of($report->step);
            }
        }
        $map = static fn (NoiseMap $m): MapChart => MapChart::of($m);

        return new self(
            $spectra,
            $steps,
            array_map(static fn (AxisPlant $p): AxisPlant => $p->rounded(), $analysis->plants),
            self::rounded($analysis->rotorHz, 2),
            array_map($map, $analysis->maps),
            array_map($map, $analysis->rpmMaps),
            $analysis->fullRpm,
            $analysis->notches,
        );
    }

    /** The same with one axis' step taken from another reckoning of the same log. */
    public function withStep(AxisReport $axis): self
    {
        $steps = $this->steps;
        unset($steps[$axis->axis->value]);

        return new self(
            $this->spectra,
            null === $axis->step ? $steps : $steps + [$axis->axis->value => StepChart::of($axis->step)],
            $this->plants,
            $this->rotorHz,
            $this->maps,
            $this->rpmMaps,
            $this->fullRpm,
            $this->notches,
        );
    }

    /** @return array<string, mixed> as the drawings take it */
    public function toArray(): array
    {
        $plain = static fn (SpectrumChart|StepChart|AxisPlant|MapChart|NotchTrack $one): array => $one->toArray();

        return [
            'spectrum' => array_map($plain, $this->spectra),
            'step' => array_map($plain, $this->steps),
            'plant' => array_map($plain, $this->plants),
            'rotor_hz' => $this->rotorHz,
            'map' => array_map($plain, $this->maps),
            'rpm_map' => array_map($plain, $this->rpmMaps),
            'full_rpm' => $this->fullRpm,
            'notches' => array_map(static fn (array $tracks): array => array_map($plain, $tracks), $this->notches),
        ];
    }

    /** @throws \Ortholex\Core\Fact\StoredDataUnreadable */
    public static function fromArray(Stored $data): self
    {
        $notches = [];
        foreach (array_keys($data->map('notches')) as $against) {
            $notches[(string) $against] = array_map(NotchTrack::fromArray(...), $data->part('notches')->rows((string) $against));
        }

        return new self(
            array_map(SpectrumChart::fromArray(...), $data->parts('spectrum')),
            array_map(StepChart::fromArray(...), $data->parts('step')),
            array_map(AxisPlant::fromArray(...), $data->parts('plant')),
            $data->numbers('rotor_hz'),
            array_map(MapChart::fromArray(...), $data->parts('map')),
            array_map(MapChart::fromArray(...), $data->parts('rpm_map')),
            $data->optional('full_rpm'),
            $notches,
        );
    }

    /**
     * @param list<float> $values
     *
     * @return list<float>
     */
    public static function rounded(array $values, int $digits): array
    {
        return array_map(static fn (float $v): float => round($v, $digits), $values);
    }
}
