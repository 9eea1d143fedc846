<?php

declare(strict_types=1);

namespace Ortholex\App\Craft;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/** Finds craft. */
final readonly class Crafts
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<Craft> */
    public function all(): array
    {
        return $this->entities->getRepository(Craft::class)->findBy([], ['id' => 'ASC']);
    }

    /** @throws NotFoundHttpException */
    public function named(string $slug): Craft
    {
        return $this->entities->getRepository(Craft::class)->findOneBy(['slug' => $slug]) ?? throw new NotFoundHttpException("There is no craft “{$slug}” in the Workshop.");
    }
}
