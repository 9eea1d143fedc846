<?php

declare(strict_types=1);

namespace Ortholex\App\Craft;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Esc\Escs;
use Ortholex\App\Firmware\Shelf;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Record\Staging;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Work\Jobs;
use Ortholex\App\Work\JobState;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Esc\OddOnes;
use Ortholex\Core\Step\StepOutcome;

/** Works out what each craft needs next, most pressing first. */
final readonly class NextSteps
{
    public function __construct(
        private EntityManagerInterface $entities,
        private Staging $staging,
        private Jobs $jobs,
        private AnalysisStore $analyses,
        private Shelf $shelf,
    ) {
    }

    /** @return list<NextStep> */
    public function of(Craft $craft): array
    {
        $steps = [];
        foreach ($this->jobs->of($craft) as $job) {
            if (JobState::Interrupted === $job->state || JobState::Failed === $job->state) {
                $steps[] = new NextStep(
                    "“{$job->title}” was not finished.",
                    'flash' === $job->kind ? '12' : ('flash-escs' === $job->kind ? '12/escs' : '51'),
                    'See what happened',
                );
            }
        }
        if ($craft->inBootloader) {
            $steps[] = new NextStep('The board waits in its bootloader, without whole firmware.', '12', 'Finish writing');
        }
        if (!$craft->isKnown()) {
            $steps[] = new NextStep(
                'Plug the cable and link it, so that its board is read and a snapshot is kept before anything is changed.',
                '11',
                'Look before touching',
            );

            return $steps;
        }
        $esc = $craft->redo;
        if (\in_array('esc_calibration', $esc, true) && \in_array($craft->settings['motors.protocol'] ?? '', ['pwm', 'oneshot125'], true)) {
            $steps[] = new NextStep('ESCs were flashed: their end points must be taught again.', '15?do=teach', 'Teach them');
        }
        if (\in_array('esc_settings', $esc, true)) {
            $steps[] = new NextStep(
                'ESCs were flashed: look at what of their settings started anew, and show the motors once more.',
                '16',
                'Look at 16',
            );
        }
        $differing = $this->differing($craft);
        if ([] !== $differing) {
            $steps[] = new NextStep(
                'The ESC at '.str_replace('_', ' ', implode(' and ', $differing)).' runs other firmware than the others.',
                '12/escs',
                'Bring it level',
            );
        }
        $staged = \count($this->staging->of($craft));
        if ($staged > 0) {
            $steps[] = new NextStep(
                1 === $staged ? 'One change is staged, not yet on the craft.' : "$staged changes are staged, not yet on the craft.",
                '61',
                'Open the tray',
            );
        }
        $log = $this->entities->getRepository(Log::class)->findOneBy(['craft' => $craft], ['id' => 'DESC']);
        if (null === $log) {
            $steps[] = new NextStep('Fly a first card, so that there is a log to learn from.', '51', 'Fly');
        } elseif ($this->analyses->has($log)) {
            foreach ($this->overshoots($log) as $axis => $peak) {
                $steps[] = new NextStep(
                    \sprintf('%s overshoots by %.0f %% in %s.', ucfirst($axis), 100 * ($peak - 1), $log->code),
                    '61',
                    'Tune it',
                );
            }
        }
        $newest = $this->newest($craft);
        if (null !== $newest) {
            $steps[] = new NextStep("Loam $newest is on the shelf for its board; it runs {$craft->version}.", '12', 'See what is new');
        }
        if ([] === $steps) {
            $steps[] = new NextStep('Nothing presses. Fly, and read the log.', '51', 'Fly');
        }

        return $steps;
    }

    /** @return list<string> places whose ESC runs other firmware than most */
    private function differing(Craft $craft): array
    {
        $firmware = array_map(static fn (?EscIdentity $e): string => $e?->firmwareInWords() ?? 'silent', Escs::identities($craft));
        $odd = OddOnes::of($firmware);

        return null === $odd->common ? [] : $odd->odd;
    }

    /** @return array<string, float> axes whose step peaks too high */
    private function overshoots(Log $log): array
    {
        $over = [];
        foreach ($this->analyses->report($log)->steps as $axis => $step) {
            $peak = $step->numbers?->peak;
            if (null !== $peak && StepOutcome::Overshoots === StepOutcome::ofPeak($peak)) {
                $over[$axis] = $peak;
            }
        }

        return $over;
    }

    private function newest(Craft $craft): ?string
    {
        foreach ($this->shelf->items() as $item) {
            $m = $item->manifest;
            if (null !== $m && !$m->version->isPreRelease() && \in_array($craft->hardwareId, $m->hardware, true)) {
                return null !== $craft->version && $m->version->compare($craft->version()) > 0 ? $m->version->toString() : null;
            }
        }

        return null;
    }
}
