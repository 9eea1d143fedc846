<?php

declare(strict_types=1);

namespace Ortholex\App\Noise\Desk;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\CraftInterlocks;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobCancelled;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\DeskNoise\DeskStep;
use Ortholex\Core\Guard\MotorWork;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Signal\Statistics;

/** Raises all motors in steps, props off, and takes a burst of the gyro about each axis at every one. */
final readonly class DeskHandler implements JobHandler
{
    /** % of output; bare shafts. */
    private const LOWEST_PCT = 7;

    private const HIGHEST_PCT = 59;
    private const STEP_PCT = 2;

    /** Motors that beat with one another are told from a frame that rings by listening more than once. */
    private const BURSTS = 2;

    /** More than this nothing on a desk should shake, deg/s. */
    private const TOO_MUCH_DPS = 90.0;

    public function __construct(
        private Benches $benches,
        private LinkService $links,
        private CraftInterlocks $interlocks,
        private EntityManagerInterface $entities,
    ) {
    }

    public function kind(): string
    {
        return 'desk_noise';
    }

    public function route(): string
    {
        return 'desk_noise';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $craft = $job->craft;
        $this->links->demandLinked($craft);
        $board = $this->benches->client($craft);
        $measured = null;
        try {
            $steps = range(self::LOWEST_PCT, self::HIGHEST_PCT, self::STEP_PCT);
            foreach ($steps as $n => $pct) {
                // Whoever takes pack or declaration back, stops it.
                $this->interlocks->of($craft)->demandPropsOff(MotorWork::Spin);
                $progress->at($n / \count($steps), "motors at $pct %");
                [$step, $rateHz] = $this->step($craft, $board, $pct);
                $measured ??= new DeskMeasurement($craft, new \DateTimeImmutable(), $rateHz);
                $measured->add($step);
            }
        } finally {
            $this->still($board);
        }
        $this->entities->persist($measured);
        $this->entities->flush();

        return ['steps' => \count($steps)];
    }

    /** @return array{DeskStep, float} and samples per second */
    private function step(Craft $craft, BoardClient $board, int $pct): array
    {
        $rpm = null;
        $bursts = [];
        $rateHz = 0.0;
        foreach (Axis::cases() as $i => $axis) {
            $board->spin(0, $pct, true);
            if (0 === $i) {
                $rpm = $this->rpm($craft, $board);
            }
            for ($n = 0; $n < self::BURSTS; ++$n) {
                $board->spin(0, $pct, true);
                [$samples, $rateHz] = $board->gyroBurst($i);
                $bursts[$axis->value][] = $samples;
                if (Statistics::deviation($samples) > self::TOO_MUCH_DPS) {
                    throw new JobCancelled("It shakes too hard at $pct %, so the motors were stopped. Look for what is loose or bent.");
                }
            }
        }

        return [new DeskStep($pct, $rpm, $bursts), $rateHz];
    }

    /** Mean of all motors; null where one does not answer on its signal wire. */
    private function rpm(Craft $craft, BoardClient $board): ?float
    {
        $magnets = $craft->settings->number('motors.rotor_magnets', 14);
        $all = [];
        try {
            foreach (array_keys(EscTable::pads($craft->settings)) as $pad) {
                $erpm = $board->rpm($pad)['erpm'];
                $all[] = (2 * Statistics::median(array_map(floatval(...), $erpm))) / $magnets;
            }
        } catch (LinkError $e) {
            return $e->refused ? null : throw $e;
        }

        return [] === $all ? null : array_sum($all) / \count($all);
    }

    private function still(BoardClient $board): void
    {
        try {
            $board->spin(0, 0.0);
        } catch (LinkError) {
            // Without its cable the board stops them by itself within half a second.
        }
    }
}
