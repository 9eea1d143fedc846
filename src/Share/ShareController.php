<?php

declare(strict_types=1);

namespace Ortholex\App\Share;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Crafts;
use Ortholex\App\Book\Share\BookError;
use Ortholex\App\Book\Share\BookExport;
use Ortholex\App\Book\Share\BookImport;
use Ortholex\App\Book\Share\ShareChoice;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Storage\PassingFile;
use Ortholex\App\Upload\Uploads;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\Jobs;
use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Twig\Environment;

/** A whole book out as one file, and in again. */
#[AsController]
final readonly class ShareController
{
    public function __construct(
        private Crafts $crafts,
        private BookExport $export,
        private BookImport $import,
        private Uploads $uploads,
        private Jobs $jobs,
        private EntityManagerInterface $entities,
        private UrlGeneratorInterface $urls,
        private Environment $twig,
    ) {
    }

    /** What goes out, and what became of it when it came in. */
    #[Route('/craft/{slug}/book', name: 'book', methods: ['GET'])]
    public function show(string $slug): Response
    {
        $craft = $this->crafts->named($slug);
        $job = $this->entities->getRepository(Job::class)->findOneBy(['craft' => $craft, 'kind' => 'read_book'], ['id' => 'DESC']);

        return new Response(
            $this->twig->render('Share/book.html.twig', ['craft' => $craft, 'here' => ['slug' => $slug], 'job' => $job]),
        );
    }

    /** What is asked for stands in the address; what is not asked for is left out. */
    #[Route('/craft/{slug}/book.zip', name: 'book_zip', methods: ['GET'])]
    public function zip(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $asked = Input::query($request);
        $choice = new ShareChoice($asked->flag('home'), $asked->flag('serials'), $asked->flag('names'), $asked->flag('logs'));
        $path = PassingFile::named('out');
        $this->export->write($craft, $path, $choice);

        return (new BinaryFileResponse($path, 200, [
            'Content-Type' => 'application/zip',
            'Content-Disposition' => HeaderUtils::makeDisposition('attachment', "{$craft->slug}-book.zip"),
        ]))->deleteFileAfterSend();
    }

    #[Route('/workshop/book', name: 'book_in', methods: ['GET'])]
    public function ask(): Response
    {
        return new Response($this->twig->render('Share/bring_in.html.twig'));
    }

    #[Route('/workshop/book', name: 'take_book', methods: ['POST'])]
    public function take(Request $request): Answer
    {
        $path = $this->uploads->path($this->uploads->ofForm($request, 'upload'));
        try {
            $book = $this->import->open($path);
            $craft = $this->import->craft($book);
        } catch (BookError $e) {
            throw BadRequest::at('upload', $e->getMessage());
        }
        $told = ['taken' => $book->taken, 'left' => $book->left];
        $job = $this->jobs->start($craft, 'read_book', "Read the book of {$craft->name}", ['path' => $path] + $told);
        $to = $this->urls->generate('book', ['slug' => $craft->slug]);

        $said = "{$craft->name} is in the Workshop.";

        return Answer::of(['craft' => $craft->slug, 'job' => $job->id, 'ask' => $to, 'said' => $said] + $told)->to($to);
    }
}
