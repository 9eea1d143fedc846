<?php

declare(strict_types=1);

namespace Ortholex\App\Motors;

use Doctrine\ORM\Mapping as ORM;
use Ortholex\App\Book\Craft;

/** What the builder saw when one output was spun. */
#[ORM\Entity]
#[ORM\Table(name: 'shown_spin')]
#[ORM\UniqueConstraint(columns: ['craft_id', 'pad'])]
class ShownSpin
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public ?int $id = null;

    #[ORM\Column]
    public string $place = '';

    /** +1 clockwise from above, −1 counter-clockwise, 0 while it was not said */
    #[ORM\Column]
    public int $direction = 1;

    /** @var array<string, string> pad map and directions on the craft when it was seen, by setting */
    #[ORM\Column(type: 'json')]
    public array $under = [];

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Craft $craft,
        #[ORM\Column] public readonly int $pad,
    ) {
    }
}
