<?php

declare(strict_types=1);

namespace Ortholex\Bench\Flight\Controller;

use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Flight\Modes\Steering;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\Mixer;
use Ortholex\Core\Control\Feel;
use Ortholex\Core\Control\GainSetB;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Control\TestFeel;
use Ortholex\Core\Control\ThrottleCurve;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Filters\TrackingNotches;
use Ortholex\Core\Radio\ChannelSpan;
use Ortholex\Core\Signal\FilterStage;
use Ortholex\Core\Switches\Action;

/** What the firmware makes of its settings before it flies: the constants of its controller, in the order of its axes. */
final readonly class FlightControl
{
    /** Gains: what stands where a setting is missing, and per how much of its unit the catalogue counts it. */
    private const GAINS = ['p' => [25, 100], 'i' => [80, 100], 'd' => [2, 1000], 'ff' => [0, 1000], 'added_d' => [0, 1000]];

    /**
     * @param list<Feel>                        $feel       by axis
     * @param list<ChannelSpan>                 $span       of roll, pitch, yaw, throttle
     * @param list<float>                       $kp         % per deg/s
     * @param list<float>                       $ki         % per deg
     * @param list<float>                       $kd         % per deg/s²
     * @param list<float>                       $kf         % per deg/s²
     * @param list<float>                       $addedD     % per deg/s²
     * @param list<FilterStage>                 $ratePath
     * @param list<FilterStage>                 $dPath
     * @param list<int>                         $orders     harmonics of the motor notches
     * @param list<array{float, float, float}>  $mixer      share of each output in roll, pitch, yaw
     * @param Airframe                          $believed   the frame that the settings describe, whatever the craft is
     */
    private function __construct(
        public array $feel,
        public array $span,
        public float $deadBandUs,
        public ThrottleCurve $throttle,
        public array $kp,
        public array $ki,
        public array $kd,
        public array $kf,
        public array $addedD,
        public float $fall,
        public float $sagRise,
        public float $idlePct,
        public float $topPct,
        public bool $airMode,
        public array $ratePath,
        public array $dPath,
        public FilterStage $command,
        public array $orders,
        public float $notchQ,
        public float $notchFloorHz,
        public float $notchTopHz,
        public int $trackCount,
        public float $trackWidthPct,
        public float $trackLowHz,
        public float $trackHighHz,
        public array $mixer,
        public Airframe $believed,
        public ?Steering $steering,
    ) {
    }

    /** @param list<Action> $on what the levers turn on */
    public static function of(SettingSet $set, float $loopHz, array $on = []): self
    {
        $set = \in_array(Action::GainSetB, $on, true) ? GainSetB::applied($set) : $set;
        $set = \in_array(Action::TestFeel, $on, true) ? $set->with(TestFeel::settings($set)) : $set;
        $feel = $span = [];
        $gain = ['p' => [], 'i' => [], 'd' => [], 'ff' => [], 'added_d' => []];
        foreach (Axis::cases() as $axis) {
            $feel[] = Feel::of(
                $set->number("feel.{$axis->value}.quarter_dps", 90),
                $set->number("feel.{$axis->value}.half_dps", 230),
                $set->number("feel.{$axis->value}.full_dps", 600),
            );
            // Catalogue: P % per 100 deg/s, I % per 100 deg, D and feed-forward % per 1000 deg/s².
            foreach (self::GAINS as $term => [$default, $per]) {
                $gain[$term][] = $set->number("gain.{$axis->value}.$term", $default) / $per;
            }
        }
        foreach ([Channel::Roll, Channel::Pitch, Channel::Yaw, Channel::Throttle] as $channel) {
            $span[] = ChannelSpan::in($set, $channel);
        }
        $filters = RateFilters::of($set, $loopHz);
        $highest = RateFilters::highestHz($loopHz);
        $believed = Airframe::of($set);
        [$low, $high] = $set->band('notch.tracking.band_hz', 85, 340);

        return new self(
            $feel,
            $span,
            $set->number('channel.dead_band_us', 2),
            ThrottleCurve::in($set),
            $gain['p'],
            $gain['i'],
            $gain['d'],
            $gain['ff'],
            $gain['added_d'],
            $set->number('gain.throttle_fall_pct') / 100,
            $set->number('gain.sag_rise_pct') / 100,
            $set->flag('motors.still_when_armed') ? 0.0 : $set->number('motors.idle_pct', 5),
            $set->number('motors.top_pct', 100),
            !$set->has('motors.air_mode') || $set->flag('motors.air_mode') || \in_array(Action::AirMode, $on, true),
            $filters->ratePath->stages,
            $filters->dPath->stages,
            FilterStage::secondOrder(min($set->number('command_low_pass.cutoff_hz', 40), $highest), $loopHz),
            RateFilters::orders($set),
            100 / $set->number('notch.motor.width_pct', 23),
            $set->number('notch.motor.floor_hz', 80),
            $highest,
            $set->whole('notch.tracking.peaks'),
            $set->number('notch.tracking.width_pct', 20),
            $low,
            min($high, $highest),
            Mixer::of($believed)->shares,
            $believed,
            Steering::of($set, $feel, $on),
        );
    }

    /** @return list<TrackingNotches> by axis; none where there are none */
    public function trackers(float $pushedHz): array
    {
        $trackers = [];
        for ($axis = 0; $this->trackCount > 0 && $axis < 3; ++$axis) {
            $trackers[] = new TrackingNotches($this->trackCount, $this->trackLowHz, $this->trackHighHz, $pushedHz);
        }

        return $trackers;
    }

    /**
     * @param array<int, float> $centres Hz
     *
     * @return list<FilterStage>
     */
    public function trackedAt(array $centres, float $loopHz): array
    {
        $notch = fn (float $hz): FilterStage => FilterStage::notch(min($hz, $this->notchTopHz), $this->trackWidthPct, $loopHz);

        return array_values(array_map($notch, $centres));
    }

    /**
     * Which of its outputs each motor of the craft really gets: the firmware sends a place's output to the pad that its setting
     * names, and the motor on that pad gets it.
     *
     * @param list<string> $faults
     *
     * @return list<int> by motor; −1 for none
     */
    public function drives(CraftPhysics $craft, SettingSet $set, array $faults): array
    {
        $motors = array_flip($craft->frame->places());
        $outputs = array_flip($this->believed->places());
        $drives = $set->drives();
        $by = array_fill(0, \count($motors), -1);
        foreach ($craft->wiredPads as $pad => $place) {
            if (isset($motors[$place]) && !\in_array("dead:$place", $faults, true)) {
                $by[$motors[$place]] = $outputs[$drives[$pad] ?? ''] ?? -1;
            }
        }

        return array_values($by);
    }
}
