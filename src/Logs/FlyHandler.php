<?php

declare(strict_types=1);

namespace Ortholex\App\Logs;

use Ortholex\App\Link\Benches;
use Ortholex\App\Logs\Import\LogImport;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobCancelled;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;
use Ortholex\App\Work\Jobs;
use Ortholex\Core\Craft\ArmedBy;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Radio\Heard;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Migration\Migration;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\World\FlightEnd;
use Symfony\Component\Yaml\Yaml;

/** Flies a card on the bench with what the board holds, and brings the recorder's file in like any other log. */
final readonly class FlyHandler implements JobHandler
{
    public function __construct(
        private Benches $benches,
        private Catalogue $catalogue,
        private LogImport $import,
        private Jobs $jobs,
        private string $dataFolder,
        private Words $words,
    ) {
    }

    public function kind(): string
    {
        return 'fly';
    }

    public function route(): string
    {
        return 'logs';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $name = \is_string($job->parameters['card'] ?? null) ? $job->parameters['card'] : '';
        $card = Card::tryFrom($name) ?? throw LogError::of("There is no flight card “{$name}”.");
        $seed = \is_int($job->parameters['seed'] ?? null) ? $job->parameters['seed'] : 1;
        $seconds = \is_int($job->parameters['seconds'] ?? null) ? $job->parameters['seconds'] : 40;
        $bench = $this->benches->of($job->craft);
        $aboard = $bench->aboard() ?? throw LogError::of('The board has no whole firmware, so the craft cannot fly. Write it on sheet 12.');
        $settings = Migration::between($this->catalogue, $aboard->settings, $aboard->version, Version::parse(Catalogue::CURRENT))->settings;
        $heard = $bench->heardInFlight();
        if (Heard::Frames !== $heard) {
            throw LogError::of('It would not take off: '.$this->words->of($heard).'. 21 Radio mends it.');
        }
        if ('' === $settings->text(Action::Arm->setting()) && ArmedBy::Stick !== ArmedBy::in($settings)) {
            throw LogError::of('It would not take off: no lever arms it, nor the stick. Map “arm” on 23 Switch map.');
        }
        $folder = "$this->dataFolder/recorder";
        if (!is_dir($folder)) {
            mkdir($folder, 0o775, true);
        }
        $this->sweep($folder);
        $path = "$folder/job-{$job->id}.csv";
        $stream = fopen($path, 'w') ?: throw LogError::of("The recorder's folder $folder cannot be written.");
        $head = Yaml::dump(
            [
                'flight.card' => $card->value,
                'flight.craft' => $job->craft->name,
                'flight.firmware' => 'Loam '.$aboard->version->toString(),
            ] + $settings->toArray(),
        );
        try {
            $flown = $bench->fly(
                $card,
                $seconds,
                $seed,
                $settings,
                $stream,
                $head,
                static function (float $share) use ($progress, $seconds): bool {
                    $progress->at(0.6 * $share, \sprintf('in the air, %.0f of %d s', $share * $seconds, $seconds));

                    return true;
                },
            );
            fclose($stream);
            if (FlightEnd::Stopped === $flown) {
                throw new JobCancelled('The flight was called back; no log was kept.');
            }
            $crashed = FlightEnd::Crashed === $flown;
            $log = $this->import->import(
                $job->craft,
                $path,
                $this->words->of($card).($crashed ? ', ended on the ground' : ''),
                $progress,
                0.6,
            );
        } finally {
            @unlink($path);
        }

        return ['log' => $log->id, 'code' => $log->code, 'crashed' => $crashed];
    }

    /** A flight whose process was killed leaves its recording behind. */
    private function sweep(string $folder): void
    {
        foreach (glob("$folder/job-*.csv") ?: [] as $left) {
            $job = $this->jobs->find((int) substr(basename($left, '.csv'), 4));
            if (null === $job || !$job->isOpen()) {
                @unlink($left);
            }
        }
    }
}
