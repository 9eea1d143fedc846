<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Cookie;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\ResponseEvent;
use Symfony\Component\HttpKernel\Event\ViewEvent;

/** Sends what a write answers: as JSON, or back to the page of its form, with the sentence in a cookie until it is said. */
final readonly class AnswerListener
{
    public const SAID = 'said';

    #[AsEventListener]
    public function onView(ViewEvent $event): void
    {
        $answer = $event->getControllerResult();
        if (!$answer instanceof Answer) {
            return;
        }
        $asker = Asker::of($event->getRequest());
        if ($asker->wantsJson()) {
            $event->setResponse(new JsonResponse($answer->data));

            return;
        }
        $response = new RedirectResponse($answer->to ?? $asker->page(), Response::HTTP_SEE_OTHER);
        if ('' !== $answer->said) {
            $response->headers->setCookie(
                Cookie::create(self::SAID, $answer->said)->withSecure(false)->withSameSite(Cookie::SAMESITE_STRICT),
            );
        }
        $event->setResponse($response);
    }

    /** A page says it once. */
    #[AsEventListener]
    public function onResponse(ResponseEvent $event): void
    {
        $response = $event->getResponse();
        $isPage =
            str_starts_with((string) $response->headers->get('Content-Type', 'text/html'), 'text/html') && !$response->isRedirection();
        if ($isPage && $event->getRequest()->cookies->has(self::SAID)) {
            $response->headers->clearCookie(self::SAID);
        }
    }
}
