<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\Journal;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;

/**
 * One writing of settings, put down before its first byte: what, from, to, in which order, and what of it was acknowledged.
 *
 * @phpstan-type Item array{name: string, from: float|int|bool|string|null, to: float|int|bool|string, state: string}
 */
#[ORM\Entity]
#[ORM\Table(name: 'journal')]
class Journal
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public ?int $id = null;

    #[ORM\Column]
    public JournalState $state = JournalState::Writing;

    /** Why it did not end; '' while that is not known. */
    #[ORM\Column(type: Types::TEXT)]
    public string $problem = '';

    /** Of the entry in the change record; null until there is one. */
    #[ORM\Column(nullable: true)]
    public ?int $revision = null;

    /** @param list<Item> $items in the order of writing */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Craft $craft,
        #[ORM\Column] public readonly string $what,
        #[ORM\Column(type: Types::TEXT)] public readonly string $reason,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)] public readonly \DateTimeImmutable $beganAt,
        #[ORM\Column(type: Types::JSON)] public array $items,
        /** @var array<string, string> which ESC sat at which place, by serial number */
        #[ORM\Column(type: Types::JSON)] public array $escs = [],
    ) {
    }

    /** What was to be on the craft in the end. */
    public function wanted(): SettingSet
    {
        return SettingSet::of(array_column($this->items, 'to', 'name'));
    }

    /** What it was before; nothing for what was not known. */
    public function before(): SettingSet
    {
        return SettingSet::of(array_filter(array_column($this->items, 'from', 'name'), static fn (mixed $v): bool => null !== $v));
    }

    /** @return list<string> names of what has come at least as far */
    public function which(ItemState ...$states): array
    {
        $names = [];
        foreach ($this->items as $item) {
            if (\in_array(ItemState::from($item['state']), $states, true)) {
                $names[] = $item['name'];
            }
        }

        return $names;
    }

    /** @param list<string> $names */
    public function mark(array $names, ItemState $state): void
    {
        foreach ($this->items as $i => $item) {
            if (\in_array($item['name'], $names, true)) {
                $this->items[$i]['state'] = $state->value;
            }
        }
    }
}
