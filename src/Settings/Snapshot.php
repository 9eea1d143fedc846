<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Ortholex\App\Book\Craft;
use Ortholex\App\Storage\SettingSetType;
use Ortholex\Core\Craft\SettingSet;

/** A full, named copy of a craft's settings at one moment. */
#[ORM\Entity]
#[ORM\Table(name: 'snapshot')]
class Snapshot
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public ?int $id = null;

    /** When it was put away; null while it is listed. */
    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $putAwayAt = null;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Craft $craft,
        #[ORM\Column] public string $name,
        #[ORM\Column] public readonly bool $byItself,
        #[ORM\Column] public readonly string $board,
        #[ORM\Column] public readonly string $version,
        #[ORM\Column(type: SettingSetType::NAME)] public readonly SettingSet $settings,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)] public readonly \DateTimeImmutable $takenAt,
        #[ORM\Column] public readonly int $revision,
        /** @var array<string, string> which ESC sat at which place, by serial number */
        #[ORM\Column(type: Types::JSON)] public array $escs = [],
    ) {
    }
}
