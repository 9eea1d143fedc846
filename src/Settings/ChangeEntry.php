<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Ortholex\App\Book\Craft;

/** One entry of the change record: what went from which value to which, when and why. */
#[ORM\Entity]
#[ORM\Table(name: 'change_entry')]
class ChangeEntry
{
    /** In place of the key of an ESC's setting: what it runs. */
    public const FIRMWARE = 'firmware';

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public ?int $id = null;

    /**
     * @param list<array{name: string, from: float|int|bool|string|null, to: float|int|bool|string|null}> $items what is on the craft now
     * @param list<string>                                                                                $left  what was to be, and is not
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Craft $craft,
        #[ORM\Column] public readonly int $revision,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)] public readonly \DateTimeImmutable $at,
        #[ORM\Column] public readonly string $what,
        #[ORM\Column] public readonly string $reason,
        #[ORM\Column(type: Types::JSON)] public array $items,
        #[ORM\Column] public Outcome $outcome = Outcome::Done,
        #[ORM\Column(name: 'left_over', type: Types::JSON)] public array $left = [],
        /** @var array<string, string> which ESC sat at which place, by serial number */
        #[ORM\Column(type: Types::JSON)] public array $escs = [],
    ) {
    }
}
