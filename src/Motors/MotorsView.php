<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\SpinCheck;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\EscCalibration;
use Ortholex\Core\Drive\SignalTiming;
use Ortholex\Core\Drive\TeachStep;
use Ortholex\Core\Drive\Tone;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Settings\Setting;

/** What sheet 15 shows. */
final readonly class MotorsView
{
    /**
     * @param list<int>             $pads    pads that motors hang on
     * @param array<int, ShownSpin> $shown   by pad
     * @param array<int, string>    $set     pad => place, as staged or set
     * @param list<Fact>            $missing interlocks that are open
     * @param list<Tone>            $tones   heard since the pack came on
     * @param list<Setting>                        $fields settings of the signal
     */
    public function __construct(
        public Airframe $frame,
        public array $pads,
        public array $shown,
        public array $set,
        public SpinCheck $check,
        public string $sentence,
        public ?int $next,
        public bool $mapDiffers,
        public array $missing,
        public bool $linked,
        public bool $pack,
        public bool $declared,
        public string $do,
        public ?RisenView $risen,
        public ?FeedbackView $answered,
        public EscCalibration $teaching,
        public array $tones,
        public ?TeachStep $held,
        public bool $canReverse,
        public ?SignalTiming $timing,
        public float $loopHz,
        public float $loadPct,
        public array $fields,
        public SettingSet $now,
        public SettingSet $staged,
    ) {
    }

    /** Control period, µs. */
    public function periodUs(): float
    {
        return 1e6 / $this->loopHz;
    }

    public function feedbackOn(): bool
    {
        return true === ($this->staged['motors.rpm_feedback'] ?? ($this->now['motors.rpm_feedback'] ?? false));
    }

    public function padOf(string $place): ?int
    {
        foreach ($this->shown as $pad => $spin) {
            if ($spin->place === $place) {
                return $pad;
            }
        }

        return null;
    }
}
