<?php

declare(strict_types=1);

namespace Ortholex\App\Tune;

use Ortholex\App\Craft\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\Core\Control\RateFilters;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Migration\Migration;

/** The filter chains that a craft's settings describe, with its motor notches where a flight had its motors. */
final readonly class Chains
{
    public function __construct(private Catalogue $catalogue, private AnalysisStore $analyses, private LogBook $book)
    {
    }

    /**
     * The same under current names.
     *
     * @param SettingSet $settings of the craft's own firmware
     */
    public function current(Craft $craft, SettingSet $settings): SettingSet
    {
        return Migration::between($this->catalogue, $settings, $craft->version(), Version::parse(Catalogue::CURRENT))->settings;
    }

    /**
     * @param SettingSet  $current settings under current names
     * @param list<float> $rotorHz
     */
    public function filters(SettingSet $current, array $rotorHz): RateFilters
    {
        return RateFilters::of($current, $current->loopHz(), $rotorHz);
    }

    /** The newest log that has been analysed and says with what it was flown. */
    public function newest(Craft $craft): ?Log
    {
        foreach ($this->book->of($craft) as $log) {
            if ($log->settings->has('gain.roll.p') && $this->analyses->has($log)) {
                return $log;
            }
        }

        return null;
    }

    /** @return list<float> mean rotor speeds of a log; of the newest when none is given, empty when there is none */
    public function rotorHz(Craft $craft, ?Log $log = null): array
    {
        $log ??= $this->book->chosen($craft, 0);

        return null === $log || !$this->analyses->has($log) ? [] : $this->analyses->charts($log)->rotorHz;
    }
}
