<?php

declare(strict_types=1);

namespace Ortholex\App\Logs\Import;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Share\BookPart;
use Ortholex\App\Book\Share\BookReader;
use Ortholex\App\Book\Share\BookWriter;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\FlightLog\Passage;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\JobProgress;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\LogWriter;
use Ortholex\Core\Pack\PackCard;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;

/** logs/CODE.csv with its samples, logs/CODE.yaml with what else is known of it. */
#[AsTaggedItem(priority: 50)]
final readonly class LogsOfBook implements BookPart
{
    private const FOLDER = 'logs';

    /** Lines of a log's head that tell where on earth it was flown, and with whose craft. */
    private const WHERE = '~^flight\.origin_(?:lat|lon)_deg:.*\n?~m';

    private const WHOSE = '~^flight\.craft:.*\n?~m';

    /** What its head says of the flight itself is no setting. */
    private const OF_FLIGHT = 'flight.';

    public function __construct(
        private EntityManagerInterface $entities,
        private LogStore $store,
        private LogImport $import,
        private Words $words,
    ) {
    }

    public function isLong(): bool
    {
        return true;
    }

    public function write(Craft $craft, BookWriter $book): void
    {
        if (!$book->choice->logs) {
            return;
        }
        foreach ($this->entities->getRepository(Log::class)->findBy(['craft' => $craft], ['code' => 'ASC', 'id' => 'ASC']) as $log) {
            $passages = [];
            foreach ($this->entities->getRepository(Passage::class)->findBy(['log' => $log], ['id' => 'ASC']) as $i => $passage) {
                $name = $book->choice->names ? $passage->name : 'passage '.($i + 1);
                $passages[] = ['name' => $name, 'from_s' => $passage->fromS, 'to_s' => $passage->toS];
            }
            $settings = $log->settings->where(static fn (string $n): bool => !str_starts_with($n, self::OF_FLIGHT))->toArray();
            $book->yaml(
                self::FOLDER."/$log->code.yaml",
                KeptLog::write($log, $book->choice->names) + [
                    'pack' => self::packOf($craft, $log),
                    'passages' => $passages,
                    'settings' => $settings,
                ],
            );
            $book->stream(self::FOLDER."/$log->code.csv", function ($stream) use ($log, $book): void {
                $flight = $this->store->load($log);
                $head = (string) preg_replace(
                    [...($book->choice->home ? [] : [self::WHERE]), ...($book->choice->names ? [] : [self::WHOSE])],
                    '',
                    $flight->settings,
                );
                LogWriter::write($flight, $stream, head: $head);
            });
        }
    }

    public function read(Craft $craft, BookReader $book): void
    {
        $logs = array_values(array_filter($book->names(self::FOLDER), static fn (string $n): bool => str_ends_with($n, '.csv')));
        foreach ($logs as $i => $name) {
            $book->tell($i / \count($logs), 'log '.($i + 1).' of '.\count($logs));
            $about = substr($name, 0, -4).'.yaml';
            $is = $book->yaml($about);
            $as = null === $is ? null : $book->reading($about, static fn (): KeptLog => KeptLog::of($is));
            $path = $book->file($name);
            if (null === $path) {
                continue;
            }
            $progress = JobProgress::toNobody($this->entities->getConnection());
            try {
                $log = $this->import->import($craft, $path, $as->title ?? basename($name), $progress, as: $as);
                $book->took('logs');
                if (null !== $is) {
                    $book->reading($about, fn () => $this->passages($log, $is));
                }
                $pack = $is?->all()['pack'] ?? null;
                $this->putDown($craft, $log, \is_int($pack) ? $pack : null);
            } catch (LogError $e) {
                $book->refuse($name, $this->words->ofProblem($e));
            } finally {
                @unlink($path);
            }
        }
    }

    /** @return int|null which of the craft's packs it was flown with, from 1 */
    private static function packOf(Craft $craft, Log $log): ?int
    {
        foreach (array_values($craft->packs) as $i => $kept) {
            if (\in_array($log->id, PackCard::fromArray($kept)->logs, true)) {
                return $i + 1;
            }
        }

        return null;
    }

    /** It was taken in just now, and so put down to the pack in use: what the book says of it stands. */
    private function putDown(Craft $craft, Log $log, ?int $pack): void
    {
        $cards = array_map(PackCard::fromArray(...), array_values($craft->packs));
        foreach ($cards as $i => $card) {
            $card = $card->notFlownIn((int) $log->id);
            $cards[$i] = $i + 1 === $pack ? $card->flownIn((int) $log->id) : $card;
        }
        $craft->packs = array_map(static fn (PackCard $c): array => $c->toArray(), $cards);
        $this->entities->flush();
    }

    private function passages(Log $log, Stored $is): void
    {
        foreach ($is->rows('passages') as $row) {
            $from = max(0.0, min($log->durationS, $row->number('from_s')));
            $to = max($from, min($log->durationS, $row->number('to_s')));
            $this->entities->persist(new Passage($log, mb_substr($row->text('name'), 0, 80), $from, $to));
        }
        $this->entities->flush();
    }
}
