<?php

declare(strict_types=1);

namespace Ortholex\App\Noise\Desk;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Link\CraftInterlocks;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\DeskNoise\DeskNoise;
use Ortholex\Core\Guard\MotorWork;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 53 for who has no recorder: what the craft shakes with on the desk. */
#[AsController]
final class DeskController extends SheetController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly LinkService $links,
        private readonly CraftInterlocks $interlocks,
        private readonly Jobs $jobs,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/53/desk', name: 'desk_noise', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $measured = $this->entities->getRepository(DeskMeasurement::class)->findOneBy(['craft' => $craft], ['id' => 'DESC']);
        $desk = null === $measured ? null : DeskNoise::of($measured->steps(), $measured->rateHz);
        $asked = Axis::tryFrom($request->query->getString('axis'));
        $drawing = null === $desk ? null : DeskDrawing::of($desk, $asked ?? DeskDrawing::loudest($desk));

        return $this->show(
            $craft,
            '53',
            'Noise/Desk/desk.html.twig',
            new DeskView(
                $drawing,
                array_map($this->words->capital(...), $desk->says ?? []),
                array_map($this->words->capital(...), $desk->cannot ?? []),
                $measured?->takenAt,
                array_map($this->words->capital(...), $this->interlocks->of($craft)->open()),
            ),
        );
    }

    #[Route('/craft/{slug}/53/desk', name: 'desk_measure', methods: ['POST'])]
    public function measure(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $this->interlocks->of($craft)->demandPropsOff(MotorWork::Spin);

        return Answer::of(['job' => $this->jobs->start($craft, 'desk_noise', 'Measure on the desk', [])->id]);
    }
}
