<?php

declare(strict_types=1);

namespace Ortholex\App\LinkLoss;

use Ortholex\App\Link\Benches;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;

/** Flies a lost link in the simulator, with what is staged, and keeps the path. */
final readonly class LossFlightHandler implements JobHandler
{
    /** A drawing needs no more points. */
    private const POINTS = 240;

    public function __construct(private Benches $benches, private Staging $staging, private CurrentNames $names)
    {
    }

    public function kind(): string
    {
        return 'fly_loss';
    }

    public function route(): string
    {
        return 'link_loss';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $craft = $job->craft;
        $flown = $this->benches->of($craft)->flyLoss(
            $this->names->of($craft, $this->staging->preview($craft)),
            $job->number('height'),
            $job->number('wind'),
            $job->number('used') / 100,
            static function (float $share) use ($progress): bool {
                $progress->at(min(0.99, $share), \sprintf('in the air, %.0f s', 90 * $share));

                return true;
            },
        );

        return [
            'points' => $flown->drawn(self::POINTS),
            'off' => $flown->offS,
            'noticed' => $flown->noticedS,
            'impact' => round($flown->impactMs, 2),
            'told' => $job->parameters,
        ];
    }
}
