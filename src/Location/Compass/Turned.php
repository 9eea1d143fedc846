<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Compass;

use Ortholex\Core\Compass\Calibration;
use Ortholex\Core\Compass\CompassError;
use Ortholex\Core\Compass\CompassFit;
use Ortholex\Core\Compass\CompassMounting;
use Ortholex\Core\Compass\SphereCoverage;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Link\Aids\CompassReading;

/** The readings of one turning through the poses, and what they tell. */
final readonly class Turned
{
    public ?CompassFit $fit;
    public ?CompassMounting $mounting;

    /** Why it cannot be calibrated, or its mounting not be told. */
    public ?Fact $flaw;

    /** @param list<CompassReading> $readings */
    private function __construct(public array $readings, public float $dipDeg)
    {
        $fit = $mounting = $flaw = null;
        try {
            $fit = CompassFit::of(array_map(static fn (CompassReading $r): array => $r->fieldUt, $readings));
            $mounting = CompassMounting::of(
                array_map(static fn (CompassReading $r): array => [$fit->apply($r->fieldUt), $r->forceG], $readings),
                $dipDeg,
            );
        } catch (CompassError $e) {
            $flaw = $e->fact();
        }
        $this->fit = $fit;
        $this->mounting = $mounting;
        $this->flaw = $flaw;
    }

    /** @param mixed $kept readings as a job or the book kept them */
    public static function of(mixed $kept, float $dipDeg): ?self
    {
        $readings = array_values(array_filter(array_map(CompassReading::fromArray(...), \is_array($kept) ? $kept : [])));

        return [] === $readings ? null : new self($readings, $dipDeg);
    }

    /** Which directions of the field were shown: around what the fit found, or roughly where there is none yet. */
    public function coverage(): SphereCoverage
    {
        return $this->fit->coverage
            ?? SphereCoverage::roughly(array_map(static fn (CompassReading $r): array => $r->fieldUt, $this->readings));
    }

    /** @return array<string, float|bool> settings that follow */
    public function settings(): array
    {
        if (null === $this->fit || null === $this->mounting) {
            return [];
        }

        return Calibration::settings($this->fit) + [
            'compass.roll_deg' => $this->mounting->rollDeg,
            'compass.pitch_deg' => $this->mounting->pitchDeg,
            'compass.yaw_deg' => $this->mounting->yawDeg,
        ];
    }

    /**
     * Whether a craft is set as a turning found it.
     *
     * @param mixed $found settings that followed, as its job kept them
     */
    public static function isSet(mixed $found, SettingSet $set): bool
    {
        foreach (\is_array($found) ? $found : [] as $name => $value) {
            if (!is_numeric($value) || abs($set->number((string) $name) - (float) $value) > 1e-3) {
                return false;
            }
        }

        return \is_array($found) && [] !== $found;
    }
}
