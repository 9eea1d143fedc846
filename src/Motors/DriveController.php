<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\CraftInterlocks;
use Ortholex\App\Link\Escs;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Motors\Reading\DriveReadings;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Words\Words;
use Ortholex\Core\Drive\CalibrationStep;
use Ortholex\Core\Drive\EscCalibration;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Drive\TeachStep;
use Ortholex\Core\Guard\MotorWork;
use Ortholex\Core\Settings\EscTable;
use Symfony\Component\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 15, the checks that follow the spin check: rising outputs, rpm feedback, ESC calibration. */
#[AsController]
final class DriveController extends SheetController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly LinkService $links,
        private readonly Benches $benches,
        private readonly Staging $staging,
        private readonly DriveReadings $readings,
        private readonly CraftInterlocks $interlocks,
        private readonly Words $words,
        private readonly ClockInterface $clock,
    ) {
    }

    /** Holds all outputs at one step of the slow rise for half a second more. */
    #[Route('/craft/{slug}/motors/rise', name: 'motors_rise', methods: ['POST'])]
    public function rise(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        if ($this->stops($craft, $input)) {
            return Answer::of(['spinning' => false]);
        }
        if ($input->flag('whole')) {
            $step = $this->readings->nextStep($craft);
            $this->hold(fn () => $this->readings->rise($craft, $step, false, null));
            $this->readings->rise($craft, $step, true, null);
            $last = \count(DriveReadings::RISE_PCT) - 1;

            return Answer::said(
                $step < $last
                    ? 'Step '.($step + 1).' of '.($last + 1).' is read. Press again for the next.'
                    : 'All steps are read.',
            );
        }
        $step = $input->whole('step', 0, \count(DriveReadings::RISE_PCT) - 1);
        $swapped = explode(',', $input->text('swapped', 60));
        $this->readings->rise($craft, $step, $input->flag('read'), 2 === \count($swapped) ? [$swapped[0], $swapped[1]] : null);

        return Answer::of(['pct' => DriveReadings::RISE_PCT[$step]]);
    }

    #[Route('/craft/{slug}/motors/feedback', name: 'motors_feedback', methods: ['POST'])]
    public function feedback(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        if ($this->stops($craft, $input)) {
            return Answer::of(['spinning' => false]);
        }
        if ($input->flag('whole')) {
            foreach (array_keys(EscTable::pads($craft->settings)) as $i => $pad) {
                $this->hold(fn () => $this->readings->feedback($craft, $pad, 0 === $i, false));
                $this->readings->feedback($craft, $pad, 0 === $i, true);
            }

            return Answer::said('Each was asked.');
        }
        $pad = $input->whole('pad', 1, 8);
        $this->readings->feedback($craft, $pad, $input->flag('first'), $input->flag('read'));

        return Answer::of(['pad' => $pad]);
    }

    #[Route('/craft/{slug}/motors/magnets', name: 'motors_magnets', methods: ['POST'])]
    public function magnets(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $magnets =
            $this->readings->answered($craft)?->toldMagnets() ??
            throw BadRequest::at('magnets', 'The check did not find the pole count. Do it again.');
        $this->staging->stage($craft, ['motors.rotor_magnets' => $magnets]);

        return Answer::said("Rotor magnets $magnets is staged.");
    }

    #[Route('/craft/{slug}/motors/idle', name: 'motors_idle', methods: ['POST'])]
    public function idle(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $rising = $this->readings->risen($craft)?->rising;
        if (null === $rising?->idlePct) {
            throw BadRequest::at('idle', 'The rise did not find an idle output. Repair what struggles, and raise them again.');
        }
        $this->staging->stage($craft, $rising->idleFor($craft->settings));

        return Answer::said("Idle output $rising->idlePct % is staged.");
    }

    /** The motors of two places were swapped, to see whether the fault goes along. */
    #[Route('/craft/{slug}/motors/swapped', name: 'motors_swapped', methods: ['POST'])]
    public function swapped(string $slug, Request $request): Answer
    {
        $input = Input::of($request);
        $this->readings->swapped($this->crafts->named($slug), $input->text('weak', 40), $input->text('with', 40));

        return Answer::said('Noted. Raise all outputs again: what struggles now tells which it is.');
    }

    /** One step of teaching analogue ESCs their end points; each has its interlock. */
    #[Route('/craft/{slug}/motors/teach', name: 'motors_teach', methods: ['POST'])]
    public function teach(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $step = TeachStep::tryFrom(Input::of($request)->text('step', 10)) ?? throw BadRequest::at('step', 'A step is full, zero or end.');
        $state = $this->benches->of($craft)->state();
        $now = EscCalibration::at(
            MotorSignal::in($craft->settings),
            $state->propsDeclaredOff,
            $state->pack,
            $state->teach,
            $state->tones,
            \count(EscTable::pads($craft->settings)),
        );
        if (CalibrationStep::NotNeeded === $now->step) {
            throw BadRequest::at('step', $this->words->of($now->says));
        }
        if (TeachStep::Full === $step) {
            $this->interlocks->of($craft)->demandPropsOff(MotorWork::HoldOutputsAtFull);
        }
        $this->benches->client($craft)->teach($step);
        $state = $this->benches->of($craft)->state();
        if (TeachStep::End === $step && EscCalibration::isDone($state->tones, \count(EscTable::pads($craft->settings)))) {
            $craft->redone('esc_calibration');
            $this->entities->flush();
        }

        $said = match (true) {
            TeachStep::End !== $step => '',
            \in_array('esc_calibration', $craft->redo, true) => 'Ended, but not every ESC played its three falling tones: do it again.',
            default => 'Ended: the ESCs know their end points.',
        };

        return Answer::of(['tones' => $state->tones] + ('' === $said ? [] : ['said' => $said]));
    }

    /** Keeps outputs driven for a second, for who has no script that holds them. */
    private function hold(\Closure $drive): void
    {
        for ($i = 0; $i < 4; ++$i) {
            $drive();
            $this->clock->sleep(0.25);
        }
    }

    /** Whether the motors were told to stop; if not, they may turn only with the props off. */
    private function stops(Craft $craft, Input $input): bool
    {
        $this->links->demandLinked($craft);
        if ($input->flag('stop')) {
            $this->benches->client($craft)->spin(0, 0.0);

            return true;
        }
        $this->interlocks->of($craft)->demandPropsOff(MotorWork::Spin);

        return false;
    }
}
