<?php

declare(strict_types=1);

namespace Ortholex\App\Frame;

use Doctrine\ORM\Mapping as ORM;
use Ortholex\App\Book\Craft;

/** What the board's accelerometer read while the builder held the craft in a known pose. */
#[ORM\Entity]
#[ORM\Table(name: 'shown_pose')]
#[ORM\UniqueConstraint(columns: ['craft_id', 'pose'])]
class ShownPose
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public ?int $id = null;

    #[ORM\Column]
    public float $x = 0.0;

    #[ORM\Column]
    public float $y = 0.0;

    #[ORM\Column]
    public float $z = 0.0;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Craft $craft,
        #[ORM\Column(enumType: Pose::class)] public readonly Pose $pose,
    ) {
    }

    /** @return array{float, float, float} g, board axes */
    public function force(): array
    {
        return [$this->x, $this->y, $this->z];
    }
}
