<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Craft\Craft;
use Ortholex\App\Craft\Worlds;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Shell\SheetController;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Jobs;
use Ortholex\Bench\Flight\FlightCard;
use Ortholex\Bench\Power\Mode;
use Ortholex\Core\FlightLog\LogWriter;
use Ortholex\Core\LogCheck\Card;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final class LogsController extends SheetController
{
    public function __construct(
        private readonly LogBook $book,
        private readonly LogStore $store,
        private readonly Jobs $jobs,
        private readonly Worlds $worlds,
        private readonly EntityManagerInterface $entities,
        private readonly int $mostUploadMb,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/51', name: 'logs', methods: ['GET'])]
    public function sheet(string $slug): Response
    {
        $craft = $this->crafts->named($slug);
        $whyNot = $this->whyNotFly($craft);
        $cards = [];
        foreach (Card::cases() as $card) {
            $sticks = ['roll' => [], 'pitch' => [], 'throttle' => []];
            foreach (FlightCard::fly($card, 40, 3, 0.4, 11)->frames as $f) {
                $sticks['roll'][] = round($f[0], 2);
                $sticks['pitch'][] = round($f[1], 2);
                $sticks['throttle'][] = round($f[3], 2);
            }
            $cards[] = [
                'id' => $card->value,
                'name' => $this->words->of($card),
                'for' => $this->words->purpose($card),
                'sticks' => $sticks,
            ];
        }

        return $this->show(
            $craft,
            '51',
            'Logs/logs.html.twig',
            new LogsView(
                $this->book->rows($craft),
                $cards,
                '' === $whyNot,
                $whyNot,
                $this->mostUploadMb,
                $this->book->away($craft),
                $this->book->plan($craft),
                $craft->settings,
            ),
        );
    }

    #[Route('/craft/{slug}/logs/fly', name: 'fly', methods: ['POST'])]
    public function fly(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $name = Input::of($request)->text('card', 40);
        $card = Card::tryFrom($name) ?? throw BadRequest::at('card', "There is no flight card “{$name}”.");
        $whyNot = $this->whyNotFly($craft);
        if ('' !== $whyNot) {
            throw BadRequest::at('card', $whyNot);
        }
        // Each flight has weather and hands of its own, and can still be flown again exactly.
        $seed = 1000 + (int) $this->entities->getRepository(Log::class)->count(['craft' => $craft]);
        $job = $this->jobs->start($craft, 'fly', 'Fly '.$this->words->of($card), [
            'card' => $card->value,
            'seed' => $seed,
            'seconds' => 40,
        ]);

        return new JsonResponse(['job' => $job->id]);
    }

    #[Route('/craft/{slug}/logs/{id<\d+>}.csv', name: 'log_csv', methods: ['GET'])]
    public function csv(string $slug, int $id): StreamedResponse
    {
        $log = $this->book->one($this->crafts->named($slug), $id);

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

    private function whyNotFly(Craft $craft): string
    {
        $state = $this->worlds->of($craft)->store->peek();

        return match (true) {
            !$craft->isKnown() => 'Link the craft once first, on sheet 11.',
            !$state->pack => 'The pack is not connected. Switch it on at the bench strip.',
            !$state->props => 'The props are off. Fit them at the bench strip.',
            !$state->transmitter => 'The transmitter is off. Switch it on at the bench strip.',
            !$state->outdoors => 'The craft is indoors. Carry it outdoors at the bench strip.',
            Mode::Bootloader === $state->mode => 'The board has no whole firmware. Write it on sheet 12.',
            default => '',
        };
    }
}
