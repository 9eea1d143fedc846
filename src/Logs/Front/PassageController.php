<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Front;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\FlightLog\Passage;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 52: passages are marked, named and kept. */
#[AsController]
final class PassageController extends SheetController
{
    /** Anything shorter tells no analysis anything, s. */
    private const LEAST_S = 0.5;

    public function __construct(private readonly LogBook $book, private readonly EntityManagerInterface $entities)
    {
    }

    #[Route('/craft/{slug}/logs/{id<\d+>}/passages', name: 'passage_keep', methods: ['POST'])]
    public function keep(string $slug, int $id, Request $request): Answer
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $input = Input::of($request);
        $name = $input->text('name', 80);
        $from = $input->text('from', 30);
        $to = $input->text('to', 30);
        if ('' === $name) {
            throw BadRequest::at('name', 'Give the passage a name, such as “second climb”.');
        }
        if (!is_numeric($from) || !is_numeric($to) || (float) $to - (float) $from < self::LEAST_S) {
            throw BadRequest::at('to', 'A passage is at least half a second long. Zoom to what you mean, and keep that.');
        }
        $passage = new Passage($log, $name, (float) $from, (float) $to);
        $this->entities->persist($passage);
        $this->entities->flush();

        return Answer::of(['said' => "“{$name}” is kept.", 'id' => $passage->id]);
    }

    #[Route('/craft/{slug}/logs/{id<\d+>}/passages/{passage<\d+>}/drop', name: 'passage_drop', methods: ['POST'])]
    public function drop(string $slug, int $id, int $passage): Answer
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $found = $this->book->passage($log, $passage);
        if (null !== $found) {
            $this->entities->remove($found);
            $this->entities->flush();
        }

        return Answer::of();
    }
}
