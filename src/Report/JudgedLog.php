<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Shell\Input;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/**
 * The log that what is staged is judged by, the same for a sheet and for the tray on it: the one that the page is about, else the newest
 * that has been analysed and says with what it was flown.
 */
final readonly class JudgedLog
{
    public function __construct(private RequestStack $requests, private LogBook $book, private AnalysisStore $analyses)
    {
    }

    public function of(Craft $craft): ?Log
    {
        $asked = $this->asked($craft);
        if (null !== $asked) {
            return $asked;
        }
        foreach ($this->book->of($craft) as $log) {
            if ($this->tells($log)) {
                return $log;
            }
        }

        return null;
    }

    /**
     * What a sheet is about: the one that its address asks for, else the one that is judged by, else the newest.
     *
     * @throws NotFoundHttpException when the one asked for is not this craft's
     */
    public function shown(Craft $craft, int $asked): ?Log
    {
        return 0 === $asked ? $this->of($craft) ?? $this->book->chosen($craft, 0) : $this->book->chosen($craft, $asked);
    }

    private function asked(Craft $craft): ?Log
    {
        $request = $this->requests->getMainRequest();
        $log = $request?->query->all()['log'] ?? null;
        $id = is_numeric($log) ? (int) $log : 0;
        if (null !== $request && 0 === $id && $request->isMethod('POST')) {
            $id = (int) Input::of($request)->text('log', 20);
        }
        try {
            $log = $id > 0 ? $this->book->one($craft, $id) : null;
        } catch (NotFoundHttpException) {
            return null;
        }

        return null !== $log && $this->tells($log) ? $log : null;
    }

    private function tells(Log $log): bool
    {
        return $log->settings->has('gain.roll.p') && $this->analyses->has($log);
    }
}
