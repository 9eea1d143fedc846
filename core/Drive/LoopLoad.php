<?php

declare(strict_types=1);

namespace Ortholex\Core\Drive;

use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;

/**
 * Share of the processor's time per control period: Σ cost of the tasks × loop rate / processor class.
 *
 * Costs are in microseconds on the reference processor (class 1.0).
 */
final readonly class LoopLoad
{
    private const FIXED_US = 58.5;

    /** What a build may leave out costs time even while nobody uses it. */
    private const OPTIONS_US = ['gps' => 4.0, 'overlay' => 3.0, 'sbus' => 1.5, 'ppm' => 1.0];

    private const BIQUAD_US = 1.2;
    private const TRACKING_US = 9.0;
    private const RECORDER_US_PER_KHZ = 5.0;
    public const WARN_PCT = 80.0;
    public const REFUSE_PCT = 95.0;

    /** Speed of each processor against the reference. */
    private const CLASSES = ['F4' => 1.0, 'F7' => 1.9, 'H7' => 3.6];

    private function __construct(public float $percent, public string $processor)
    {
    }

    /**
     * @param SettingSet   $set     names of the current catalogue
     * @param int          $motors  number of motors
     * @param list<string> $leftOut what the build leaves out
     */
    public static function of(SettingSet $set, int $motors, string $processor, array $leftOut = []): self
    {
        $loopHz = $set->loopHz();
        $filters = RateFilters::of($set, $loopHz);
        $biquads =
            3 * (\count($filters->ratePath->stages) + \count($filters->dPath->stages) + $motors * \count(RateFilters::orders($set)));
        $tracking = $set->whole('notch.tracking.peaks');
        $us =
            self::FIXED_US +
            array_sum(array_diff_key(self::OPTIONS_US, array_flip($leftOut))) +
            self::BIQUAD_US * $biquads +
            ($tracking > 0 ? self::TRACKING_US + 3 * $tracking * self::BIQUAD_US : 0) +
            (self::RECORDER_US_PER_KHZ * $set->number('recorder.rate_hz')) / $loopHz;

        return new self((100 * $us * 1e-6 * $loopHz) / (self::CLASSES[$processor] ?? 1.0), $processor);
    }
}
