<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Import;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\KeptFiles;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Upload\Uploads;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Recorder\LogFile;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** Sheet 51, bringing a log in: columns that were recognised surely need no question; the others are asked. */
#[AsController]
final class MappingController extends SheetController
{
    public function __construct(
        private readonly ColumnMaps $maps,
        private readonly Uploads $uploads,
        private readonly Jobs $jobs,
        private readonly Words $words,
        private readonly UrlGeneratorInterface $urls,
        private readonly LogBook $book,
        private readonly KeptFiles $kept,
    ) {
    }

    #[Route('/craft/{slug}/logs/import', name: 'log_import', methods: ['POST'])]
    public function import(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $upload = $this->uploads->ofForm($request, 'upload');
        $file = $request->files->get('upload');
        $given = $file instanceof UploadedFile ? $file->getClientOriginalName() : $input->text('name', 300);
        $name = mb_substr('' === $given ? 'a log from disk' : basename($given), 0, 80);
        $path = $this->uploads->path($upload);
        $map = [];
        foreach ($input->map('map') + $this->answered($input) as $column => $trace) {
            $map[$column] = \is_string($trace) && '' !== $trace ? $trace : null;
        }
        if (LogFile::isRecording($path)) {
            // It names its own traces.
            return $this->begin($craft, $path, $name, null);
        }
        try {
            $plan = $this->maps->plan($path, $map);
        } catch (LogError $e) {
            throw BadRequest::at('file', $this->words->ofProblem($e));
        }
        if ([] === $map && (!$plan->isSure() || null === $plan->timeColumn())) {
            $ask = $this->urls->generate('log_columns', ['slug' => $slug, 'upload' => $upload, 'name' => $name]);

            return Answer::of(['ask' => $ask])->to($ask);
        }
        if (null === $plan->timeColumn()) {
            throw BadRequest::at('map', 'Say which column is the time.');
        }
        if ([] !== $map) {
            $this->maps->remember($plan->headerKey(), $map);
        }

        return $this->begin($craft, $path, $name, $this->again($craft, $input));
    }

    private function begin(Craft $craft, string $path, string $name, ?Log $again): Answer
    {
        $order = ['path' => $path, 'name' => $name] + (null === $again ? [] : ['again' => $again->id]);
        $job = $this->jobs->start($craft, 'import', "Bring in $name", $order);

        return Answer::of(['job' => $job->id])->to($this->urls->generate('logs', ['slug' => $craft->slug]));
    }

    /**
     * What a form without scripts answers: names of columns, what each is, and in which unit, in the same order.
     *
     * @return array<string, mixed>
     */
    private function answered(Input $input): array
    {
        $names = array_map(static fn (mixed $n): string => \is_string($n) ? $n : '', array_values($input->map('columns')));
        $traces = array_values($input->map('traces'));
        $units = array_values($input->map('units'));
        foreach ($traces as $i => $trace) {
            $unit = $units[$i] ?? '';
            if (\is_string($trace) && '' !== $trace && \is_string($unit) && '' !== $unit) {
                $traces[$i] = "$trace:$unit";
            }
        }

        return \count($names) === \count($traces) ? array_combine($names, $traces) : [];
    }

    private function again(Craft $craft, Input $input): ?Log
    {
        return '' === $input->text('again', 12) ? null : $this->book->one($craft, $input->whole('again', 1, \PHP_INT_MAX), true);
    }

    /** A log that came from disk once more before the question what its columns are. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/match', name: 'log_match', methods: ['POST'])]
    public function match(string $slug, int $id): Answer
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        if (!$this->kept->has($log)) {
            throw BadRequest::at('log', "The file that $log->code came from was not kept. Bring it in once more from disk.");
        }
        $path = $this->kept->path($log);
        $upload = $this->uploads->begin((int) filesize($path));
        if (!@copy($path, $this->uploads->path($upload))) {
            throw BadRequest::at('log', 'There is no room for a copy. Make room on the disk, then try it again.');
        }
        $ask = $this->urls->generate('log_columns', ['slug' => $slug, 'upload' => $upload, 'name' => $log->title, 'again' => $id]);

        return Answer::of(['ask' => $ask])->to($ask);
    }

    /** What each column is taken for; with answers in the address, what would follow from those. */
    #[Route('/craft/{slug}/51/columns/{upload<[0-9a-f-]+>}', name: 'log_columns', methods: ['GET'])]
    public function columns(string $slug, string $upload, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $input = Input::query($request);
        $map = [];
        foreach ($this->answered($input) as $column => $trace) {
            $map[$column] = \is_string($trace) && '' !== $trace ? $trace : null;
        }
        $path = $this->uploads->path($upload);
        try {
            $plan = $this->maps->plan($path, $map);
            $asked = [] === $map ? $plan->unsure() : $this->maps->plan($path)->unsure();
        } catch (LogError $e) {
            throw BadRequest::at('file', $this->words->ofProblem($e));
        }
        $traces = [Traces::TIME => 'time'];
        foreach (
            Traces::common(array_values(array_filter(array_column($plan->guesses, 'trace')))) as $trace
        ) {
            $traces[$trace] = Traces::inWords($trace);
        }
        $name = mb_substr($input->text('name', 300), 0, 80);
        $view = new ColumnsView($plan, $asked, $traces, $upload, '' === $name ? 'a log' : $name, $this->again($craft, $input));

        return '' === $input->text('part', 20)
            ? $this->show($craft, '51', 'Logs/columns.html.twig', $view)
            : $this->piece('Logs/_follows.html.twig', ['view' => $view]);
    }
}
