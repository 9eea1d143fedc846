<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop\Making;

use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\Input;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Twig\Environment;

#[AsController]
final readonly class NewCraftController
{
    public function __construct(private CraftMaker $maker, private UrlGeneratorInterface $urls, private Environment $twig)
    {
    }

    /** What is chosen stands in the address, so that every choice can be looked at before anything is made. */
    #[Route('/workshop/new', name: 'new_craft', methods: ['GET'])]
    public function show(Request $request): Response
    {
        $view = NewCraftView::of(PlanForm::of(Input::query($request)));

        return new Response($this->twig->render('Workshop/new.html.twig', ['v' => $view]));
    }

    #[Route('/workshop/new', name: 'make_craft', methods: ['POST'])]
    public function make(Request $request): Answer
    {
        $craft = $this->maker->fromParts(PlanForm::of(Input::of($request)));

        return Answer::of(['craft' => $craft->slug, 'said' => "{$craft->name} is on the bench. Plug the cable and link."])->to(
            $this->urls->generate('identity', ['slug' => $craft->slug]),
        );
    }
}
