<?php

declare(strict_types=1);

namespace Ortholex\App\Series;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Share\BookPart;
use Ortholex\App\Book\Share\BookReader;
use Ortholex\App\Book\Share\BookWriter;
use Ortholex\App\FlightLog\Log;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\LogCheck\Card;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;

/** series.yaml: what was varied in steps; its flights tell themselves which step they are. */
#[AsTaggedItem(priority: 40)]
final readonly class SeriesOfBook implements BookPart
{
    private const FILE = 'series.yaml';

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function isLong(): bool
    {
        return true;
    }

    public function write(Craft $craft, BookWriter $book): void
    {
        $code = fn (int $id): ?string => $this->entities->find(Log::class, $id)?->code;
        $all = [];
        foreach ($this->entities->getRepository(Series::class)->findBy(['craft' => $craft], ['id' => 'ASC']) as $series) {
            $all[] = [
                'settings' => $series->settings,
                'steps' => $series->steps,
                'baseline' => $series->baseline,
                'card' => $series->card->value,
                'part' => $series->part,
                'variants' => $series->variants,
                'began' => $series->beganAt->format(\DATE_ATOM),
                'ended' => $series->endedAt?->format(\DATE_ATOM),
                'hot' => array_values(array_filter(array_map($code, $series->hot))),
                'base' => $series->base->toArray(),
            ];
        }
        $book->yaml(self::FILE, ['series' => $all]);
    }

    public function read(Craft $craft, BookReader $book): void
    {
        $is = $book->yaml(self::FILE);
        $rows = null === $is ? null : $book->reading(self::FILE, static fn (): array => $is->rows('series'));
        foreach ($rows ?? [] as $row) {
            $book->reading(self::FILE, function () use ($craft, $row, $book): void {
                $this->entities->persist($this->series($craft, $row));
                $book->took('series');
            });
        }
        $this->entities->flush();
    }

    private function series(Craft $craft, Stored $is): Series
    {
        $base = array_filter($is->map('base'), \is_scalar(...));
        $named = [];
        foreach ($base as $name => $value) {
            $named[(string) $name] = $value;
        }
        $series = new Series(
            $craft,
            $is->texts('settings'),
            $is->numbers('steps'),
            $is->number('baseline'),
            $is->choice('card', Card::class),
            SettingSet::of($named),
            $is->time('began'),
        );
        $series->endedAt = $is->optionalTime('ended');
        [$series->part, $series->variants] = [mb_substr($is->text('part'), 0, 40), $is->texts('variants')];
        foreach ($is->texts('hot') as $code) {
            $log = $this->entities->getRepository(Log::class)->findOneBy(['craft' => $craft, 'code' => $code]);
            if (null !== $log?->id) {
                $series->hot[] = $log->id;
            }
        }

        return $series;
    }
}
