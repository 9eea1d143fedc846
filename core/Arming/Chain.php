<?php

declare(strict_types=1);

namespace Ortholex\Core\Arming;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Proof\Proof;
use Ortholex\Core\Proof\Proved;
use Ortholex\Core\Proof\ReplacedPart;

/** The chain from transmitter to props: what the board tells to be unmet, with what no board knows. */
final readonly class Chain
{
    /** What every craft is to have proved before it flies, in the order of the work. */
    public const NEEDED = [Proved::Mounting, Proved::SpinCheck, Proved::Directions, Proved::Spans, Proved::Rehearsal];

    /** @param list<Open> $open in the order of the chain */
    private function __construct(public bool $heard, public bool $armed, public array $open)
    {
    }

    /**
     * @param GuardReading|null    $guard  null while the board is not heard
     * @param SettingSet           $preview with what is staged
     * @param array<string, Proof> $proofs by Proved
     * @param int                  $staged changes that wait
     */
    public static function of(
        ?GuardReading $guard,
        SettingSet $settings,
        SettingSet $preview,
        array $proofs,
        bool $snapshot,
        int $staged,
    ): self {
        $open = [];
        foreach (Bar::in($guard->unmet ?? 0) as $bar) {
            $open[] = Open::ofBoard($bar, 0 !== (($guard->bars ?? 0) & $bar->value));
        }
        foreach (self::wanting($settings, $preview, $proofs) as $one) {
            $open[] = $one;
        }
        if (!$snapshot) {
            $open[] = Open::ours(Fact::of(OwnBar::NoSnapshot));
        }
        if ($staged > 0) {
            $open[] = Open::ours(Fact::of(OwnBar::Staged, changes: $staged));
        }
        $order = array_flip(array_column(ChainPlace::cases(), 'value'));
        usort($open, static fn (Open $a, Open $b): int => $order[$a->place->value] <=> $order[$b->place->value]);

        return new self(null !== $guard, $guard->armed ?? false, $open);
    }

    /** Whether the board would arm, the cable and its desk aside. */
    public function wouldArm(): bool
    {
        return $this->heard && [] === array_filter($this->open, static fn (Open $o): bool => $o->forbids && Bar::Cable !== $o->bar);
    }

    /** @return list<Open> */
    public function at(ChainPlace $place): array
    {
        return array_values(array_filter($this->open, static fn (Open $o): bool => $o->place === $place));
    }

    /**
     * What is to be proved still, or again.
     *
     * @param SettingSet           $preview with what is staged
     * @param array<string, Proof> $proofs
     *
     * @return list<Open>
     */
    public static function wanting(SettingSet $settings, SettingSet $preview, array $proofs): array
    {
        $open = [];
        foreach (Proved::cases() as $what) {
            $proof = $proofs[$what->value] ?? null;
            $fact = match (true) {
                null === $proof => \in_array($what, self::NEEDED, true) ? Fact::of(OwnBar::NotProved, what: $what->called()) : null,
                '' !== $proof->undone => Fact::of(
                    OwnBar::Replaced,
                    what: $what->called(),
                    part: ReplacedPart::from($proof->undone)->called(),
                ),
                !$proof->holds($settings) && $proof->holds($preview) => Fact::of(OwnBar::Waits, what: $what->called()),
                !$proof->holds($settings) => Fact::of(OwnBar::Lapsed, what: $what->called(), settings: $proof->changed($settings)),
                Proved::Rehearsal === $what && true === ($proof->found['never_noticed'] ?? false) => Fact::of(OwnBar::NeverNoticed),
                default => null,
            };
            if (null !== $fact) {
                $open[] = Open::ours($fact, $what);
            }
        }

        return $open;
    }
}
