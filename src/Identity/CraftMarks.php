<?php

declare(strict_types=1);

namespace Ortholex\App\Identity;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Share\ShareChoice;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Fact\Stored;

/** What craft.yaml says of a craft beside its board: its ESCs as they last answered, what its builder ticked, accepted and put aside. */
final readonly class CraftMarks
{
    /** A key of ours, and a builder's note. */
    private const KEY = '~^[a-z][a-z_]{0,39}$~';

    private const LONGEST_NOTE = 300;
    private const MOST_PADS = 64;

    /** @return array<string, mixed> */
    public static function write(Craft $craft, ShareChoice $choice): array
    {
        $escs = $accepted = [];
        foreach ($craft->escs as $pad => $esc) {
            $is = \is_array($esc['identity'] ?? null) ? EscIdentity::fromArray($esc['identity'])->toArray() : null;
            $escs[$pad] = null === $is ? ['silent' => true] : [...$is, 'serial' => $choice->serials ? $is['serial'] : ''];
        }
        // It says for which ESCs, by their serial numbers: without these it is asked again.
        foreach ($choice->serials ? $craft->accepted : [] as $what => $one) {
            $accepted[$what] = ['of' => $one['of'], 'note' => $choice->names ? $one['note'] : ''];
        }

        return ['escs' => $escs, 'accepted' => $accepted, 'ticks' => $craft->ticks, 'put_back' => $craft->putBack];
    }

    /** A book from before these were in it has none of them. */
    public static function read(Craft $craft, Stored $is): void
    {
        $map = static fn (string $key): array => $is->has($key) ? $is->map($key) : [];
        foreach ($map('escs') as $pad => $esc) {
            if (\is_int($pad) && $pad > 0 && $pad <= self::MOST_PADS && \is_array($esc)) {
                $craft->escs[$pad] = true === ($esc['silent'] ?? false)
                    ? ['silent' => true]
                    : ['identity' => EscIdentity::fromArray([...$esc, 'pad' => $pad])->toArray()];
            }
        }
        foreach ($map('accepted') as $what => $one) {
            $note = \is_array($one) ? $one['note'] ?? '' : null;
            if (self::isKey($what) && \is_string($note) && \is_array($one['of'] ?? null)) {
                $craft->accepted[$what] = ['of' => self::words($one['of']), 'note' => mb_substr($note, 0, self::LONGEST_NOTE)];
            }
        }
        foreach ($map('ticks') as $what => $one) {
            if (self::isKey($what) && \is_array($one) && is_numeric($one['at'] ?? null) && \is_int($one['revision'] ?? null)) {
                $craft->ticks[$what] = ['at' => (float) $one['at'], 'revision' => $one['revision']];
            }
        }
        foreach ($map('put_back') as $name => $value) {
            if (\is_string($name) && \is_scalar($value)) {
                $craft->putBack[$name] = $value;
            }
        }
    }

    /** @phpstan-assert-if-true string $what */
    private static function isKey(mixed $what): bool
    {
        return \is_string($what) && 1 === preg_match(self::KEY, $what);
    }

    /**
     * @param array<mixed> $of
     *
     * @return array<string, string>
     */
    private static function words(array $of): array
    {
        $words = [];
        foreach ($of as $key => $word) {
            if (\is_string($word)) {
                $words[(string) $key] = mb_substr($word, 0, self::LONGEST_NOTE);
            }
        }

        return $words;
    }
}
