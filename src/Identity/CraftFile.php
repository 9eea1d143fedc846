<?php

declare(strict_types=1);

namespace Ortholex\App\Identity;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Share\BookPart;
use Ortholex\App\Book\Share\BookReader;
use Ortholex\App\Book\Share\BookWriter;
use Ortholex\App\Sticks\Evidence;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Pack\PackCard;
use Ortholex\Core\Parts\PartsCatalogue;
use Ortholex\Core\Parts\Plan\CraftPlan;
use Ortholex\Core\Proof\Proof;
use Ortholex\Core\Proof\Proved;
use Ortholex\Core\Wiring\Part;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;

/** craft.yaml: what the craft is, what was read of its board, and what was shown and proved on it. */
#[AsTaggedItem(priority: 90)]
final readonly class CraftFile implements BookPart
{
    private const FILE = 'craft.yaml';

    /** Words of a board are no longer than this. */
    private const LONGEST = 80;

    public function write(Craft $craft, BookWriter $book): void
    {
        $plan = CraftPlan::fromArray($craft->parts, PartsCatalogue::shipped());
        $names = $book->choice->names;
        $book->yaml(self::FILE, [
            'kind' => $craft->kind,
            'purpose' => $names ? $craft->purpose : '',
            'story' => $names ? $craft->story : '',
            'by_hand' => $craft->byHand,
            'revision' => $craft->revision,
            'uses' => $craft->uses,
            'board' => [
                'hardware_id' => $craft->hardwareId,
                'name' => $craft->board,
                'processor' => $craft->processor,
                'serial' => $book->choice->serials ? $craft->serial : null,
                'firmware' => $craft->firmware,
                'version' => $craft->version,
                'flash_from' => $craft->flashFrom,
                'flash_end' => $craft->flashEnd,
                'page_bytes' => $craft->pageBytes,
                'left_out' => $craft->leftOut,
                'sensors' => $craft->sensors,
                'read' => $craft->readAt?->format(\DATE_ATOM),
            ],
            'wires' => self::wires($craft->wires),
            'radio' => [] === $craft->radio ? [] : Evidence::of($craft->radio)->toArray(),
            'packs' => array_map(
                static fn (array $p, int $i): array => [...$p, 'name' => $names ? $p['name'] ?? '' : 'pack '.($i + 1), 'logs' => []],
                $craft->packs,
                array_keys($craft->packs),
            ),
            'proofs' => self::proofs($craft->proofs),
            'walk' => $craft->walk,
            'redo' => $craft->redo,
            'parts' => null === $plan ? [] : $plan->toArray(),
            ...CraftMarks::write($craft, $book->choice),
        ]);
    }

    public function isLong(): bool
    {
        return false;
    }

    public function read(Craft $craft, BookReader $book): void
    {
        $is = $book->yaml(self::FILE);
        if (null === $is) {
            return;
        }
        $book->reading(self::FILE, static function () use ($craft, $is, $book): void {
            $short = static fn (?string $text): ?string => null === $text ? null : mb_substr($text, 0, self::LONGEST);
            $board = $is->part('board');
            $version = $board->optionalText('version');
            $craft->kind = (string) $short($is->text('kind'));
            $craft->purpose = mb_substr($is->text('purpose'), 0, 120);
            $craft->story = mb_substr($is->text('story'), 0, 400);
            $craft->byHand = $is->flag('by_hand') ?? false;
            $craft->revision = max(0, $is->whole('revision'));
            $craft->uses = $is->texts('uses');
            $craft->hardwareId = $short($board->optionalText('hardware_id'));
            $craft->board = $short($board->optionalText('name'));
            $craft->processor = $short($board->optionalText('processor'));
            $craft->serial = $short($board->optionalText('serial'));
            $craft->firmware = $short($board->optionalText('firmware'));
            $craft->version = null === $version ? null : Version::parse($version)->toString();
            $craft->flashFrom = max(0, $board->whole('flash_from'));
            $craft->flashEnd = max($craft->flashFrom, $board->whole('flash_end'));
            $craft->pageBytes = max(1, $board->whole('page_bytes'));
            $craft->leftOut = $board->texts('left_out');
            $craft->sensors = $board->texts('sensors');
            $craft->readAt = $board->optionalTime('read');
            $book->took('what it is');
        });
        $book->reading(self::FILE, static function () use ($craft, $is, $book): void {
            self::shown($craft, $is);
            $book->took('what was shown and proved on it');
        });
    }

    private static function shown(Craft $craft, Stored $is): void
    {
        $craft->wires = self::wires($is->map('wires'));
        $craft->radio = [] === $is->map('radio') ? [] : Evidence::of($is->map('radio'))->toArray();
        foreach ($is->map('packs') as $pack) {
            $craft->packs[] = PackCard::fromArray(\is_array($pack) ? $pack : [])->toArray();
        }
        $craft->proofs = self::proofs($is->map('proofs'));
        foreach ($is->map('walk') as $at) {
            [$metres, $quality, $mw] = \is_array($at) && 3 === \count($at) ? array_values($at) : [null, null, null];
            if (is_numeric($metres) && is_numeric($quality) && is_numeric($mw)) {
                $craft->walk[] = [(float) $metres, (float) $quality, (float) $mw];
            }
        }
        $craft->redo = $is->texts('redo');
        $plan = CraftPlan::fromArray($is->map('parts'), PartsCatalogue::shipped());
        $craft->parts = null === $plan ? [] : $plan->toArray();
        CraftMarks::read($craft, $is);
    }

    /**
     * @param array<mixed> $kept
     *
     * @return array{parts?: list<string>, wires?: list<array{string, string}>, bridged?: list<string>}
     */
    private static function wires(array $kept): array
    {
        if ([] === $kept) {
            return [];
        }
        $strings = static fn (mixed $of): array => \is_array($of) ? array_values(array_filter($of, \is_string(...))) : [];
        $drawn = [];
        foreach (\is_array($kept['wires'] ?? null) ? $kept['wires'] : [] as $wire) {
            $ends = $strings($wire);
            if (2 === \count($ends)) {
                $drawn[] = [$ends[0], $ends[1]];
            }
        }
        $parts = array_intersect($strings($kept['parts'] ?? []), array_map(strval(...), array_keys(Part::all())));

        return ['parts' => array_values($parts), 'wires' => $drawn, 'bridged' => $strings($kept['bridged'] ?? [])];
    }

    /**
     * @param array<mixed> $kept
     *
     * @return array<string, array<string, mixed>>
     */
    private static function proofs(array $kept): array
    {
        $proofs = [];
        foreach (Proved::cases() as $what) {
            $of = $kept[$what->value] ?? null;
            if (\is_array($of)) {
                $proofs[$what->value] = Proof::fromArray($what, $of)->toArray();
            }
        }

        return $proofs;
    }
}
