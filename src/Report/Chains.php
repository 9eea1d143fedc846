<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;

/** The filter chains that a craft's settings describe, with its motor notches where a flight had its motors. */
final readonly class Chains
{
    public function __construct(private AnalysisStore $analyses, private LogBook $book, private WorkedOut $workedOut)
    {
    }

    /**
     * @param SettingSet  $current settings under current names
     * @param list<float> $rotorHz
     */
    public function filters(SettingSet $current, array $rotorHz): RateFilters
    {
        return RateFilters::of($current, $current->loopHz(), $rotorHz);
    }

    /** @return list<float> mean rotor speeds of a log; of the newest when none is given, empty when there is none */
    public function rotorHz(Craft $craft, ?Log $log = null): array
    {
        $log ??= $this->book->chosen($craft, 0);

        return null === $log || !$this->analyses->has($log)
            ? []
            : $this->workedOut->once('rotors', [$this->analyses->name($log)], fn (): array => $this->analyses->charts($log)->rotorHz);
    }
}
