<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Import;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\HeadSettings;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\FlightLog\LogStored;
use Ortholex\App\Report\AnalysisStore;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobProgress;
use Ortholex\App\Work\JobState;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Reading\LogPlan;
use Ortholex\Core\FlightLog\Segment;
use Ortholex\Core\FlightLog\TimeFault;
use Ortholex\Core\Recorder\LogFile;
use Ortholex\Core\Recorder\RecordingError;
use Ortholex\Core\Together\Together;
use Symfony\Contracts\EventDispatcher\EventDispatcherInterface;

/** The one road by which logs come in: reader, columns, store, analysis. All of a log is stored, or nothing. */
final readonly class LogImport
{
    public function __construct(
        private EntityManagerInterface $entities,
        private LogStore $store,
        private EventDispatcherInterface $events,
        private ColumnMaps $maps,
        private AnalysisStore $analyses,
        private Together $together,
    ) {
    }

    /**
     * @param KeptLog|null $as what it was called and when it was flown, where a book has it so
     * @param string   $recording which it is on the craft's recorder; '' for a file from disk
     * @param Log|null $instead a log of the same file whose columns were matched otherwise: it is put away, with its way back
     *
     * @throws LogError|RecordingError when the file is no log; nothing is stored then
     */
    public function import(
        Craft $craft,
        string $path,
        string $title,
        JobProgress $progress,
        float $from = 0.0,
        ?Log $instead = null,
        string $recording = '',
        ?KeptLog $as = null,
    ): Log {
        $share = static fn (float $s): float => $from + (1 - $from) * $s;
        $hash = $instead->sha256 ?? (string) hash_file('sha256', $path);
        $known = $this->entities->getRepository(Log::class)->findOneBy(['craft' => $craft, 'sha256' => $hash], ['id' => 'DESC']);
        if (null !== $known && ($this->wasInterrupted($known) || !$this->analyses->has($known))) {
            // It had come in before its process ended, or the disk was full; what was left is to look at it.
            $progress->have(['log' => $known->id, 'code' => $known->code]);
            $progress->at($share(0.7), "looking at {$known->code}");
            $this->events->dispatch(new LogStored($known));
            $progress->at(1.0, 'done');

            return $known;
        }
        if (null !== $known && null === $instead) {
            throw LogError::of(
                "This very log is already here as {$known->code}.".
                    (null === $known->putAwayAt ? '' : ' It was put away; sheet 51 brings it back.'),
            );
        }
        $flight = LogFile::read(
            $path,
            fn (): LogPlan => $this->maps->plan($path),
            static fn (float $read) => $progress->at($share(0.45 * $read), \sprintf('reading, %.0f %%', 100 * $read)),
            $this->together,
        );
        $progress->at($share(0.46), 'storing the traces');
        $last = $this->entities
            ->createQuery('SELECT MAX(l.code) FROM '.Log::class.' l WHERE l.craft = :c')
            ->setParameter('c', $craft)
            ->getSingleScalarResult();
        $number = \is_string($last) ? (int) substr($last, 2) + 1 : 1;
        $log = new Log(
            $craft,
            $as->code ?? \sprintf('%s-%04d', strtoupper($craft->slug[0]), $number),
            $title,
            $hash,
            $as->flownAt ?? $instead->flownAt ?? new \DateTimeImmutable(),
            $flight->clock->durationS(),
            $flight->clock->rateHz,
            $flight->clock->samples,
            $flight->names(),
            array_map(
                static fn (Segment $s): array => ['first' => $s->first, 'count' => $s->count, 'start_s' => $s->startS],
                $flight->clock->segments,
            ),
            array_map(
                static fn (TimeFault $f): array => [
                    'kind' => $f->kind->value,
                    'at_s' => $f->atS,
                    'length_s' => $f->lengthS,
                    'row' => $f->row,
                ],
                \array_slice($flight->clock->faults, 0, 200),
            ),
            $flight->badRows->toArray(),
            $flight->settings,
            HeadSettings::of($flight->settings),
            $flight->leftOut,
        );
        $log->recording = $recording;
        $this->entities->wrapInTransaction(function () use ($log, $flight, $instead, $as): void {
            if (null !== $instead) {
                [$log->note, $log->tags, $log->parts] = [$instead->note, $instead->tags, $instead->parts];
                $instead->putAwayAt = new \DateTimeImmutable();
            }
            $as?->giveTo($log);
            $this->entities->persist($log);
            $this->entities->flush();
            $this->store->save((int) $log->id, $flight);
        });
        unset($flight);
        // From here on the traces can be looked at; the page is told before the analysis is there.
        $progress->have(['log' => $log->id, 'code' => $log->code]);
        $progress->at($share(0.7), "looking at {$log->code}; its traces can be seen already");
        $this->events->dispatch(new LogStored($log));
        $progress->at(1.0, 'done');

        return $log;
    }

    private function wasInterrupted(Log $log): bool
    {
        foreach ($this->entities->getRepository(Job::class)->findBy(['craft' => $log->craft, 'state' => JobState::Interrupted]) as $job) {
            if (($job->result['log'] ?? null) === $log->id) {
                return true;
            }
        }

        return false;
    }
}
