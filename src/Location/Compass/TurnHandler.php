<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Compass;

use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Location\EarthHere;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\Core\Compass\CompassFit;
use Ortholex\Core\Compass\SphereCoverage;
use Ortholex\Core\Link\Aids\AidsClient;
use Ortholex\Core\Link\Aids\CompassReading;

/** Reads the compass while the craft is turned through the poses, until the sphere is covered or the time is over. */
final readonly class TurnHandler implements JobHandler
{
    private const LASTS_S = 60.0;
    private const AT_ONCE = 20;

    /** One in so many readings is kept. */
    private const KEPT = 4;

    /** Covered by so much, there is nothing more to show; nor where it suffices and nothing came to it for so long, s. */
    private const ENOUGH = 0.92;

    private const STILL_S = 8.0;

    public function __construct(private Benches $benches, private LinkService $links, private EarthHere $earth)
    {
    }

    public function kind(): string
    {
        return 'turn_compass';
    }

    public function route(): string
    {
        return 'location';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $craft = $job->craft;
        $this->links->demandLinked($craft);
        $client = new AidsClient($this->benches->client($craft));
        $began = hrtime(true) / 1e9;
        $kept = [];
        $told = $grew = $most = 0.0;
        do {
            foreach ($client->compass(self::AT_ONCE) as $i => $reading) {
                if (0 === $i % self::KEPT) {
                    $kept[] = $reading;
                }
            }
            $share = SphereCoverage::roughly(array_map(static fn (CompassReading $r): array => $r->fieldUt, $kept))->share();
            $goes = hrtime(true) / 1e9 - $began;
            $progress->at(
                min(0.99, max($goes / self::LASTS_S, $share / self::ENOUGH)),
                \sprintf('%.0f %% of the sphere shown', 100 * $share),
            );
            if ($goes - $told > 1.0) {
                $told = $goes;
                $progress->have(self::result($kept));
            }
            [$grew, $most] = $share > $most ? [$goes, $share] : [$grew, $most];
            $enough = $share >= self::ENOUGH || ($share >= CompassFit::LEAST_COVERED && $goes - $grew > self::STILL_S);
        } while ($goes < self::LASTS_S && !$enough);
        $turned = Turned::of(self::result($kept)['readings'], $this->earth->of($craft)?->inclinationDeg() ?? 70.0);

        // What follows is kept with it: other looks need not fit it again.
        return self::result($kept) + ['settings' => $turned?->settings() ?? []];
    }

    /**
     * @param list<CompassReading> $kept
     *
     * @return array{readings: list<list<float>>}
     */
    private static function result(array $kept): array
    {
        $round = static fn (float $v): float => round($v, 3);

        return ['readings' => array_map(static fn (CompassReading $r): array => array_map($round, $r->toArray()), $kept)];
    }
}
