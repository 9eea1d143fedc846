<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\CraftInterlocks;
use Ortholex\App\Link\Escs;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Motors\Reading\DriveReadings;
use Ortholex\App\Motors\Reading\ShownSpins;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Proof\Proofs;
use Ortholex\App\Settings\Airframes;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Words\Words;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\SpinAnswer;
use Ortholex\Core\Airframe\SpinCheck;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\EscCalibration;
use Ortholex\Core\Drive\LoopLoad;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Drive\SignalTiming;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Guard\MotorWork;
use Ortholex\Core\Proof\Proved;
use Ortholex\Core\Settings\Catalogue;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 15: one output is spun alone, the builder says which motor moved, and the pad map follows. */
#[AsController]
final class MotorsController extends SheetController
{
    private const GENTLE_PCT = 6.0;
    private const SIGNAL_SETTINGS = [
        'motors.protocol',
        'motors.rpm_feedback',
        'motors.loop_rate_hz',
        'motors.idle_pct',
        'motors.idle_permille',
        'motors.still_when_armed',
        'motors.top_pct',
    ];

    public function __construct(
        private readonly ShownSpins $spins,
        private readonly LinkService $links,
        private readonly Benches $benches,
        private readonly Staging $staging,
        private readonly Catalogue $catalogue,
        private readonly CurrentNames $names,
        private readonly Airframes $frames,
        private readonly Escs $escs,
        private readonly DriveReadings $readings,
        private readonly CraftInterlocks $interlocks,
        private readonly Words $words,
        private readonly Proofs $proofs,
    ) {
    }

    #[Route('/craft/{slug}/15', name: 'motors', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $state = $this->benches->of($craft)->state();
        $frame = $this->frame($craft);
        $set = $this->padMap($this->staging->preview($craft), $frame);
        $check = $this->check($craft, $frame, array_keys($set));
        $preview = $this->names->of($craft, $this->staging->preview($craft));
        $declared = $state->propsDeclaredOff;
        $risen = $this->readings->risen($craft);

        return $this->show(
            $craft,
            '15',
            'Motors/motors.html.twig',
            new MotorsView(
                MotorTask::tryFrom($request->query->getString('do')) ?? MotorTask::Spin,
                $frame,
                new SafetyView($this->links->isLinked($craft), $state->pack, $declared),
                new SpinView(
                    $frame,
                    $this->spins->of($craft),
                    $set,
                    $check,
                    $this->canReverse($craft, $check),
                    ShownSpins::turned($craft, $this->staging->preview($craft), $check),
                    $craft->settings->drives(),
                ),
                $risen,
                $this->readings->answered($craft),
                new TeachingView(
                    EscCalibration::at(MotorSignal::in($preview), $declared, $state->pack, $state->teach, $state->tones, \count($set)),
                    $state->tones,
                    $state->teach,
                ),
                $this->signal($craft, $preview, \count($frame->motors)),
                RiseChart::of($risen),
                \count(DriveReadings::RISE_PCT),
            ),
        );
    }

    /** @param SettingSet $preview as staged, in today's terms */
    private function signal(Craft $craft, SettingSet $preview, int $motors): SignalView
    {
        $signal = MotorSignal::in($preview);
        $feedback = $preview->flag('motors.rpm_feedback');
        $fields = [];
        foreach (self::SIGNAL_SETTINGS as $name) {
            if (isset($craft->settings[$name])) {
                $fields[] = $this->catalogue->get($name, $craft->version());
            }
        }

        return new SignalView(
            // An impossible pair is named by the tray; there is no time to draw for it.
            $feedback && !$signal->isDigital() ? null : SignalTiming::of($signal, $feedback),
            $preview->loopHz(),
            LoopLoad::of($preview, $motors, $craft->processor ?? 'F4', $craft->leftOut)->percent,
            $fields,
            $craft->settings,
            $this->staging->of($craft),
        );
    }

    /** Holds one output turning for half a second more; 409 when an interlock is unmet. */
    #[Route('/craft/{slug}/motors/spin', name: 'motors_spin', methods: ['POST'])]
    public function spin(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $pad = $input->whole('pad', 1, 8);
        $this->links->demandLinked($craft);
        if ($input->flag('stop')) {
            $this->benches->client($craft)->spin($pad, 0.0);

            return Answer::of(['spinning' => false]);
        }
        $this->interlocks->of($craft)->demandPropsOff(MotorWork::Spin);
        $this->benches->client($craft)->spin($pad, self::GENTLE_PCT);

        return Answer::of(['spinning' => true]);
    }

    #[Route('/craft/{slug}/motors/answer', name: 'motors_answer', methods: ['POST'])]
    public function answer(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $frame = $this->frame($craft);
        $input = Input::of($request);
        $pad = $input->whole('pad', 1, 8);
        $place = $input->text('place', 40);
        if (!\in_array($place, $frame->places(), true)) {
            throw BadRequest::at('place', "This frame has no motor “{$place}”.");
        }
        $this->spins->show($craft, $pad, $place, '' === $input->text('direction') ? 0 : $input->whole('direction', -1, 1));
        $set = $this->padMap($craft->settings, $frame);
        $check = $this->check($craft, $frame, array_keys($set));
        if ($check->isComplete() && $check->drives == $set && [] === $check->reverse) {
            $this->proofs->prove($craft, Proved::SpinCheck, $craft->settings);
            $this->proofs->prove($craft, Proved::Directions, $craft->settings);
        }

        return Answer::of();
    }

    #[Route('/craft/{slug}/motors/again', name: 'motors_again', methods: ['POST'])]
    public function again(string $slug): Answer
    {
        $this->spins->clear($this->crafts->named($slug));

        return Answer::of();
    }

    #[Route('/craft/{slug}/motors/map', name: 'motors_map', methods: ['POST'])]
    public function map(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $frame = $this->frame($craft);
        $set = $this->padMap($this->staging->preview($craft), $frame);
        $check = $this->check($craft, $frame, array_keys($set));
        if (!$check->isComplete()) {
            throw BadRequest::at('answers', $this->words->of($check->fact($set)));
        }
        $values = [];
        foreach ($check->drives as $pad => $place) {
            $values["pad.$pad.drives"] = $place;
        }
        $this->staging->stage($craft, $values);
        // Each ESC stays on its pad: what it holds is asked under the new map, and turned about.
        $turned = $this->canReverse($craft, $check) ? ShownSpins::turned($craft, $this->staging->preview($craft), $check) : [];
        $this->staging->stage($craft, $turned);
        $this->proofs->prove($craft, Proved::SpinCheck, $this->staging->preview($craft));

        return Answer::of([
            'said' => ([] === $turned ? 'The new pad map is staged.' : 'Pad map and directions are staged.').
                ' Commit, then show the motors once more: that round proves it.',
        ]);
    }

    /** Directions are set in the ESCs, so they must have answered. */
    private function canReverse(Craft $craft, SpinCheck $check): bool
    {
        return [] !== $check->reverse
            && $this->escs->isRead($craft)
            && [] === array_filter(Escs::identities($craft), static fn (?EscIdentity $e): bool => null === $e || $e->inBootloader());
    }

    private function frame(Craft $craft): Airframe
    {
        return $this->frames->staged($craft) ?? $this->frames->of($craft);
    }

    /** @param list<int> $pads */
    private function check(Craft $craft, Airframe $frame, array $pads): SpinCheck
    {
        return SpinCheck::of(
            $frame,
            $pads,
            array_values(
                array_map(
                    static fn (ShownSpin $s): SpinAnswer => new SpinAnswer($s->pad, $s->place, $s->direction),
                    $this->spins->of($craft),
                ),
            ),
        );
    }

    /** @return array<int, string> pads that drive a motor of this frame */
    private function padMap(SettingSet $settings, Airframe $frame): array
    {
        return array_intersect($settings->drives(), $frame->places());
    }
}
