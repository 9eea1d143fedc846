<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop;

use Ortholex\App\Book\Crafts;
use Ortholex\App\Book\Step\NextSteps;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Settings\Airframes;
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
        private LogBook $book,
        private Airframes $frames,
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
                $this->frames->of($craft),
                $this->book->count($craft),
            );
        }

        return new Response($this->twig->render('Workshop/workshop.html.twig', ['cards' => $cards]));
    }
}
