<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Toy;

use Ortholex\App\Page\SheetController;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class ToyController extends SheetController
{
    #[Route('/craft/{slug}/24', name: 'toy', methods: ['GET'])]
    public function sheet(string $slug): Response
    {
        return $this->show($this->crafts->named($slug), '24', '@Toy/toy.html.twig', null);
    }
}
