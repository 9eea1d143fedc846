<?php

declare(strict_types=1);

namespace Ortholex\Core\World;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\ByteLink;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Radio\Heard;

/**
 * The world outside Ortholex, around one craft: its power, its cable, what its builder declares, and the sky.
 *
 * A simulated one stands behind it here. With hardware, the same questions go to a serial port, and to the builder.
 */
interface Bench
{
    public function state(): BenchState;

    /** A new end of the cable to the board; it holds for one plugging of the cable. */
    public function link(): ByteLink;

    /**
     * Moves one thing of the physical world.
     *
     * @param string $thing of Thing; a fault or mishap with its name after a colon
     * @param string $to    "1" or "0", a tilt, or two places
     *
     * @throws NothingToMove for a thing or place there is not
     */
    public function move(string $thing, string $to): void;

    /** @return array<string, string> faults that can be switched on and off: what each is, by name */
    public function faults(): array;

    /** @return array<string, string> what can have happened, and is mended by rescue: what each is, by name */
    public function mishaps(): array;

    /** The airframe as it lies there, whatever the settings say of it; null where nothing lies. */
    public function frame(): ?Airframe;

    /**
     * @param list<array{string, string}> $wires   as they are to be soldered: pin of a part, pad of the board
     * @param list<string>                $bridged jumpers of the board that are to be bridged
     */
    public function solder(array $wires, array $bridged): void;

    /** The transmitter and the receiver of the craft; null where nothing lies. */
    public function radio(): ?Radio;

    /** What the board would hear of its receiver in flight, on its pack and with the transmitter on. */
    public function heardInFlight(): Heard;

    /** What the craft would fly with: in flight the pack feeds the board; null without whole firmware. */
    public function aboard(): ?Aboard;

    /**
     * How the sticks move when a card is flown.
     *
     * @return list<list<float>> frames of roll, pitch, yaw (−1 to 1) and throttle (0 to 1), $hz a second
     */
    public function sticks(Card $card, int $seconds, float $hz): array;

    /**
     * Flies a card; the board's own recorder writes, where it has one.
     *
     * @param SettingSet            $settings to fly with, under current names
     * @param string                $head     YAML that the recorder puts first
     * @param \Closure(float): bool $progress told the share flown, 0 to 1; false calls the craft back
     */
    public function fly(Card $card, int $seconds, int $seed, SettingSet $settings, string $head, \Closure $progress): Flown;

    /**
     * Hovers at a height, loses its radio, and is left to its plan and its receiver.
     *
     * @param SettingSet            $settings   to fly with, under current names
     * @param float                 $windMs     with gusts of a quarter of it
     * @param float                 $chargeUsed share of the pack
     * @param \Closure(float): bool $progress   told the share flown, 0 to 1; false calls it off
     */
    public function flyLoss(SettingSet $settings, float $heightM, float $windMs, float $chargeUsed, \Closure $progress): FlownPath;

    /**
     * Hovers away from home, loses its radio, and comes home as it is set, or does not.
     *
     * @param SettingSet            $settings to fly with, under current names
     * @param \Closure(float): bool $progress told the share flown, 0 to 1; false calls it off
     */
    public function flyReturn(SettingSet $settings, ReturnTrial $trial, \Closure $progress): FlownPath;
}
