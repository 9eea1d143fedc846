<?php

declare(strict_types=1);

namespace Ortholex\App\Workshop\Listing;

use Doctrine\DBAL\Connection;
use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Crafts;
use Ortholex\App\Book\Mark\Marks;
use Ortholex\App\Book\Sheet\Sheets;
use Ortholex\App\Book\Step\NextSteps;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Settings\Airframes;
use Ortholex\App\Storage\Trouble;
use Ortholex\App\Work\JobState;
use Psr\Cache\CacheItemPoolInterface;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Twig\Environment;

/**
 * All craft of the Workshop, as cards. What a craft needs next is reckoned from all that is known of it, which takes milliseconds each: its
 * card is kept as it is drawn until anything is written about that craft, its bench or the shelf changes, or the code does. While work on
 * it runs it is not kept.
 */
final readonly class Cards
{
    /** End of a key under which nothing is kept. */
    private const WORKS = '.works';

    public function __construct(
        private Connection $connection,
        private Crafts $crafts,
        private NextSteps $steps,
        private Marks $marks,
        private LinkService $links,
        private LogBook $book,
        private Airframes $frames,
        private Benches $benches,
        private CacheItemPoolInterface $workshopCache,
        private Trouble $trouble,
        private Sheets $sheets,
        private Environment $twig,
        private string $dataFolder,
    ) {
    }

    /** @return list<Card> in the order in which they came */
    public function all(): array
    {
        $rows = $this->connection->fetchAllAssociative(
            'SELECT c.slug, t.n, EXISTS (SELECT 1 FROM job j WHERE j.craft_id = c.id AND j.state IN (?, ?, ?)) AS works '.
                'FROM craft c LEFT JOIN craft_touch t ON t.craft_id = c.id WHERE c.put_away_at IS NULL ORDER BY c.id',
            [JobState::Queued->value, JobState::Waiting->value, JobState::Running->value],
        );
        $shelf = implode('.', array_map(self::stamp(...), glob("$this->dataFolder/shelf*") ?: []));
        // One taken back from a backup begins to count anew.
        $database = @fileinode("$this->dataFolder/ortholex.sqlite");
        $keys = [];
        foreach ($rows as ['slug' => $slug, 'n' => $n, 'works' => $works]) {
            $slug = \is_string($slug) ? $slug : '';
            $of = [$slug, $n, self::stamp("$this->dataFolder/bench/$slug/world.json"), $shelf, $database];
            $keys[$slug] = 'workshop.'.hash('xxh128', serialize($of)).((bool) $works ? self::WORKS : '');
        }
        $all = [];
        foreach ($keys as $slug => $key) {
            $item = $this->workshopCache->getItem($key);
            $kept = $item->isHit() ? $item->get() : null;
            if (!$kept instanceof Card) {
                try {
                    $kept = $this->drawn($this->summary($this->crafts->named((string) $slug)));
                } catch (ConflictHttpException $e) {
                    $this->trouble->meet($e->getMessage());
                    continue;
                }
                if ([] === $this->trouble->met() && !str_ends_with($key, self::WORKS)) {
                    $this->workshopCache->save($item->set($kept)->expiresAfter(86_400));
                }
            }
            $all[] = $kept;
        }

        return $all;
    }

    private function drawn(CraftSummary $craft): Card
    {
        $with = ['craft' => $craft, 'here' => ['slug' => $craft->slug], 'firsts' => $this->sheets->firsts()];

        return new Card($craft, $this->twig->render('Workshop/_card.html.twig', $with));
    }

    private function summary(Craft $craft): CraftSummary
    {
        $bench = $this->benches->of($craft);
        $state = $bench->state();
        $logs = $this->book->of($craft);

        return new CraftSummary(
            $craft->slug,
            $craft->name,
            $craft->kind,
            $craft->purpose,
            $craft->story,
            $craft->board,
            $craft->inBootloader ? 'bootloader' : trim("$craft->firmware $craft->version"),
            $craft->revision,
            $craft->readAt?->format('Y-m-d') ?? '',
            $this->frames->of($craft),
            $this->steps->of($craft),
            $this->marks->of($craft),
            null !== $bench->frame(),
            $craft->byHand,
            $this->links->isLinked($craft),
            $state->cable,
            $state->pack,
            \count($logs),
            [] === $logs ? '' : $logs[0]->flownAt->format('Y-m-d'),
        );
    }

    /** Another whenever the file is written anew. */
    private static function stamp(string $path): string
    {
        $s = @stat($path);

        return false === $s ? '' : "{$s['ino']}-{$s['mtime']}-{$s['size']}";
    }
}
