<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Recorder;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\Core\Craft\RecorderTarget;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\Recorder\RecorderClient;
use Ortholex\Core\Link\Recorder\RecorderState;
use Ortholex\Core\Switches\Action;

/** The recorder of a craft, asked while it is linked. */
final readonly class Recorders
{
    /** Traces of a log, where this craft has none yet that would tell. */
    private const TRACES = 40;

    public function __construct(
        private LinkService $links,
        private Benches $benches,
        private RecorderLogs $logs,
        private LogBook $book,
    ) {
    }

    /** Null while the craft is not linked, or does not answer; a board without memory answers with 0 bytes. */
    public function of(Craft $craft): ?RecorderView
    {
        if (!$this->links->isLinked($craft) || $craft->inBootloader) {
            return null;
        }
        try {
            $state = $this->client($craft)->about();
        } catch (LinkError $e) {
            if (!$e->refused) {
                return null;
            }
            $state = new RecorderState(0, 0, 0.0, []);
        }
        $settings = $craft->settings;
        $traces = \count($this->book->of($craft)[0]->traces ?? []) ?: self::TRACES;
        $there = [];
        foreach ($this->logs->all($craft, $state->recordings) as $number => $log) {
            $there[] = ['number' => $number, 'bytes' => $state->recordings[$number], 'log' => $log];
        }
        $rate = $settings->number('recorder.rate_hz', 2000);

        return new RecorderView(
            (string) $craft->board,
            $state->bytes,
            $state->free,
            $there,
            $state->secondsLeft($traces, $rate),
            $traces,
            $settings->text('recorder.rate_hz', '2000'),
            $state->busyS,
            RecorderTarget::BoardMemory->value === $settings->text('recorder.writes_to', RecorderTarget::BoardMemory->value),
            '' !== $settings->text(Action::Record->setting()),
        );
    }

    public function client(Craft $craft): RecorderClient
    {
        return new RecorderClient($this->benches->client($craft));
    }
}
