<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Shell\Input;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Step\Confidence\Grade;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/**
 * The log that what is staged is judged by, the same for a sheet and for the tray on it: the one that the page is about, else the one
 * that can be believed most of those that were analysed and say with what they were flown.
 */
final readonly class JudgedLog
{
    /** So many of the newest are looked at. */
    private const LOOKED_BACK = 12;

    public function __construct(
        private RequestStack $requests,
        private LogBook $book,
        private AnalysisStore $analyses,
        private WorkedOut $workedOut,
    ) {
    }

    public function of(Craft $craft): ?Log
    {
        $asked = $this->asked($craft);
        if (null !== $asked) {
            return $asked;
        }

        return $this->best($craft);
    }

    /**
     * The log that can be believed most: of those flown as the craft stands, else of all; by how far its steps can be believed, and of
     * equals the newest.
     */
    public function best(Craft $craft): ?Log
    {
        $best = null;
        foreach (\array_slice($this->book->of($craft), 0, self::LOOKED_BACK) as $age => $log) {
            if (!$this->tells($log)) {
                continue;
            }
            $rank = [$this->isAsItStands($craft, $log) ? 1 : 0, $this->grade($log), -$age];
            if (null === $best || $rank > $best[0]) {
                $best = [$rank, $log];
            }
        }

        return $best[1] ?? null;
    }

    private function isAsItStands(Craft $craft, Log $log): bool
    {
        $isLoop = static fn (string $name): bool => 1 === preg_match('~^(gain|rate_path|d_path|notch)\.~', $name);

        return $craft->settings->where($isLoop)->among($log->settings)->toArray()
            == $log->settings->where($isLoop)->among($craft->settings)->toArray();
    }

    /** Of roll and pitch together; 0 to 6. */
    private function grade(Log $log): int
    {
        return $this->workedOut->once('grade', [FlightAnalysis::VERSION, $this->analyses->name($log)], function () use ($log): int {
            $sum = 0;
            foreach (['roll', 'pitch'] as $axis) {
                $sum += match (($this->analyses->report($log)->steps[$axis] ?? null)?->confidence->grade) {
                    Grade::Firm => 3,
                    Grade::Fair => 2,
                    Grade::Weak => 1,
                    default => 0,
                };
            }

            return $sum;
        });
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
