<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\ByteLink;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Radio\Heard;
use Ortholex\Core\World\Aboard;
use Ortholex\Core\World\Bench;
use Ortholex\Core\World\BenchState;
use Ortholex\Core\World\Flown;
use Ortholex\Core\World\FlownPath;
use Ortholex\Core\World\Radio;
use Ortholex\Core\World\ReturnTrial;

/** A bench whose cable is that of a plan; all else is as it is. */
final readonly class FaultyBench implements Bench
{
    public function __construct(private Bench $real)
    {
    }

    public function link(): ByteLink
    {
        return new FaultyLink($this->real->link(), $this->real);
    }

    public function state(): BenchState
    {
        return $this->real->state();
    }

    public function move(string $thing, string $to): void
    {
        $this->real->move($thing, $to);
    }

    public function faults(): array
    {
        return $this->real->faults();
    }

    public function mishaps(): array
    {
        return $this->real->mishaps();
    }

    public function frame(): ?Airframe
    {
        return $this->real->frame();
    }

    public function solder(array $wires, array $bridged): void
    {
        $this->real->solder($wires, $bridged);
    }

    public function radio(): ?Radio
    {
        return $this->real->radio();
    }

    public function heardInFlight(): Heard
    {
        return $this->real->heardInFlight();
    }

    public function aboard(): ?Aboard
    {
        return $this->real->aboard();
    }

    public function sticks(Card $card, int $seconds, float $hz): array
    {
        return $this->real->sticks($card, $seconds, $hz);
    }

    public function fly(Card $card, int $seconds, int $seed, SettingSet $settings, string $head, \Closure $progress): Flown
    {
        return $this->real->fly($card, $seconds, $seed, $settings, $head, $progress);
    }

    public function flyLoss(SettingSet $settings, float $heightM, float $windMs, float $chargeUsed, \Closure $progress): FlownPath
    {
        return $this->real->flyLoss($settings, $heightM, $windMs, $chargeUsed, $progress);
    }

    public function flyReturn(SettingSet $settings, ReturnTrial $trial, \Closure $progress): FlownPath
    {
        return $this->real->flyReturn($settings, $trial, $progress);
    }
}
