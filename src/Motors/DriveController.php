<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Craft\Craft;
use Ortholex\App\Craft\CraftInterlocks;
use Ortholex\App\Craft\LinkService;
use Ortholex\App\Craft\Worlds;
use Ortholex\App\Esc\Escs;
use Ortholex\App\Motors\Reading\DriveReadings;
use Ortholex\App\Record\Staging;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Shell\SheetController;
use Ortholex\App\Words\Words;
use Ortholex\Core\Drive\CalibrationStep;
use Ortholex\Core\Drive\EscCalibration;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Drive\TeachStep;
use Ortholex\Core\Guard\MotorWork;
use Ortholex\Core\Settings\EscTable;
use Symfony\Component\HttpFoundation\JsonResponse;
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
        private readonly Worlds $worlds,
        private readonly Staging $staging,
        private readonly DriveReadings $readings,
        private readonly CraftInterlocks $interlocks,
        private readonly Words $words,
    ) {
    }

    /** Holds all outputs at one step of the slow rise for half a second more. */
    #[Route('/craft/{slug}/motors/rise', name: 'motors_rise', methods: ['POST'])]
    public function rise(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        if ($this->stops($craft, $input)) {
            return new JsonResponse(['spinning' => false]);
        }
        $step = $input->whole('step', 0, \count(DriveReadings::RISE_PCT) - 1);
        $swapped = explode(',', $input->text('swapped', 60));
        $this->readings->rise($craft, $step, $input->flag('read'), 2 === \count($swapped) ? [$swapped[0], $swapped[1]] : null);

        return new JsonResponse(['pct' => DriveReadings::RISE_PCT[$step]]);
    }

    #[Route('/craft/{slug}/motors/feedback', name: 'motors_feedback', methods: ['POST'])]
    public function feedback(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        if ($this->stops($craft, $input)) {
            return new JsonResponse(['spinning' => false]);
        }
        $pad = $input->whole('pad', 1, 8);
        $this->readings->feedback($craft, $pad, $input->flag('first'), $input->flag('read'));

        return new JsonResponse(['pad' => $pad]);
    }

    #[Route('/craft/{slug}/motors/magnets', name: 'motors_magnets', methods: ['POST'])]
    public function magnets(string $slug): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $magnets =
            $this->readings->answered($craft)?->trueMagnets() ??
            throw BadRequest::at('magnets', 'The check did not tell the pole count. Do it once more.');
        $this->staging->stage($craft, ['motors.rotor_magnets' => $magnets]);

        return new JsonResponse(['said' => "Rotor magnets $magnets is staged."]);
    }

    #[Route('/craft/{slug}/motors/idle', name: 'motors_idle', methods: ['POST'])]
    public function idle(string $slug): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $rising = $this->readings->risen($craft)?->rising;
        if (null === $rising?->idlePct) {
            throw BadRequest::at('idle', 'The rise did not tell an idle output. Mend what struggles, and raise them again.');
        }
        $this->staging->stage($craft, $rising->idleFor($craft->settings));

        return new JsonResponse(['said' => "Idle output $rising->idlePct % is staged."]);
    }

    /** One step of teaching analogue ESCs their end points; each has its interlock. */
    #[Route('/craft/{slug}/motors/teach', name: 'motors_teach', methods: ['POST'])]
    public function teach(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $step = TeachStep::tryFrom(Input::of($request)->text('step', 10)) ?? throw BadRequest::at('step', 'A step is full, zero or end.');
        $world = $this->worlds->of($craft);
        $state = $world->store->peek();
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
        $this->worlds->client($craft)->teach($step);
        $state = $world->store->peek();
        if (TeachStep::End === $step && EscCalibration::isDone($state->tones, \count(EscTable::pads($craft->settings)))) {
            $craft->redone('esc_calibration');
            $this->entities->flush();
        }

        return new JsonResponse(['tones' => $state->tones]);
    }

    /** Whether the motors were told to stop; if not, they may turn only with the props off. */
    private function stops(Craft $craft, Input $input): bool
    {
        $this->links->demandLinked($craft);
        if ($input->flag('stop')) {
            $this->worlds->client($craft)->spin(0, 0.0);

            return true;
        }
        $this->interlocks->of($craft)->demandPropsOff(MotorWork::Spin);

        return false;
    }
}
