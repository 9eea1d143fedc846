<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Import;

use Ortholex\App\Page\SheetController;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Upload\Uploads;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Traces;
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
        $job = $this->jobs->start($craft, 'import', "Bring in $name", ['path' => $path, 'name' => $name]);

        return Answer::of(['job' => $job->id])->to($this->urls->generate('logs', ['slug' => $slug]));
    }

    /**
     * What a form without scripts answers: names of columns, and what each is, in the same order.
     *
     * @return array<string, mixed>
     */
    private function answered(Input $input): array
    {
        $names = array_map(static fn (mixed $n): string => \is_string($n) ? $n : '', array_values($input->map('columns')));
        $traces = array_values($input->map('traces'));

        return \count($names) === \count($traces) ? array_combine($names, $traces) : [];
    }

    #[Route('/craft/{slug}/51/columns/{upload<[0-9a-f-]+>}', name: 'log_columns', methods: ['GET'])]
    public function columns(string $slug, string $upload, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        try {
            $plan = $this->maps->plan($this->uploads->path($upload));
        } catch (LogError $e) {
            throw BadRequest::at('file', $this->words->ofProblem($e));
        }
        $traces = [Traces::TIME => 'time'];
        foreach (
            Traces::common(array_values(array_filter(array_column($plan->guesses, 'trace')))) as $trace
        ) {
            $traces[$trace] = Traces::inWords($trace);
        }

        return $this->show(
            $craft,
            '51',
            'Logs/columns.html.twig',
            new ColumnsView($plan, $traces, $upload, mb_substr($request->query->getString('name', 'a log'), 0, 80)),
        );
    }
}
