<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Shell\SheetController;
use Ortholex\App\Upload\Uploads;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Traces;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 51, bringing a log in: columns that were recognised surely need no question; the others are asked. */
#[AsController]
final class MappingController extends SheetController
{
    public function __construct(
        private readonly ColumnMaps $maps,
        private readonly Uploads $uploads,
        private readonly Jobs $jobs,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/logs/import', name: 'log_import', methods: ['POST'])]
    public function import(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        $name = mb_substr('' === $input->text('name', 300) ? 'a log from disk' : basename($input->text('name', 300)), 0, 80);
        $upload = $input->text('upload');
        $path = $this->uploads->path($upload);
        $map = [];
        foreach ($input->map('map') as $column => $trace) {
            $map[$column] = \is_string($trace) && '' !== $trace ? $trace : null;
        }
        try {
            $plan = $this->maps->plan($path, $map);
        } catch (LogError $e) {
            throw BadRequest::at('file', $this->words->ofProblem($e));
        }
        if ([] === $map && (!$plan->isSure() || null === $plan->timeColumn())) {
            return new JsonResponse(['ask' => "/craft/$slug/51/columns/$upload?name=".rawurlencode($name)]);
        }
        if (null === $plan->timeColumn()) {
            throw BadRequest::at('map', 'Say which column is the time.');
        }
        if ([] !== $map) {
            $this->maps->remember($plan->headerKey(), $map);
        }
        $job = $this->jobs->start($craft, 'import', "Bring in $name", ['path' => $path, 'name' => $name]);

        return new JsonResponse(['job' => $job->id]);
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
