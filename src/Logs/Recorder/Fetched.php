<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Recorder;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Link\Benches;
use Ortholex\App\Logs\Import\LogImport;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\JobProgress;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\Recorder\RecorderClient;
use Ortholex\Core\Link\Recorder\RecordFetch;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Recorder\LogFile;
use Ortholex\Core\Recorder\RecordingError;
use Symfony\Component\Yaml\Exception\ParseException;
use Symfony\Component\Yaml\Yaml;

/** Brings a recording from a board into the book: over the link into a file, held against the board, then the road of all logs. */
final readonly class Fetched
{
    /** Of the whole, fetching takes this share; reading and looking at it the rest. */
    private const FETCHING = 0.45;

    public function __construct(
        private Benches $benches,
        private LogImport $import,
        private RecorderLogs $logs,
        private Words $words,
        private string $dataFolder,
    ) {
    }

    /**
     * @param string $also what is to be said of the flight besides its card
     * @param float  $from the share that is done already
     *
     * @throws LinkError               when the cable is pulled: what came stays, and is gone on with
     * @throws RecordingError|LogError
     */
    public function bring(Craft $craft, int $number, JobProgress $progress, float $from = 0.0, string $also = ''): Log
    {
        $recorder = new RecorderClient($this->benches->client($craft));
        $bytes = $recorder->about()->recordings[$number]
            ?? throw LogError::of("There is no recording $number on the recorder any more. Look at sheet 51 again.");
        $known = $this->logs->of($craft, $number, $bytes);
        if (null !== $known) {
            return $known;
        }
        $path = $this->path($craft, $number);
        $share = static fn (float $s): float => $from + (1 - $from) * self::FETCHING * $s;
        (new RecordFetch($recorder))->into($path, $number, $bytes, static function (float $s) use ($progress, $share, $bytes): void {
            $progress->at($share($s), \sprintf('fetching, %.1f of %.1f MB', $s * $bytes / 1e6, $bytes / 1e6));
        });
        $title = $this->title($path, $number).$also;
        $log = $this->import->import($craft, $path, $title, $progress, $share(1.0), recording: RecorderLogs::key($number, $bytes));
        @unlink($path);

        return $log;
    }

    private function path(Craft $craft, int $number): string
    {
        $folder = "$this->dataFolder/recorder";
        if (!is_dir($folder) && !@mkdir($folder, 0o775, true) && !is_dir($folder)) {
            throw RecordingError::notWritten($folder);
        }

        return "$folder/$craft->slug-$number.rec";
    }

    /** The card that it was flown to, as its head says. */
    private function title(string $path, int $number): string
    {
        try {
            $head = Yaml::parse(LogFile::recording($path)->log->settings);
        } catch (ParseException) {
            $head = null;
        }
        $card = \is_array($head) && \is_string($head['flight.card'] ?? null) ? Card::tryFrom($head['flight.card']) : null;

        return null === $card ? "Recording $number" : $this->words->of($card);
    }
}
