<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Home;

use Ortholex\App\Link\Benches;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\Core\World\ReturnTrial;

/** Flies a return in the simulator, with what is staged, and keeps the path. */
final readonly class ReturnFlightHandler implements JobHandler
{
    private const POINTS = 400;
    private const BLIND_S = 20.0;

    public function __construct(private Benches $benches, private Staging $staging, private CurrentNames $names)
    {
    }

    public function kind(): string
    {
        return 'fly_return';
    }

    public function route(): string
    {
        return 'location';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $craft = $job->craft;
        $wrong = $job->parameters['wrong'] ?? '';
        $settings = $this->staging->preview($craft);
        $flown = $this->benches->of($craft)->flyReturn(
            $this->names->of($craft, $settings),
            new ReturnTrial(
                $job->number('distance'),
                $job->number('height'),
                $job->number('wind'),
                $job->number('from'),
                $job->number('used') / 100,
                ReturnWrong::BeforeFix->value === $wrong,
                ReturnWrong::Blind->value === $wrong ? self::BLIND_S : 0.0,
            ),
            static function (float $share) use ($progress): bool {
                $progress->at(min(0.99, $share), \sprintf('in the air, %.0f s', 400 * $share));

                return true;
            },
        );

        return [
            'points' => $flown->drawn(self::POINTS),
            'noticed' => $flown->noticedS,
            'impact' => round($flown->impactMs, 2),
            'used_ah' => round($flown->usedAh, 4),
            'home' => null === $flown->home ? null : array_map(static fn (float $v): float => round($v, 1), $flown->home),
            'told' => $job->parameters,
            'set' => ReturnPath::rests($settings),
        ];
    }
}
