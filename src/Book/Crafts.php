<?php

declare(strict_types=1);

namespace Ortholex\App\Book;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Lock\LockFactory;
use Symfony\Component\String\Slugger\AsciiSlugger;

/** Finds craft. */
final readonly class Crafts
{
    private const LONGEST_SLUG = 32;

    public function __construct(private EntityManagerInterface $entities, private LockFactory $locks)
    {
    }

    /** @return list<Craft> in the Workshop */
    public function all(): array
    {
        return $this->entities->getRepository(Craft::class)->findBy(['putAwayAt' => null], ['id' => 'ASC']);
    }

    /** @return list<Craft> what was put away last first */
    public function away(): array
    {
        $away = 'SELECT c FROM '.Craft::class.' c WHERE c.putAwayAt IS NOT NULL ORDER BY c.putAwayAt DESC, c.id DESC';
        $query = $this->entities->createQuery($away);

        /** @var list<Craft> */
        return $query->getResult();
    }

    /**
     * Who makes a craft has the names to himself meanwhile: two at once would take the same.
     *
     * @template T
     *
     * @param \Closure(): T $make
     *
     * @return T
     */
    public function making(\Closure $make): mixed
    {
        $lock = $this->locks->createLock('making-craft');
        $lock->acquire(true);
        try {
            return $make();
        } finally {
            $lock->release();
        }
    }

    /** This name, with a number where another craft has it already. */
    public function freeName(string $name): string
    {
        $name = '' === $name ? 'Craft' : $name;
        $taken = array_map(static fn (Craft $c): string => mb_strtolower($c->name), [...$this->all(), ...$this->away()]);
        $free = $name;
        for ($n = 2; \in_array(mb_strtolower($free), $taken, true); ++$n) {
            $free = "$name $n";
        }

        return $free;
    }

    /** A short name for addresses that none has yet. */
    public function freeSlug(string $name): string
    {
        $plain = (new AsciiSlugger())->slug($name)->lower()->truncate(self::LONGEST_SLUG)->trim('-')->toString();
        $plain = '' === $plain ? 'craft' : $plain;
        $slug = $plain;
        for ($n = 2; null !== $this->entities->getRepository(Craft::class)->findOneBy(['slug' => $slug]); ++$n) {
            $slug = "$plain-$n";
        }

        return $slug;
    }

    /**
     * What a list of all craft shows, without their settings.
     *
     * @return list<array{slug: string, name: string, kind: string}>
     */
    public function listed(): array
    {
        /** @var list<array{slug: string, name: string, kind: string}> */
        return $this->entities
            ->getConnection()
            ->fetchAllAssociative('SELECT slug, name, kind FROM craft WHERE put_away_at IS NULL ORDER BY id');
    }

    /**
     * A copy to look at, not managed and without its settings, for the live view that is asked for twice a second:
     * one plain query instead of the whole mapping (measured: 1.3 ms less).
     *
     * @throws NotFoundHttpException
     */
    public function glance(string $slug): Craft
    {
        $row = $this->entities
            ->getConnection()
            ->fetchAssociative(
                'SELECT id, name, board, firmware, version, linked_since, escs_since, in_bootloader FROM craft WHERE slug = ?',
                [$slug],
            );
        if (false === $row) {
            throw new NotFoundHttpException("There is no craft “{$slug}” in the Workshop.");
        }
        $text = static fn (string $key): ?string => \is_string($row[$key]) ? $row[$key] : null;
        $craft = new Craft($slug, $text('name') ?? '', '', '', '', []);
        $craft->id = is_numeric($row['id']) ? (int) $row['id'] : null;
        $craft->board = $text('board');
        $craft->firmware = $text('firmware');
        $craft->version = $text('version');
        $craft->linkedSince = is_numeric($row['linked_since']) ? (int) $row['linked_since'] : null;
        $craft->escsSince = is_numeric($row['escs_since']) ? (int) $row['escs_since'] : null;
        $craft->inBootloader = (bool) $row['in_bootloader'];

        return $craft;
    }

    /**
     * @throws NotFoundHttpException
     * @throws ConflictHttpException where it is there, and cannot be read
     */
    public function named(string $slug): Craft
    {
        $craft = $this->entities->getRepository(Craft::class)->findOneBy(['slug' => $slug]);
        if (null === $craft) {
            $name = $this->glance($slug)->name;
            throw new ConflictHttpException(
                "What the book says of $name cannot be read, and is left as it is. Bring in its book file, or a backup of the data folder.",
            );
        }

        return $craft;
    }
}
