<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Compass;

use Ortholex\App\Link\Benches;
use Ortholex\App\Link\CraftInterlocks;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\Core\Guard\MotorWork;
use Ortholex\Core\Link\Aids\AidsClient;

/** Raises all motors in steps, props off, and reads what that does to the compass. */
final readonly class MotorsHandler implements JobHandler
{
    /** % of output, up and down: what warms or drifts meanwhile falls out. */
    private const STEPS = [0.0, 4.0, 8.0, 12.0, 15.0, 12.0, 8.0, 4.0, 0.0];

    private const AT_ONCE = 25;
    private const READS = 2;

    public function __construct(private Benches $benches, private LinkService $links, private CraftInterlocks $interlocks)
    {
    }

    public function kind(): string
    {
        return 'compass_motors';
    }

    public function route(): string
    {
        return 'location';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $craft = $job->craft;
        $this->links->demandLinked($craft);
        $this->interlocks->of($craft)->demandPropsOff(MotorWork::Spin);
        $board = $this->benches->client($craft);
        $client = new AidsClient($board);
        $readings = [];
        try {
            foreach (self::STEPS as $n => $pct) {
                $progress->at($n / \count(self::STEPS), \sprintf('motors at %.0f %%', $pct));
                for ($i = 0; $i < self::READS; ++$i) {
                    $board->spin(0, $pct);
                    $sum = [0.0, 0.0, 0.0];
                    $down = [0.0, 0.0, 0.0];
                    foreach ($client->compass(self::AT_ONCE) as $reading) {
                        foreach ([0, 1, 2] as $axis) {
                            $sum[$axis] += $reading->fieldUt[$axis] / self::AT_ONCE;
                            $down[$axis] -= $reading->forceG[$axis] / self::AT_ONCE;
                        }
                    }
                    // The first reading after a step has it only in part.
                    if ($i > 0) {
                        $readings[] = [$pct, ...array_map(static fn (float $v): float => round($v, 3), [...$sum, ...$down])];
                    }
                }
            }
        } finally {
            $board->spin(0, 0.0);
        }

        return ['readings' => $readings];
    }
}
