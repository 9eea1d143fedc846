<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Doctrine\DBAL\Exception\DriverException;
use Doctrine\ORM\EntityRepository;

/**
 * Finds rows; one of which something cannot be read costs only itself: it is left out, and told.
 *
 * @template T of object
 *
 * @extends EntityRepository<T>
 */
final class SoundRepository extends EntityRepository
{
    public const BROKEN = 'onBrokenRows';

    public function findBy(array $criteria, ?array $orderBy = null, ?int $limit = null, ?int $offset = null): array
    {
        try {
            return parent::findBy($criteria, $orderBy, $limit, $offset);
        } catch (\Throwable $e) {
            return parent::findBy(['id' => $this->sound($criteria, $e)], $orderBy, $limit, $offset);
        }
    }

    public function findOneBy(array $criteria, ?array $orderBy = null): ?object
    {
        try {
            return parent::findOneBy($criteria, $orderBy);
        } catch (\Throwable $e) {
            return parent::findOneBy(['id' => $this->sound($criteria, $e)], $orderBy);
        }
    }

    /**
     * Numbers of the rows that meet the criteria and can be read.
     *
     * @param array<string, mixed> $criteria
     *
     * @return list<int>
     */
    private function sound(array $criteria, \Throwable $e): array
    {
        // What the database itself refuses is no fault of a row.
        $broken = $e instanceof DriverException ? [] : BrokenRows::in($this->getEntityManager(), $this->getClassMetadata());
        if ([] === $broken) {
            throw $e;
        }
        // What was half read is forgotten, or it would be taken for whole the next time.
        foreach (array_keys($broken) as $id) {
            $half = $this->getEntityManager()->getUnitOfWork()->tryGetById($id, $this->getClassMetadata()->rootEntityName);
            if (\is_object($half)) {
                $this->getEntityManager()->detach($half);
            }
        }
        $this->getEntityManager()->getEventManager()->dispatchEvent(self::BROKEN, new BrokenRowsMet(array_values($broken)));
        $query = $this->createQueryBuilder('e')->select('e.id');
        foreach ($criteria as $field => $value) {
            match (true) {
                null === $value => $query->andWhere("e.$field IS NULL"),
                \is_array($value) => $query->andWhere("e.$field IN (:$field)")->setParameter($field, $value),
                default => $query->andWhere("e.$field = :$field")->setParameter($field, $value),
            };
        }
        $ids = array_map(static fn (mixed $id): int => is_numeric($id) ? (int) $id : 0, $query->getQuery()->getSingleColumnResult());

        return array_values(array_diff($ids, array_keys($broken)));
    }
}
