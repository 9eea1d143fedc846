<?php

declare(strict_types=1);

namespace Ortholex\App\Motors\Reading;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Ortholex\App\Book\Craft;

/** What a check of the drive measured: the readings, from which all that is said of it is computed. */
#[ORM\Entity]
#[ORM\Table(name: 'drive_check')]
class DriveReading
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public ?int $id = null;

    /** @var array<string, mixed> */
    #[ORM\Column(type: Types::JSON)]
    public array $data = [];

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Craft $craft,
        #[ORM\Column(enumType: DriveReadingKind::class)] public readonly DriveReadingKind $kind,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)] public readonly \DateTimeImmutable $takenAt,
    ) {
    }
}
