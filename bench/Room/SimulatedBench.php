<?php

declare(strict_types=1);

namespace Ortholex\Bench\Room;

use Ortholex\Bench\Flight\FlightCard;
use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Bench\Link\WorldLink;
use Ortholex\Bench\Power\Mode;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Time\Pace;
use Ortholex\Bench\World\World;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\ByteLink;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\World\Aboard;
use Ortholex\Core\World\Bench;
use Ortholex\Core\World\BenchState;
use Ortholex\Core\World\FlightEnd;

/** The simulated world, seen and moved through the port. */
final readonly class SimulatedBench implements Bench
{
    public function __construct(private World $world, private Pace $pace)
    {
    }

    public function state(): BenchState
    {
        $s = $this->world->store->peek();

        return new BenchState(
            $s->cable,
            $s->cableMoves,
            $s->pack,
            $s->powerMoves,
            $s->pack ? $this->world->physics->restVoltage($s->chargeUsed) : null,
            $s->props,
            $s->propsDeclaredOff,
            $s->transmitter,
            $s->outdoors,
            $s->tilt,
            Mode::Off !== $s->mode,
            Mode::Bootloader === $s->mode,
            $s->faults,
            $this->world->drive->turning($s),
            $s->mishap,
            $s->tones,
            $s->teach,
            $s->soldered,
        );
    }

    public function link(): ByteLink
    {
        return new WorldLink($this->world, $this->pace);
    }

    public function move(string $thing, string $to): void
    {
        $this->world->move($thing, $to);
    }

    public function faults(): array
    {
        return World::FAULTS;
    }

    public function mishaps(): array
    {
        return World::MISHAPS;
    }

    public function frame(): Airframe
    {
        return $this->world->physics->frame;
    }

    public function solder(array $wires): void
    {
        $this->world->store->change(static function (WorldState $s) use ($wires): void {
            $s->soldered = $wires;
        });
    }

    public function aboard(): ?Aboard
    {
        $s = $this->world->store->peek();
        $version = $this->world->board($s)->version();
        if (null === $version || Mode::Bootloader === $s->mode) {
            return null;
        }

        // In flight the pack feeds the board: it flies with what it kept, not with what a cable left in its memory.
        return new Aboard($version, SettingSet::of(Mode::Firmware === $s->mode && [] !== $s->running ? $s->running : $s->kept));
    }

    public function sticks(Card $card, int $seconds, float $hz): array
    {
        return FlightCard::fly($card, $seconds, $hz, 0.4, 11)->frames;
    }

    public function fly(Card $card, int $seconds, int $seed, SettingSet $settings, $recorder, string $head, \Closure $progress): FlightEnd
    {
        $s = $this->world->store->peek();
        $simulator = new FlightSimulator($this->world->physics);

        return $simulator->fly(
            FlightCard::fly($card, $seconds, $this->world->physics->receiverHz, $simulator->hoverThrottle(), $seed),
            $settings,
            $seconds,
            $seed + 7,
            [...$s->faults, ...$this->world->drive->driveFaults($s)],
            $recorder,
            $head,
            $progress,
        );
    }
}
