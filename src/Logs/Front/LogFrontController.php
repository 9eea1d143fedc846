<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Front;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\FlightLog\KeptFiles;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Report\ReportJson;
use Ortholex\App\Report\SheetsOfFindings;
use Ortholex\App\Report\WorkedOut;
use Ortholex\App\RoadMap\FlownLogs;
use Ortholex\App\Settings\Airframes;
use Ortholex\App\Settings\CurrentNames;
use Ortholex\App\Settings\File\SettingsFile;
use Ortholex\App\Settings\File\SettingsFileError;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\Core\Airframe\MotorPlace;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\Report\Strain;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** The front of one log: all its findings, what it can be used for, and what is noted of it. */
#[AsController]
final class LogFrontController extends SheetController
{
    public function __construct(
        private readonly LogBook $book,
        private readonly AnalysisStore $analyses,
        private readonly ReportJson $json,
        private readonly SheetsOfFindings $sheets,
        private readonly LogStore $store,
        private readonly Airframes $frames,
        private readonly EntityManagerInterface $entities,
        private readonly UrlGeneratorInterface $urls,
        private readonly FlownLogs $flown,
        private readonly KeptFiles $kept,
        private readonly SettingsFile $files,
        private readonly CurrentNames $names,
        private readonly WorkedOut $worked,
    ) {
    }

    #[Route('/craft/{slug}/51/{id<\d+>}', name: 'log_front', methods: ['GET'])]
    public function front(string $slug, int $id): Response
    {
        $craft = $this->crafts->named($slug);
        $log = $this->book->one($craft, $id);

        return $this->show(
            $craft,
            '51',
            'Logs/front.html.twig',
            new LogFrontView(
                $log,
                $this->analyses->report($log),
                array_map(static fn (MotorPlace $m): string => $m->inWords(), $this->frames->of($craft)->motors),
                LogFrontView::changed($log->settings, $craft->settings),
                $this->sheets,
                $this->flown->since($log),
                $this->kept->has($log),
                $this->strain($log),
            ),
        );
    }

    /** It takes a moment, and follows from the log alone. */
    private function strain(Log $log): ?Strain
    {
        $asked = static fn (string $trace): bool => 1 === preg_match('~^(throttle_pct$|setpoint_|rate_|output_)~', $trace);
        $wanted = array_values(array_filter($log->traces, $asked));
        try {
            $work = fn (): Strain => Strain::of($this->store->load($log, $wanted));

            return $this->worked->once('strain', [$log->sha256, $log->turned], $work);
        } catch (ConflictHttpException|LogError) {
            return null; // What is missing of it is said elsewhere.
        }
    }

    #[Route('/craft/{slug}/logs/{id<\d+>}/findings.json', name: 'log_findings', methods: ['GET'])]
    public function findings(string $slug, int $id): JsonResponse
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $report = $this->json->of($this->analyses->report($log));
        $response = new JsonResponse([
            'log' => $log->code,
            'craft' => $log->craft->name,
            'flown_at' => $log->flownAt->format(\DATE_ATOM),
            'findings' => $report['findings'],
            'adequacy' => $report['adequacy'],
        ]);
        $response->headers->set('Content-Disposition', HeaderUtils::makeDisposition('attachment', "$log->code-findings.json"));

        return $response;
    }

    #[Route('/craft/{slug}/logs/{id<\d+>}/note', name: 'log_note', methods: ['POST'])]
    public function note(string $slug, int $id, Request $request): Answer
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $input = Input::of($request);
        $log->note = $input->text('note', 1000);
        $log->tags = $input->text('tags', 200);
        $this->entities->flush();

        return Answer::of(['note' => $log->note, 'tags' => $log->tags, 'said' => 'Kept.']);
    }

    /** What was replaced before it flew; adds a line, or takes one out by its number. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/parts', name: 'log_parts', methods: ['POST'])]
    public function parts(string $slug, int $id, Request $request): Answer
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $input = Input::of($request);
        $drop = $input->text('drop', 4);
        if ('' !== $drop) {
            if (!ctype_digit($drop) || !isset($log->parts[(int) $drop])) {
                throw BadRequest::at('drop', 'There is no such part in the list; it may have been taken out meanwhile.');
            }
            $log->parts = array_values(array_filter($log->parts, static fn (int $i): bool => $i !== (int) $drop, \ARRAY_FILTER_USE_KEY));
        } else {
            $part = $input->text('part', 40);
            if (!\in_array($part, LogFrontView::PARTS, true)) {
                throw BadRequest::at('part', 'Say what was replaced: '.implode(', ', LogFrontView::PARTS).'.');
            }
            if (\count($log->parts) >= 40) {
                throw BadRequest::at('part', 'Forty parts are noted already; put the rest in the note.');
            }
            $log->parts = [...$log->parts, ['part' => $part, 'place' => $input->text('place', 40), 'with' => $input->text('with', 120)]];
        }
        $this->entities->flush();

        return Answer::said('Kept.');
    }

    /** For a log that does not say it: what it was flown with, as YAML, or as the craft stands now. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/flown-with', name: 'log_flown_with', methods: ['POST'])]
    public function flownWith(string $slug, int $id, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $log = $this->book->one($craft, $id);
        $input = Input::of($request);
        try {
            $set = $input->flag('as_it_stands')
                ? $this->names->of($craft, $craft->settings)
                : $this->files->text($input->text('yaml', 20_000), 'What was typed');
        } catch (SettingsFileError $e) {
            throw BadRequest::at('yaml', 'Nothing was kept. '.strtok($e->getMessage(), "\n"));
        }
        if ($set->isEmpty()) {
            throw BadRequest::at('yaml', 'Say at least one setting, as in gain.roll.p: 30. One a line.');
        }
        $log->settings = $log->settings->with($set);
        $this->entities->flush();

        return Answer::said('Kept. Gains and filters can be judged by this log now.');
    }

    /** Turns the axes about that the log counts otherwise than we do; asked again, turns them back. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/turn', name: 'log_turn', methods: ['POST'])]
    public function turn(string $slug, int $id, Request $request): Answer
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $traces = array_values(array_intersect(array_filter(explode(',', Input::of($request)->text('traces', 600))), $log->traces));
        $axes = array_unique(
            array_map(static fn (string $t): string => 1 === preg_match('~_(roll|pitch|yaw)(_dps)?$~', $t, $m) ? $m[1] : '', $traces),
        );
        if ([] === $traces || 1 !== \count($axes) || [''] === $axes) {
            throw BadRequest::at('traces', 'Name the traces of one axis whose sign is to be reversed.');
        }
        $this->entities->wrapInTransaction(function () use ($log, $traces): void {
            $this->store->turn((int) $log->id, $traces);
            $log->turned = array_values(array_merge(array_diff($log->turned, $traces), array_diff($traces, $log->turned)));
            sort($log->turned);
        });

        return Answer::of(['said' => 'Sign reversed; the log is looked at anew.', 'turned' => $log->turned]);
    }

    /** Puts a log away; it can be brought back. */
    #[Route('/craft/{slug}/logs/{id<\d+>}/away', name: 'log_away', methods: ['POST'])]
    public function away(string $slug, int $id): Answer
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $log->putAwayAt = new \DateTimeImmutable();
        $this->entities->flush();

        return Answer::said("$log->code is put away. Sheet 51 brings it back.")->to($this->urls->generate('logs', ['slug' => $slug]));
    }

    #[Route('/craft/{slug}/logs/{id<\d+>}/back', name: 'log_back', methods: ['POST'])]
    public function back(string $slug, int $id): Answer
    {
        $log = $this->book->one($this->crafts->named($slug), $id, true);
        $log->putAwayAt = null;
        $this->entities->flush();

        return Answer::said("$log->code is back.");
    }
}
