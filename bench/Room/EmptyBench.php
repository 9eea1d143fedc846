<?php

declare(strict_types=1);

namespace Ortholex\Bench\Room;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\ByteLink;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Radio\Heard;
use Ortholex\Core\World\Aboard;
use Ortholex\Core\World\Bench;
use Ortholex\Core\World\BenchState;
use Ortholex\Core\World\Flown;
use Ortholex\Core\World\FlownPath;
use Ortholex\Core\World\NothingToMove;
use Ortholex\Core\World\Radio;
use Ortholex\Core\World\ReturnTrial;

/** A place where nothing lies: the book of a craft can be kept all the same. */
final readonly class EmptyBench implements Bench
{
    public function state(): BenchState
    {
        return new BenchState();
    }

    public function link(): ByteLink
    {
        throw LinkError::cableOut();
    }

    public function move(string $thing, string $to): void
    {
        throw NothingToMove::thing($thing);
    }

    public function faults(): array
    {
        return [];
    }

    public function mishaps(): array
    {
        return [];
    }

    public function frame(): ?Airframe
    {
        return null;
    }

    public function solder(array $wires, array $bridged): void
    {
        throw NothingToMove::thing('iron');
    }

    public function radio(): ?Radio
    {
        return null;
    }

    public function heardInFlight(): Heard
    {
        return Heard::Silent;
    }

    public function aboard(): ?Aboard
    {
        return null;
    }

    public function sticks(Card $card, int $seconds, float $hz): array
    {
        return [];
    }

    public function fly(Card $card, int $seconds, int $seed, SettingSet $settings, string $head, \Closure $progress): Flown
    {
        throw NothingToMove::thing('craft');
    }

    public function flyLoss(SettingSet $settings, float $heightM, float $windMs, float $chargeUsed, \Closure $progress): FlownPath
    {
        throw NothingToMove::thing('craft');
    }

    public function flyReturn(SettingSet $settings, ReturnTrial $trial, \Closure $progress): FlownPath
    {
        throw NothingToMove::thing('craft');
    }
}
