<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Shell\Input;
use Ortholex\App\Shell\SheetController;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** The front of one log: all its findings, what it can be used for, and what is noted of it. */
#[AsController]
final class LogFrontController extends SheetController
{
    public function __construct(private readonly LogBook $book, private readonly AnalysisStore $analyses, private readonly EntityManagerInterface $entities)
    {
    }

    #[Route('/craft/{slug}/51/{id<\d+>}', name: 'log_front', methods: ['GET'])]
    public function front(string $slug, int $id): Response
    {
        $craft = $this->crafts->named($slug);
        $log = $this->book->one($craft, $id);

        return $this->show($craft, '51', 'Flights/front.html.twig', new LogFrontView($log, $this->analyses->report($log)));
    }

    #[Route('/craft/{slug}/logs/{id<\d+>}/findings.json', name: 'log_findings', methods: ['GET'])]
    public function findings(string $slug, int $id): JsonResponse
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $report = $this->analyses->report($log);
        $response = new JsonResponse(['log' => $log->code, 'craft' => $log->craft->name, 'flown_at' => $log->flownAt->format(\DATE_ATOM), 'findings' => $report['findings'] ?? [], 'adequacy' => $report['adequacy'] ?? null]);
        $response->headers->set('Content-Disposition', HeaderUtils::makeDisposition('attachment', "$log->code-findings.json"));

        return $response;
    }

    #[Route('/craft/{slug}/logs/{id<\d+>}/note', name: 'log_note', methods: ['POST'])]
    public function note(string $slug, int $id, Request $request): JsonResponse
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $input = Input::of($request);
        $log->note = $input->text('note', 1000);
        $log->tags = $input->text('tags', 200);
        $this->entities->flush();

        return new JsonResponse(['note' => $log->note, 'tags' => $log->tags]);
    }

    /** Puts a log away; it can be brought back. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/away', name: 'log_away', methods: ['POST'])]
    public function away(string $slug, int $id): JsonResponse
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $log->putAwayAt = new \DateTimeImmutable();
        $this->entities->flush();

        return new JsonResponse(['said' => "$log->code is put away. Sheet 51 brings it back."]);
    }

    #[Route('/craft/{slug}/logs/{id<\d+>}/back', name: 'log_back', methods: ['POST'])]
    public function back(string $slug, int $id): JsonResponse
    {
        $log = $this->book->one($this->crafts->named($slug), $id, true);
        $log->putAwayAt = null;
        $this->entities->flush();

        return new JsonResponse(['said' => "$log->code is back."]);
    }
}
