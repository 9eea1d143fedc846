<?php

declare(strict_types=1);

namespace Ortholex\Bench\Room;

use Ortholex\Bench\Board\Knowledge;
use Ortholex\Bench\Board\Lie;
use Ortholex\Bench\Board\Picture;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Flight\FlightSimulator;
use Ortholex\Bench\Flight\Pilot\FlightCard;
use Ortholex\Bench\Flight\Pilot\Itinerary;
use Ortholex\Bench\Flight\Pilot\SwitchOff;
use Ortholex\Bench\Flight\Position\Positioning;
use Ortholex\Bench\Flight\Recording\FlightRecorder;
use Ortholex\Bench\Flight\Recording\MemoryRecorder;
use Ortholex\Bench\Flight\Recording\NoRecorder;
use Ortholex\Bench\Flight\Sortie;
use Ortholex\Bench\Flight\Surroundings\Wind;
use Ortholex\Bench\Flight\Track;
use Ortholex\Bench\Link\WorldLink;
use Ortholex\Bench\Power\Mode;
use Ortholex\Bench\Radio\Model;
use Ortholex\Bench\Radio\RadioState;
use Ortholex\Bench\Radio\Rill;
use Ortholex\Bench\Radio\Road;
use Ortholex\Bench\Sky\Marsh;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Time\Pace;
use Ortholex\Bench\World\World;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Craft\RecorderTarget;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\ByteLink;
use Ortholex\Core\LinkLoss\Then;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Radio\Heard;
use Ortholex\Core\Radio\Protocol\Telemetry;
use Ortholex\Core\Recorder\Unrecorded;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\World\Aboard;
use Ortholex\Core\World\Bench;
use Ortholex\Core\World\BenchState;
use Ortholex\Core\World\FlightEnd;
use Ortholex\Core\World\Flown;
use Ortholex\Core\World\FlownPath;
use Ortholex\Core\World\Radio;
use Ortholex\Core\World\ReceiverLight;
use Ortholex\Core\World\ReturnTrial;

/** The simulated world, seen and moved through the port. */
final readonly class SimulatedBench implements Bench
{
    /** How high and how far away the radio is switched off, m. */
    private const OUT_M = [20.0, 30.0];

    private const BREEZE_MS = 1.5;
    private const LONGEST_LOSS_S = 90.0;
    private const LONGEST_RETURN_S = 400.0;

    /** Where it was armed before its fix, that comes in flight, s. */
    private const LATE_FIX_S = 0.4;

    /** The fix is lost so long after the radio was, s. */
    private const BLIND_FROM_S = 12.0;

    public function __construct(private World $world, private Pace $pace)
    {
    }

    public function state(): BenchState
    {
        $s = $this->world->store->peek();
        $board = $this->world->board($s);
        $picture = new Picture($this->world->physics, $s, $this->pace);
        $servo = $picture->servo();
        $us = null === $servo ? null : $picture->servoUs($board->attitude()[1]);

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
            $s->bridged,
            $s->chargeUsed,
            $s->packWorn,
            $board->alarm(),
            $s->headingDeg,
            Lie::tumbles($s, $this->pace->now()),
            null === $servo || null === $us ? null : $servo->deg($us),
            null !== $servo && null !== $us && $servo->buzzes($us, SettingSet::of($s->running)->number('camera.pulse_hz', 50)),
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

    public function solder(array $wires, array $bridged): void
    {
        $this->world->solder($wires, $bridged);
    }

    public function radio(): Radio
    {
        $s = $this->world->store->peek();
        $radio = $s->radio();
        $board = $this->world->board($s)->receiver();
        $air = $board?->air();
        $hears = $air?->hears($this->pace->now()) ?? false;
        $told = null !== $board && $hears && Mode::Firmware === $s->mode ? $board->telemetry() : '';
        $memory = $radio->memory();
        $channels = [];
        foreach ($memory->order as $channel => $control) {
            $channels[] = [
                'control' => Model::CONTROLS[$control],
                'low' => $memory->lowPct[$channel],
                'high' => $memory->highPct[$channel],
                'trim' => $memory->trimUs[$channel],
                'reversed' => $memory->reversed[$channel],
            ];
        }

        return new Radio(
            $s->transmitter,
            $radio->model,
            array_values(array_unique([...array_map(strval(...), array_keys($radio->models)), $radio->model])),
            array_combine(Model::CONTROLS, $radio->controls),
            array_combine(['A', 'B', 'C', 'D', 'E', 'F'], RadioState::LEVERS),
            $channels,
            $board?->receiverName(),
            match (true) {
                null === $air || !$radio->powered => ReceiverLight::Dark,
                $radio->binding => ReceiverLight::Fast,
                $hears => ReceiverLight::Steady,
                default => ReceiverLight::Slow,
            },
            $radio->button,
            ($radio->manner ?? $board?->kind()?->manner())?->value,
            '' === $told ? null : Telemetry::in($told),
            $radio->distanceM,
            $radio->quiet,
        );
    }

    public function heardInFlight(): Heard
    {
        $s = $this->world->store->peek();
        $aboard = $this->aboard();
        $s->cable = false;
        $s->pack = $s->transmitter = true;
        $s->running = $aboard?->settings->toArray() ?? [];
        $s->bootedAt = 0.0;
        $radio = $s->radio();
        $radio->switchedAt = 1.0;
        $radio->poweredAt = 0.0;
        $radio->powered = true;
        $s->putRadio($radio);

        $receiver = $this->world->board($s)->receiver();

        return null === $receiver ? Heard::Silent : $receiver->read($this->pace->now(), \PHP_INT_MAX, Knowledge::sound())->heard;
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
        return match ($card) {
            Card::Maiden => Itinerary::maiden()->sketch($seconds, $hz),
            Card::Survey => Itinerary::survey()->sketch($seconds, $hz),
            Card::LinkLost => Itinerary::out(self::OUT_M[0], self::OUT_M[1])->sketch($seconds, $hz),
            default => FlightCard::fly($card, $seconds, $hz, 0.4, 11)->frames,
        };
    }

    public function fly(Card $card, int $seconds, int $seed, SettingSet $settings, string $head, \Closure $progress): Flown
    {
        $s = $this->world->store->peek();
        $positioning = \in_array($card, Card::gathering(), true) ? null : $this->positioning($s, $settings, $seed);
        if (null !== $positioning) {
            // Where its metres begin.
            $head = rtrim($head).\sprintf("\nflight.origin_lat_deg: %.7F\nflight.origin_lon_deg: %.7F\n", Marsh::LAT_DEG, Marsh::LON_DEG);
        }
        if (\in_array($card, Card::gathering(), true) && \in_array(Action::GainSetB, $this->road($s, $settings)->on(), true)) {
            $head = rtrim($head)."\nflight.gain_set: b\n";
        }
        $why = $this->unrecorded($s, $settings);
        $recorder = null === $why ? new MemoryRecorder($this->world->recorder(), $head) : new NoRecorder();
        $end = $this->flown($card, $seconds, $seed, $settings, $s, $positioning, $recorder, $progress);

        return $recorder instanceof MemoryRecorder
            ? new Flown($end, $recorder->number, $recorder->isFull() || null === $recorder->number ? Unrecorded::Full : null)
            : new Flown($end, null, $why);
    }

    /** Why the recorder would write nothing in flight; null where it would. */
    private function unrecorded(WorldState $s, SettingSet $settings): ?Unrecorded
    {
        return match (true) {
            0 === $this->world->recorder()->bytes => Unrecorded::NoMemory,
            RecorderTarget::BoardMemory->value !== $settings->text('recorder.writes_to') => Unrecorded::Elsewhere,
            // Where no lever turns it on it writes while the craft is armed.
            '' !== $settings->text(Action::Record->setting())
                && !\in_array(Action::Record, $this->road($s, $settings)->on(), true) => Unrecorded::LeverOff,
            default => null,
        };
    }

    private function flown(
        Card $card,
        int $seconds,
        int $seed,
        SettingSet $settings,
        WorldState $s,
        ?Positioning $positioning,
        FlightRecorder $recorder,
        \Closure $progress,
    ): FlightEnd {
        $simulator = new FlightSimulator($this->physics($s));
        $faults = [...$s->faults, ...$this->world->drive->driveFaults($s)];
        $road = $this->road($s, $settings);
        if (\in_array($card, Card::gathering(), true)) {
            $flown = FlightCard::fly(
                $card,
                $seconds,
                $this->world->physics->receiverHz,
                $simulator->hoverThrottle(),
                $seed,
            )->through($road);

            return $simulator->fly($flown, $settings, $seconds, $seed + 7, $faults, $recorder, $progress, $s->chargeUsed);
        }
        $lost = Card::LinkLost === $card;
        $sortie = new Sortie(
            match ($card) {
                Card::LinkLost => Itinerary::out(self::OUT_M[0], self::OUT_M[1]),
                Card::Survey => Itinerary::survey(),
                default => Itinerary::maiden(),
            },
            $road,
            $lost ? SwitchOff::there(self::OUT_M[0], self::OUT_M[1]) : null,
            new Wind(self::BREEZE_MS, 40.0 * ($seed % 9), self::BREEZE_MS / 4, $seed + 3),
            chargeUsed: $s->chargeUsed,
            positioning: $positioning,
        );

        return $simulator->goOut($sortie, $settings, $seconds, $seed + 7, $faults, $recorder, $progress);
    }

    public function flyLoss(SettingSet $settings, float $heightM, float $windMs, float $chargeUsed, \Closure $progress): FlownPath
    {
        $s = $this->world->store->peek();
        $track = new Track();
        $sortie = new Sortie(
            Itinerary::stay($heightM),
            $this->road($s, $settings),
            SwitchOff::at(1.0),
            new Wind($windMs, 0.0, $windMs / 4, 5),
            $heightM,
            $chargeUsed,
            track: $track,
            positioning: $this->positioning($s, $settings, 0),
            homeIsSet: true,
        );
        $this->flyUnread($sortie, $settings, $s, self::LONGEST_LOSS_S, $progress);

        return $track->flown();
    }

    public function flyReturn(SettingSet $settings, ReturnTrial $trial, \Closure $progress): FlownPath
    {
        $s = $this->world->store->peek();
        $track = new Track();
        $sortie = new Sortie(
            Itinerary::stay($trial->heightM, $trial->distanceM),
            $this->road($s, $settings),
            SwitchOff::at(1.0),
            new Wind($trial->windMs, $trial->fromDeg, $trial->windMs / 4, $trial->seed),
            $trial->heightM,
            $trial->chargeUsed,
            track: $track,
            fromM: [$trial->distanceM, 0.0],
            positioning: null === $this->positioning($s, $settings, 0)
                ? null
                : new Positioning(
                    $trial->seed + 4,
                    firstS: $trial->beforeFix ? self::LATE_FIX_S : 0.0,
                    lostS: $trial->blindS > 0 ? self::BLIND_FROM_S : \INF,
                    againS: self::BLIND_FROM_S + $trial->blindS,
                ),
            homeIsSet: !$trial->beforeFix,
        );
        // It is asked of the plan alone: whatever else is set, the radio is lost and it is to return.
        $this->flyUnread($sortie, $settings->with(['link_loss.then' => Then::Return->value]), $s, self::LONGEST_RETURN_S, $progress);

        return $track->flown();
    }

    /** A flight whose log nobody reads. */
    private function flyUnread(Sortie $sortie, SettingSet $settings, WorldState $s, float $seconds, \Closure $progress): void
    {
        (new FlightSimulator($this->physics($s)))->goOut($sortie, $settings, $seconds, 12, $s->faults, new NoRecorder(), $progress);
    }

    private function road(WorldState $s, SettingSet $settings): Road
    {
        $radio = $s->radio();
        $radio->drops = \in_array('weak_link', $s->faults, true) ? max(0.3, $radio->drops) : $radio->drops;

        return Road::of($radio, $this->world->board($s)->receiver()?->kind() ?? Rill::C, $settings);
    }

    /** What the position receiver will tell in flight: nothing where it is not heard as it is wired and set. */
    private function positioning(WorldState $s, SettingSet $settings, int $seed): ?Positioning
    {
        $flies = clone $s;
        $flies->pack = true;
        $flies->running = $settings->toArray();
        $heard = $this->world->board($flies)->whereabouts()?->isHeard() ?? false;

        return $heard ? new Positioning($seed + 21) : null;
    }

    /** The craft as it is now, with the pack as worn as it is. */
    private function physics(WorldState $s): CraftPhysics
    {
        return $this->world->physics->withPack($s->packWorn);
    }
}
