<?php

declare(strict_types=1);

namespace Ortholex\App\Craft;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\FlightLog\Log;
use Ortholex\Demo\Scenario;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;
use Twig\Environment;

#[AsController]
final readonly class WorkshopController
{
    public function __construct(
        private Crafts $crafts,
        private NextSteps $steps,
        private LinkService $links,
        private EntityManagerInterface $entities,
        private Environment $twig,
    ) {
    }

    #[Route('/', name: 'workshop', methods: ['GET'])]
    public function show(): Response
    {
        $cards = [];
        foreach ($this->crafts->all() as $craft) {
            $cards[] = new WorkshopCard(
                $craft,
                $this->steps->of($craft),
                $this->links->isLinked($craft),
                Scenario::craft()[$craft->slug]->physics->frame,
                $this->entities->getRepository(Log::class)->count(['craft' => $craft]),
            );
        }

        return new Response($this->twig->render('Craft/workshop.html.twig', ['cards' => $cards]));
    }
}
