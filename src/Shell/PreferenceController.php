<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Symfony\Component\HttpFoundation\Cookie;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final readonly class PreferenceController
{
    #[Route('/prefer/{what}', name: 'prefer', methods: ['POST'])]
    public function prefer(Preference $what, Request $request): Response
    {
        $choice = Input::of($request)->text('choice', 20);
        if (!\in_array($choice, $what->choices(), true)) {
            throw BadRequest::at('choice', "There is no such choice of {$what->value}.");
        }
        $response = new RedirectResponse(Asker::of($request)->page(), Response::HTTP_SEE_OTHER);
        $response->headers->setCookie(
            Cookie::create($what->value, $choice, new \DateTimeImmutable('+1 year'))
                ->withSecure(false)
                ->withSameSite(Cookie::SAMESITE_STRICT),
        );

        return $response;
    }
}
