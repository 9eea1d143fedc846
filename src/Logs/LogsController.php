<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\Link\Benches;
use Ortholex\App\Logs\Recorder\Recorders;
use Ortholex\App\Page\SheetController;
use Ortholex\App\RoadMap\FlightReady;
use Ortholex\App\RoadMap\FlownLogs;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\FlightLog\LogWriter;
use Ortholex\Core\LogCheck\Card;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class LogsController extends SheetController
{
    /** So many are listed; all of them when asked. */
    private const NEWEST = 60;

    public function __construct(
        private readonly LogBook $book,
        private readonly FlownLogs $flown,
        private readonly LogRows $rows,
        private readonly LogStore $store,
        private readonly Jobs $jobs,
        private readonly Staging $staging,
        private readonly FlightReady $ready,
        private readonly Benches $benches,
        private readonly Recorders $recorders,
        private readonly int $mostUploadMb,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/51', name: 'logs', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $whyNot = $this->ready->whyNot($craft);
        $bench = $this->benches->of($craft);
        $cards = array_map(static fn (Card $c): CardView => CardView::of($c, $bench->sticks($c, $c->seconds(), 3)), Card::cases());
        $plan = $this->flown->plan($craft);
        $staged = $this->staging->of($craft);
        $logs = $this->book->of($craft);

        return $this->show(
            $craft,
            '51',
            'Logs/logs.html.twig',
            new LogsView(
                $this->rows->of($logs, Input::query($request)->flag('all') ? \PHP_INT_MAX : self::NEWEST),
                \count($logs),
                $cards,
                '' === $whyNot,
                $whyNot,
                $this->mostUploadMb,
                $this->book->away($craft),
                $plan,
                SettingSet::of($plan->change)->where(static fn (string $name): bool => !$staged->has($name)),
                $craft->settings,
                $this->recorders->of($craft),
            ),
        );
    }

    #[Route('/craft/{slug}/logs/fly', name: 'fly', methods: ['POST'])]
    public function fly(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $name = Input::of($request)->text('card', 40);
        $card = Card::tryFrom($name) ?? throw BadRequest::at('card', "There is no flight card “{$name}”.");
        $whyNot = $this->ready->whyNot($craft);
        if ('' !== $whyNot) {
            throw BadRequest::at('card', $whyNot);
        }
        // Each flight has weather and hands of its own, and can still be flown again exactly.
        $seed = 1000 + $this->book->countAll($craft);
        $job = $this->jobs->start($craft, 'fly', 'Fly '.$this->words->of($card), [
            'card' => $card->value,
            'seed' => $seed,
            'seconds' => $card->seconds(),
        ]);

        return Answer::of(['job' => $job->id]);
    }

    #[Route('/craft/{slug}/logs/{id<\d+>}.csv', name: 'log_csv', methods: ['GET'])]
    public function csv(string $slug, int $id): StreamedResponse
    {
        $log = $this->book->one($this->crafts->named($slug), $id);
        $this->store->demandWhole($log);

        return new StreamedResponse(
            function () use ($log): void {
                $out = fopen('php://output', 'w');
                if (false !== $out) {
                    LogWriter::write($this->store->load($log), $out);
                    fclose($out);
                }
            },
            200,
            [
                'Content-Type' => 'text/csv; charset=utf-8',
                'Content-Disposition' => HeaderUtils::makeDisposition('attachment', "$log->code.csv"),
            ],
        );
    }
}
