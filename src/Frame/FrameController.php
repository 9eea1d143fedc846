<?php

declare(strict_types=1);

namespace Ortholex\App\Frame;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Proof\Proofs;
use Ortholex\App\Settings\Airframes;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Words\Words;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\AirframeError;
use Ortholex\Core\Airframe\Layout;
use Ortholex\Core\Airframe\LevelCheck;
use Ortholex\Core\Airframe\Mixer;
use Ortholex\Core\Airframe\Mounting;
use Ortholex\Core\Airframe\Rotation;
use Ortholex\Core\Craft\MotorTurn;
use Ortholex\Core\Craft\Place;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Proof\Proved;
use Ortholex\Core\Settings\Catalogue;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 14: the builder shows the craft level and nose up, and the mounting follows. */
#[AsController]
final class FrameController extends SheetController
{
    /** About how far a hand lifts the nose; the pose must be clearly that and no other. */
    private const LIFT_DEG = 45.0;

    /** One reading lies a third of a degree beside the truth; the mean of so many, 0.014°. */
    private const LEVEL_READINGS = 600;

    /** A new arm of a custom frame reaches this far from the middle. */
    private const NEW_ARM_MM = 110.0;

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly LinkService $links,
        private readonly Benches $benches,
        private readonly Staging $staging,
        private readonly Catalogue $catalogue,
        private readonly Airframes $frames,
        private readonly Words $words,
        private readonly Proofs $proofs,
    ) {
    }

    #[Route('/craft/{slug}/14', name: 'frame', methods: ['GET'])]
    public function sheet(string $slug): Response
    {
        $craft = $this->crafts->named($slug);
        $frame = $this->frames->staged($craft);
        $layout = Layout::tryFrom($this->staging->preview($craft)->text('frame.layout')) ?? Layout::QuadX;
        [$found, $problem] = $this->found($craft);
        $set = $this->mountingOf($this->staging->preview($craft));
        $fields = [];
        foreach (
            [
                'frame.layout',
                'props.direction',
                'props.diameter_mm',
                ...Layout::Custom === $layout ? [] : ['frame.diagonal_mm'],
                ...Layout::QuadStretched === $layout ? ['frame.stretch'] : [],
                ...Layout::Custom === $layout && null !== $frame
                    ? array_map(static fn (string $p): string => "motor_place.$p.turns", $frame->places())
                    : [],
            ] as $name
        ) {
            if (isset($craft->settings[$name])) {
                $fields[] = $this->catalogue->get($name, $craft->version());
            }
        }
        $poses = $this->poses($craft);

        return $this->show(
            $craft,
            '14',
            'Frame/frame.html.twig',
            new FrameView(
                $frame ?? $this->frames->of($craft),
                self::mixer($frame ?? $this->frames->of($craft)),
                null === $frame,
                $layout,
                $set,
                [Pose::Level->value => isset($poses[Pose::Level->value]), Pose::NoseUp->value => isset($poses[Pose::NoseUp->value])],
                $found,
                null === $found ? 0.0 : $found->rotation->angleTo(Rotation::degrees(...$set)),
                $problem,
                $fields,
                $craft->settings,
                $this->staging->of($craft),
                $this->links->isLinked($craft),
            ),
        );
    }

    #[Route('/craft/{slug}/frame/pose', name: 'frame_pose', methods: ['POST'])]
    public function pose(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $pose =
            Pose::tryFrom(Input::of($request)->text('pose', 20)) ?? throw BadRequest::at('pose', 'Show the craft level, or nose up.');
        $this->links->demandLinked($craft);
        $shown = $this->poses($craft)[$pose->value] ?? new ShownPose($craft, $pose);
        [$shown->x, $shown->y, $shown->z] = $this->benches->client($craft)->accelerometer();
        $this->entities->persist($shown);
        $this->entities->flush();

        [$found] = $this->found($craft);
        if (null !== $found && [$found->rollDeg, $found->pitchDeg, $found->yawDeg] === $this->mountingOf($craft->settings)) {
            $this->proofs->prove($craft, Proved::Mounting, $craft->settings);
        }

        return Answer::of(['force_g' => $shown->force()]);
    }

    /** Chooses an airframe; a custom one starts from the arms of the one before. */
    #[Route('/craft/{slug}/frame/layout', name: 'frame_layout', methods: ['POST'])]
    public function layout(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $layout = Input::of($request)->text('layout', 40);
        $values = ['frame.layout' => $layout];
        if (Layout::Custom->value === $layout) {
            foreach ($this->frames->of($craft)->motors as $motor) {
                $values["motor_place.$motor->place.forward_mm"] = round(1000 * $motor->x);
                $values["motor_place.$motor->place.right_mm"] = round(1000 * $motor->y);
                // Each keeps its way when another is taken away.
                $values["motor_place.$motor->place.turns"] = MotorTurn::of($motor->spin)->value;
            }
        }
        $this->staging->stage($craft, SettingSet::of($values)->among($craft->settings)->toArray());

        return Answer::of(['staged' => $this->staging->of($craft)]);
    }

    /** Puts a motor where a custom frame has none; it is dragged to its place from there. */
    #[Route('/craft/{slug}/frame/arm', name: 'frame_arm', methods: ['POST'])]
    public function arm(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $place = Place::tryFrom(Input::of($request)->text('place', 40)) ?? throw BadRequest::at('place', 'There is no such place.');
        $reach = 0 !== $place->forward() && 0 !== $place->right() ? self::NEW_ARM_MM / \M_SQRT2 : self::NEW_ARM_MM;
        $this->staging->stage($craft, [
            "motor_place.$place->value.forward_mm" => round($place->forward() * $reach),
            "motor_place.$place->value.right_mm" => round($place->right() * $reach),
        ]);

        return Answer::of(['staged' => $this->staging->of($craft)]);
    }

    /** What is left of roll and pitch while the craft lies level, staged. */
    #[Route('/craft/{slug}/frame/level', name: 'frame_level', methods: ['POST'])]
    public function level(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        try {
            $level = LevelCheck::of(
                $this->benches->client($craft)->accelerometer(self::LEVEL_READINGS),
                Rotation::degrees(...$this->mountingOf($craft->settings)),
            );
        } catch (AirframeError $e) {
            throw BadRequest::at('level', $this->words->of($e->flaw));
        }
        $this->staging->stage($craft, ['level.roll_deg' => $level->rollDeg, 'level.pitch_deg' => $level->pitchDeg]);
        $this->proofs->prove($craft, Proved::Level, $this->staging->preview($craft));

        return Answer::of([
            'said' => \sprintf(
                'The board sits %.1f° in roll and %.1f° in pitch off level; that is staged to be taken off.',
                $level->rollDeg,
                $level->pitchDeg,
            ),
        ]);
    }

    /** Null when the motors cannot command every axis. */
    private static function mixer(Airframe $frame): ?Mixer
    {
        try {
            return Mixer::of($frame);
        } catch (AirframeError) {
            // The check of the staged settings says which axis is lost.
            return null;
        }
    }

    #[Route('/craft/{slug}/frame/again', name: 'frame_again', methods: ['POST'])]
    public function again(string $slug): Answer
    {
        foreach ($this->poses($this->crafts->named($slug)) as $pose) {
            $this->entities->remove($pose);
        }
        $this->entities->flush();

        return Answer::of();
    }

    #[Route('/craft/{slug}/frame/mounting', name: 'frame_mounting', methods: ['POST'])]
    public function mounting(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        [$found, $problem] = $this->found($craft);
        if (null === $found) {
            throw BadRequest::at('pose', '' === $problem ? 'Show the craft level and nose up first.' : $problem);
        }
        $this->staging->stage($craft, [
            'mounting.roll_deg' => $found->rollDeg,
            'mounting.pitch_deg' => $found->pitchDeg,
            'mounting.yaw_deg' => $found->yawDeg,
        ]);
        $this->proofs->prove($craft, Proved::Mounting, $this->staging->preview($craft));

        return Answer::said('The mounting is staged. Commit it, then tilt the craft: the picture on 11 must follow.');
    }

    /** @return array{?Mounting, string} what the poses say, or why they cannot be */
    private function found(Craft $craft): array
    {
        $poses = $this->poses($craft);
        if (!isset($poses[Pose::Level->value], $poses[Pose::NoseUp->value])) {
            return [null, ''];
        }
        try {
            return [Mounting::fromPoses($poses[Pose::Level->value]->force(), $poses[Pose::NoseUp->value]->force(), self::LIFT_DEG), ''];
        } catch (AirframeError $e) {
            return [null, $this->words->of($e->flaw)];
        }
    }

    /** @return array<string, ShownPose> */
    private function poses(Craft $craft): array
    {
        $poses = [];
        foreach ($this->entities->getRepository(ShownPose::class)->findBy(['craft' => $craft]) as $pose) {
            $poses[$pose->pose->value] = $pose;
        }

        return $poses;
    }

    /** @return array{float, float, float} roll, pitch, yaw, deg */
    private function mountingOf(SettingSet $settings): array
    {
        return [$settings->number('mounting.roll_deg'), $settings->number('mounting.pitch_deg'), $settings->number('mounting.yaw_deg')];
    }
}
