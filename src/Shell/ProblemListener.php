<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Ortholex\App\Storage\DiskTrouble;
use Ortholex\App\Words\Words;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\Guard\InterlockOpen;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Settings\SettingError;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\Exception\HttpExceptionInterface;
use Symfony\Component\Routing\Exception\ResourceNotFoundException;
use Twig\Environment;

/** Turns what went wrong into words: JSON for programs, a page for people, or a note to the form it came from; the field is named. */
final readonly class ProblemListener
{
    public function __construct(private Environment $twig, private Words $words, private string $dataFolder)
    {
    }

    #[AsEventListener(priority: -64)]
    public function onException(ExceptionEvent $event): void
    {
        $e = $event->getThrowable();
        $known =
            $e instanceof SettingError
            || $e instanceof LinkError
            || $e instanceof FirmwareError
            || $e instanceof LogError
            || $e instanceof InterlockOpen
            || $e instanceof BadRequest;
        $disk = DiskTrouble::behind($e, $this->dataFolder);
        $status = match (true) {
            null !== $disk => $disk->status,
            $e instanceof HttpExceptionInterface => $e->getStatusCode(),
            $e instanceof LinkError => 409,
            $known => 422,
            default => 500,
        };
        $message =
            $disk->words ??
            ($known || $e instanceof HttpExceptionInterface
                ? $this->words->ofProblem($e)
                : 'Something in Ortholex itself went wrong; nothing was changed by it. The server\'s log has the details.');
        if (404 === $status && $e->getPrevious() instanceof ResourceNotFoundException) {
            $message = 'There is no such page.';
        }
        $field = match (true) {
            $e instanceof SettingError => $e->setting,
            $e instanceof BadRequest => $e->field,
            $e instanceof InterlockOpen => 'props',
            default => null,
        };
        $asker = Asker::of($event->getRequest());
        if ($asker->wantsJson()) {
            $event->setResponse(new JsonResponse(['error' => $message, 'field' => $field], $status));
        } elseif ($asker->takesStreams() && !$asker->visits()) {
            $stream = $this->twig->render('Shell/problem.stream.html.twig', ['message' => $message, 'field' => $field]);
            $event->setResponse(new Response($stream, $status, ['Content-Type' => Asker::STREAM]));
        } else {
            $page = $this->twig->render('Shell/problem.html.twig', ['status' => $status, 'message' => $message, 'back' => $asker->page()]);
            $event->setResponse(new Response($page, $status));
        }
        if ($e instanceof HttpExceptionInterface) {
            $event->getResponse()?->headers->add($e->getHeaders());
        }
    }
}
