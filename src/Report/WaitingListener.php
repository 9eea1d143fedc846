<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\App\Page\ShellBuilder;
use Ortholex\App\Work\Jobs;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Twig\Environment;

/** Where a page needs an analysis that is not at hand yet: starts it, and says so until it is there. */
final readonly class WaitingListener
{
    public function __construct(private Jobs $jobs, private ShellBuilder $shell, private Environment $twig)
    {
    }

    #[AsEventListener]
    public function onException(ExceptionEvent $event): void
    {
        $e = $event->getThrowable();
        if (!$e instanceof NotYetAnalysed) {
            return;
        }
        $craft = $e->log->craft;
        try {
            // What comes in is looked at by who brings it; the page comes back when that is done, and asks again.
            if (!$e->underWay) {
                $order = ['log' => $e->log->id, 'passage' => $e->passage?->id];
                $this->jobs->start($craft, 'analyse', "Look at {$e->log->code}", $order);
            }
        } catch (ConflictHttpException) {
            // Other work comes first, perhaps this very analysis; the page comes back when it is done.
        }
        $path = $event->getRequest()->getPathInfo();
        if (1 !== preg_match('~^/craft/[^/]+/(\d\d)(/\d+)?$~', $path, $m)) {
            $event->setResponse(new JsonResponse(['error' => $e->getMessage()], Response::HTTP_SERVICE_UNAVAILABLE));

            return;
        }
        $event->setResponse(
            new Response(
                $this->twig->render('Report/waiting.html.twig', [
                    'shell' => $this->shell->of($craft, $m[1]),
                    'view' => $e->log,
                    'craft' => $craft,
                    'here' => ['slug' => $craft->slug],
                ]),
                Response::HTTP_ACCEPTED,
            ),
        );
        $event->allowCustomResponseCode();
    }
}
