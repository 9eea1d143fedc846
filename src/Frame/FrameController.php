<?php

declare(strict_types=1);

namespace Ortholex\App\Frame;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Craft\Craft;
use Ortholex\App\Craft\LinkService;
use Ortholex\App\Craft\Worlds;
use Ortholex\App\Record\Staging;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Shell\SheetController;
use Ortholex\Core\Airframe\AirframeError;
use Ortholex\Core\Airframe\Mixer;
use Ortholex\Core\Airframe\Mounting;
use Ortholex\Core\Airframe\Rotation;
use Ortholex\Core\Settings\Catalogue;
use Symfony\Component\HttpFoundation\JsonResponse;
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

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly LinkService $links,
        private readonly Worlds $worlds,
        private readonly Staging $staging,
        private readonly Catalogue $catalogue,
    ) {
    }

    #[Route('/craft/{slug}/14', name: 'frame', methods: ['GET'])]
    public function sheet(string $slug): Response
    {
        $craft = $this->crafts->named($slug);
        $frame = $this->worlds->of($craft)->physics->frame;
        [$found, $problem] = $this->found($craft);
        $set = $this->mountingOf($this->staging->preview($craft));
        $fields = [];
        foreach (['frame.layout', 'props.direction'] as $name) {
            if (isset($craft->settings[$name])) {
                $fields[] = $this->catalogue->get($name, $craft->version());
            }
        }
        $poses = $this->poses($craft);

        return $this->show($craft, '14', 'Frame/frame.html.twig', new FrameView(
            $frame, Mixer::of($frame), $set, [ShownPose::LEVEL => isset($poses[ShownPose::LEVEL]), ShownPose::NOSE_UP => isset($poses[ShownPose::NOSE_UP])],
            $found, null === $found ? 0.0 : $found->rotation->angleTo(Rotation::degrees(...$set)), $problem, $fields, $craft->settings, $this->staging->of($craft), $this->links->isLinked($craft),
        ));
    }

    #[Route('/craft/{slug}/frame/pose', name: 'frame_pose', methods: ['POST'])]
    public function pose(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $pose = Input::of($request)->text('pose', 20);
        if (ShownPose::LEVEL !== $pose && ShownPose::NOSE_UP !== $pose) {
            throw BadRequest::at('pose', 'Show the craft level, or nose up.');
        }
        $this->links->demandLinked($craft);
        $shown = $this->poses($craft)[$pose] ?? new ShownPose($craft, $pose);
        [$shown->x, $shown->y, $shown->z] = $this->worlds->client($craft)->accelerometer();
        $this->entities->persist($shown);
        $this->entities->flush();

        return new JsonResponse(['force_g' => $shown->force()]);
    }

    #[Route('/craft/{slug}/frame/again', name: 'frame_again', methods: ['POST'])]
    public function again(string $slug): JsonResponse
    {
        foreach ($this->poses($this->crafts->named($slug)) as $pose) {
            $this->entities->remove($pose);
        }
        $this->entities->flush();

        return new JsonResponse([]);
    }

    #[Route('/craft/{slug}/frame/mounting', name: 'frame_mounting', methods: ['POST'])]
    public function mounting(string $slug): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        [$found, $problem] = $this->found($craft);
        if (null === $found) {
            throw BadRequest::at('pose', '' === $problem ? 'Show the craft level and nose up first.' : $problem);
        }
        $this->staging->stage($craft, ['mounting.roll_deg' => $found->rollDeg, 'mounting.pitch_deg' => $found->pitchDeg, 'mounting.yaw_deg' => $found->yawDeg]);

        return new JsonResponse(['said' => 'The mounting is staged. Commit it, then tilt the craft: the picture on 11 must follow.']);
    }

    /** @return array{?Mounting, string} what the poses say, or why they cannot be */
    private function found(Craft $craft): array
    {
        $poses = $this->poses($craft);
        if (!isset($poses[ShownPose::LEVEL], $poses[ShownPose::NOSE_UP])) {
            return [null, ''];
        }
        try {
            return [Mounting::fromPoses($poses[ShownPose::LEVEL]->force(), $poses[ShownPose::NOSE_UP]->force(), self::LIFT_DEG), ''];
        } catch (AirframeError $e) {
            return [null, $e->getMessage()];
        }
    }

    /** @return array<string, ShownPose> */
    private function poses(Craft $craft): array
    {
        $poses = [];
        foreach ($this->entities->getRepository(ShownPose::class)->findBy(['craft' => $craft]) as $pose) {
            $poses[$pose->pose] = $pose;
        }

        return $poses;
    }

    /**
     * @param array<string, float|int|bool|string> $settings
     *
     * @return array{float, float, float}
     */
    private function mountingOf(array $settings): array
    {
        $deg = static fn (string $axis): float => is_numeric($settings["mounting.{$axis}_deg"] ?? null) ? (float) $settings["mounting.{$axis}_deg"] : 0.0;

        return [$deg('roll'), $deg('pitch'), $deg('yaw')];
    }
}
