<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Mark\PartMark;
use Ortholex\App\Book\Mark\Point;
use Ortholex\App\Book\Mark\PointState;
use Ortholex\App\Book\Search\HitKind;
use Ortholex\App\Book\Search\SearchHit;
use Ortholex\App\Book\Search\SearchSource;
use Ortholex\App\Book\Sheet\Part;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use Ortholex\App\FlightLog\LogBook;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** What the book knows through sheet 51: logs to be found, and that one should fly. */
final readonly class LogsInBook implements NextStepSource, PartMark, SearchSource
{
    public function __construct(private LogBook $book, private UrlGeneratorInterface $urls)
    {
    }

    public function part(): Part
    {
        return Part::Flights;
    }

    public function points(Craft $craft): iterable
    {
        $logs = $this->book->count($craft);
        $to = $this->urls->generate('logs', ['slug' => $craft->slug]);
        yield new Point(0 === $logs ? 'a first flight' : 'logs', PointState::done($logs > 0), $to, 0 === $logs ? null : $logs);
    }

    public function steps(Craft $craft): iterable
    {
        if (!$craft->isKnown()) {
            return;
        }
        $to = $this->urls->generate('logs', ['slug' => $craft->slug]);
        yield 0 === $this->book->count($craft)
            ? new NextStep(Urgency::Better, 'Fly a first card, so that there is a log to learn from.', $to, 'Fly')
            : new NextStep(Urgency::Idle, 'Nothing is urgent. Fly, and read the log.', $to, 'Fly');
    }

    public function hits(Craft $craft): iterable
    {
        $to = $this->urls->generate('logs', ['slug' => $craft->slug]);
        yield new SearchHit(HitKind::Action, 'Fly a card', 'Mixed sticks, Hover and climb, Flip set, Cruise', $to);
        yield new SearchHit(HitKind::Action, 'Bring in a log', 'a CSV from disk', $to);
        foreach ($this->book->of($craft) as $log) {
            $to = $this->urls->generate('traces', ['slug' => $craft->slug, 'log' => $log->id]);
            yield new SearchHit(HitKind::Log, "$log->code $log->title", $log->note, $to);
        }
    }
}
