<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Ortholex\App\Book\Craft;

/** A change made on screen, not yet on the craft. */
#[ORM\Entity]
#[ORM\Table(name: 'staged_change')]
#[ORM\UniqueConstraint(columns: ['craft_id', 'name'])]
class StagedChange
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public ?int $id = null;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Craft $craft,
        #[ORM\Column] public readonly string $name,
        #[ORM\Column(type: Types::JSON)] public float|int|bool|string $value,
    ) {
    }
}
