<?php

declare(strict_types=1);

namespace Ortholex\Core\LinkLoss;

/** A range walk at reduced power: how far the link held, and what that leaves at full power (free space: 6 dB a doubling). */
final readonly class RangeWalk
{
    /** Below this share of frames a link is no link any more, %. */
    public const HOLDS_PCT = 70.0;

    /**
     * @param float|null $heldM    farthest distance at which it still held; null where it never did
     * @param float|null $marginDb at full power, at the distance that is wanted
     */
    private function __construct(public ?float $heldM, public ?float $marginDb)
    {
    }

    /**
     * @param list<array{float, float, float}> $walked  distance in m, link quality in %, power in mW
     * @param float                            $flownMw power of a flight
     * @param float                            $wantedM how far it is to fly
     */
    public static function of(array $walked, float $flownMw, float $wantedM): self
    {
        usort($walked, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        $lessDb = [] === $walked ? 0.0 : 10 * log10($flownMw / max(0.01, max(array_column($walked, 2))));
        $held = null;
        foreach ($walked as [$metres, $quality]) {
            if ($quality < self::HOLDS_PCT) {
                break;
            }
            $held = $metres;
        }

        return new self($held, null === $held || $held <= 0 ? null : 20 * log10($held / max(1.0, $wantedM)) + $lessDb);
    }
}
