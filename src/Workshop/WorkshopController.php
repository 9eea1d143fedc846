<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop;

use Ortholex\App\Book\Crafts;
use Ortholex\App\Shell\Input;
use Ortholex\App\Workshop\Listing\Cards;
use Ortholex\App\Workshop\Listing\CraftGrouping;
use Ortholex\App\Workshop\Listing\CraftList;
use Ortholex\App\Workshop\Listing\CraftOrder;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;
use Twig\Environment;

#[AsController]
final readonly class WorkshopController
{
    public function __construct(private Cards $cards, private Crafts $crafts, private Environment $twig)
    {
    }

    #[Route('/', name: 'workshop', methods: ['GET'])]
    public function show(Request $request): Response
    {
        $list = CraftList::of($this->cards->all(), Input::query($request));

        return new Response(
            $this->twig->render('Workshop/workshop.html.twig', [
                'list' => $list,
                'away' => $this->crafts->away(),
                'orders' => CraftOrder::cases(),
                'groupings' => CraftGrouping::cases(),
            ]),
        );
    }
}
