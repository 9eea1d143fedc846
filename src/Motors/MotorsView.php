<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\App\Motors\Reading\FeedbackView;
use Ortholex\App\Motors\Reading\RisenView;
use Ortholex\Core\Airframe\Airframe;

/** What sheet 15 shows. */
final readonly class MotorsView
{
    public function __construct(
        public MotorTask $task,
        public Airframe $frame,
        public SafetyView $safety,
        public SpinView $spin,
        public ?RisenView $risen,
        public ?FeedbackView $answered,
        public TeachingView $teaching,
        public SignalView $signal,
        public RiseChart $rise,
        public int $riseSteps,
    ) {
    }

    /** @return list<MotorTask> */
    public function tasks(): array
    {
        return MotorTask::cases();
    }
}
