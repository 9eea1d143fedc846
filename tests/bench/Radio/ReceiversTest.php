<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Radio;

use Ortholex\Bench\State\WorldState;
use Ortholex\Core\Arming\Bar;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\RadioReading;
use Ortholex\Core\Radio\Heard;
use Ortholex\Core\Radio\Wire\ProtocolFinder;
use Ortholex\Core\Radio\Wire\Speaker;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\World\NothingToMove;
use Ortholex\Tests\bench\BenchCase;
use PHPUnit\Framework\Attributes\DataProvider;

/** Receivers on the desk: what reaches the board of what the thumbs do, byte by byte, and what silences it. */
final class ReceiversTest extends BenchCase
{
    private const WIRES = [
        'rill-c' => [['rill-c.v', '4V5'], ['rill-c.gnd', 'GND-L2'], ['rill-c.tx', 'RX1'], ['rill-c.rx', 'TX1']],
        'rill-s' => [['rill-s.v', '4V5'], ['rill-s.gnd', 'GND-L2'], ['rill-s.tx', 'RX1']],
        'rill-p' => [['rill-p.v', '4V5'], ['rill-p.gnd', 'GND-L2'], ['rill-p.tx', 'RX1']],
        'rill-w' => [
            ['rill-w.v', '4V5'],
            ['rill-w.gnd', 'GND-L2'],
            ['rill-w.tx', 'RX1'],
            ['rill-w.tx2', 'RX2'],
            ['rill-w.tx3', 'RX3'],
            ['rill-w.tx4', 'RX4'],
        ],
    ];
    private const SET = [
        'rill-c' => ['receiver.protocol' => 'crsf', 'uart.1.baud' => '420000', 'uart.1.inverted' => false],
        'rill-s' => ['receiver.protocol' => 'sbus', 'uart.1.baud' => '100000', 'uart.1.inverted' => true],
        'rill-p' => ['receiver.protocol' => 'ppm'],
        'rill-w' => ['receiver.protocol' => 'pwm', 'uart.2.role' => 'receiver', 'uart.3.role' => 'receiver', 'uart.4.role' => 'receiver'],
    ];

    /** @return iterable<string, array{string, int}> receiver, and how many channels it brings */
    public static function receivers(): iterable
    {
        yield 'two-way serial' => ['rill-c', 16];
        yield 'inverted serial' => ['rill-s', 16];
        yield 'pulse train' => ['rill-p', 8];
        yield 'a wire a channel' => ['rill-w', 4];
    }

    #[DataProvider('receivers')]
    public function testWhatTheThumbsDoReachesTheBoard(string $receiver, int $channels): void
    {
        $this->wired($receiver);
        $this->world->move('transmitter', '1');
        $this->pace->wait(0.5);
        $this->world->move('radio:sticks', 'roll=0.5,pitch=-1,throttle=1,yaw=0.25');
        $this->pace->wait(0.3);
        $heard = $this->client()->radio(0);
        self::assertSame(Heard::Frames, $heard->heard);
        self::assertEqualsWithDelta(0.5, $heard->mapped['roll'], 0.004);
        self::assertEqualsWithDelta(-1.0, $heard->mapped['pitch'], 0.004);
        self::assertEqualsWithDelta(1.0, $heard->mapped['throttle'], 0.004);
        self::assertEqualsWithDelta(0.25, $heard->mapped['yaw'], 0.004);
        $last = $heard->frames[\count($heard->frames) - 1][2];
        self::assertCount($channels, $last);
        self::assertEqualsWithDelta([1750, 1000, 2000, 1625], \array_slice($last, 0, 4), 0.4);
        self::assertNotNull($heard->intervalMs);
        self::assertLessThan(0.03, $heard->lostShare);
    }

    public function testFramesAreNumberedAndToldOnce(): void
    {
        $this->wired('rill-c');
        $this->world->move('transmitter', '1');
        $this->pace->wait(0.6);
        $first = $this->client()->radio(0);
        $this->pace->wait(0.1);
        $next = $this->client()->radio($first->newest);
        self::assertSame($first->newest + 1, $next->frames[0][0]);
        self::assertEqualsWithDelta(15, \count($next->frames), 1.0);
        $again = $this->client()->radio(0);
        foreach ($first->frames as [$number, , $channels]) {
            foreach ($again->frames as [$same, , $others]) {
                if ($same === $number) {
                    self::assertSame($channels, $others, 'whoever asks later hears the same');
                }
            }
        }
        self::assertEquals($next, RadioReading::unpack($next->pack()));
        self::assertNull(RadioReading::unpack(substr($next->pack(), 0, 60)));
    }

    /** @return iterable<string, array{array<string, float|int|bool|string>, Heard}> */
    public static function wrong(): iterable
    {
        yield 'another rate' => [['uart.1.baud' => '115200'], Heard::Rubbish];
        yield 'another polarity' => [['uart.1.inverted' => true], Heard::Rubbish];
        yield 'another protocol' => [['receiver.protocol' => 'sbus'], Heard::Rubbish];
        yield 'pulses looked for' => [['receiver.protocol' => 'ppm'], Heard::Rubbish];
        yield 'another port' => [['uart.1.role' => 'none', 'uart.2.role' => 'receiver'], Heard::Silent];
        yield 'no port' => [['uart.1.role' => 'none'], Heard::NotSet];
    }

    /** @param array<string, float|int|bool|string> $set */
    #[DataProvider('wrong')]
    public function testWhatIsSetWrongGivesSilenceOrRubbish(array $set, Heard $expected): void
    {
        $this->wired('rill-c', $set);
        $this->world->move('transmitter', '1');
        $this->pace->wait(0.5);
        $heard = $this->client()->radio(0);
        self::assertSame($expected, $heard->heard);
        self::assertSame([], $heard->frames);
        $wire = ProtocolFinder::of($this->client()->edges('1'));
        self::assertSame(Speaker::Crsf, $wire->speaker, 'the wire itself can be heard all the same');
    }

    public function testAWrongPadAndADeadRailAreSilent(): void
    {
        $crossed = [['rill-c.v', '4V5'], ['rill-c.gnd', 'GND-L2'], ['rill-c.tx', 'TX1'], ['rill-c.rx', 'RX1']];
        $dead = [['rill-c.v', '5V'], ['rill-c.gnd', 'GND-L2'], ['rill-c.tx', 'RX1'], ['rill-c.rx', 'TX1']];
        foreach ([$crossed, $dead] as $i => $wires) {
            $this->wired('rill-c', [], $wires);
            $this->world->move('transmitter', '1');
            $this->pace->wait(0.5);
            self::assertSame(Heard::Silent, $this->client()->radio(0)->heard);
            self::assertSame(Speaker::Silent, ProtocolFinder::of($this->client()->edges('1'))->speaker);
            if (1 === $i) {
                // Its rail lives with the pack.
                $this->world->move('pack', '1');
                $this->pace->wait(0.5);
                self::assertSame(Heard::Frames, $this->client()->radio(0)->heard);
            }
        }
    }

    public function testItBindsWithItsButtonHeldAsPowerComes(): void
    {
        $this->wired('rill-c');
        $this->world->store->change(static function (WorldState $s): void {
            $radio = $s->radio();
            $radio->boundTo = '';
            $s->putRadio($radio);
        });
        $this->world->move('transmitter', '1');
        $this->pace->wait(0.5);
        self::assertSame(Heard::NoLink, $this->client()->radio(0)->heard);
        $this->world->move('radio:bind', '1');
        $this->pace->wait(0.5);
        self::assertSame(Heard::NoLink, $this->client()->radio(0)->heard, 'the receiver does not wait to be bound');
        $this->world->move('radio:button', '1');
        self::assertSame(Heard::NoLink, $this->client()->radio(0)->heard, 'its button is looked at as power comes');
        $this->world->move('cable', '0');
        $this->world->move('cable', '1');
        $this->pace->wait(1.0);
        $this->world->move('radio:bind', '1');
        $this->pace->wait(0.5);
        self::assertSame(Heard::Frames, $this->client()->radio(0)->heard);
    }

    public function testBindingNeedsATransmitterThatIsOn(): void
    {
        $this->wired('rill-c');
        $this->expectException(NothingToMove::class);
        $this->world->move('radio:bind', '1');
    }

    /** @return iterable<string, array{string, string, Heard, float|null}> receiver, manner, what is heard, and the roll channel then */
    public static function manners(): iterable
    {
        yield 'it stops' => ['rill-c', 'stops', Heard::NoLink, null];
        yield 'it flags' => ['rill-s', 'flags', Heard::Failsafe, 1900.0];
        yield 'it repeats the last' => ['rill-p', 'repeats', Heard::Frames, 1900.0];
        yield 'it sends presets' => ['rill-p', 'presets', Heard::Frames, 1500.0];
    }

    #[DataProvider('manners')]
    public function testASilentTransmitterIsMetInOneOfFourManners(string $receiver, string $manner, Heard $expected, ?float $roll): void
    {
        $this->wired($receiver);
        $this->world->move('transmitter', '1');
        $this->world->move('radio:manner', $manner);
        $this->world->move('radio:sticks', 'roll=0.8');
        $this->pace->wait(1.0);
        $this->world->move('transmitter', '0');
        $this->pace->wait(1.0);
        $heard = $this->client()->radio(0);
        self::assertSame($expected, $heard->heard);
        if (null !== $roll) {
            self::assertEqualsWithDelta($roll, $heard->frames[\count($heard->frames) - 1][2][0], 0.4);
        } else {
            self::assertSame(0, $heard->link?->qualityPct);
        }
    }

    public function testAnotherMemoryIsAnotherTransmitter(): void
    {
        $this->wired('rill-c');
        $this->world->store->change(static function (WorldState $s): void {
            $radio = $s->radio();
            $radio->models = ['other' => []];
            $s->putRadio($radio);
        });
        $this->world->move('transmitter', '1');
        $this->world->move('radio:model', 'other');
        $this->pace->wait(0.5);
        self::assertSame(Heard::NoLink, $this->client()->radio(0)->heard);
        $this->world->move('radio:model', '1');
        $this->pace->wait(0.5);
        self::assertSame(Heard::Frames, $this->client()->radio(0)->heard);
    }

    public function testWhatIsDialledIsSent(): void
    {
        $this->wired('rill-c');
        $this->world->move('transmitter', '1');
        foreach (['1.low' => '80', '1.high' => '120', '1.trim' => '25', '2.reversed' => '1'] as $what => $to) {
            $this->world->move("radio:dial.$what", $to);
        }
        foreach ([[-1.0, 1125.0], [0.0, 1525.0], [1.0, 2125.0]] as [$stick, $us]) {
            $this->world->move('radio:sticks', "roll=$stick,pitch=$stick");
            $this->pace->wait(0.3);
            $frames = $this->client()->radio(0)->frames;
            self::assertEqualsWithDelta($us, $frames[\count($frames) - 1][2][0], 0.4);
            self::assertEqualsWithDelta(1500 - 500 * $stick, $frames[\count($frames) - 1][2][1], 0.4);
        }
    }

    public function testActionsAndWhatForbidsArmingAreTold(): void
    {
        $this->wired('rill-c', ['action.beeper.on_in' => '5:1250-1750', 'action.angle.on_in' => '']);
        $this->world->move('transmitter', '1');
        $this->world->move('radio:sticks', 'throttle=0');
        $this->world->move('radio:lever.A', '1');
        $this->pace->wait(0.5);
        $heard = $this->client()->radio(0);
        self::assertSame([Action::Beeper], Action::ofBits($heard->actions));
        self::assertSame([Bar::ThrottleHigh, Bar::Cable, Bar::PackLow], Bar::in($heard->guard->bars));
        $this->world->move('radio:sticks', 'throttle=-1');
        $this->world->move('tilt', 'upside_down');
        $this->world->move('radio:lever.A', '2');
        $this->pace->wait(2.0);
        $heard = $this->client()->radio(0);
        self::assertSame([Action::Arm], Action::ofBits($heard->actions));
        self::assertSame([Bar::Tilted, Bar::Cable, Bar::PackLow], Bar::in($heard->guard->bars));
        self::assertFalse($heard->guard->armed);
    }

    /** Flicks between two looks are met as they happen, and on at power-up never counts. */
    public function testArmingIsTheBoardsOwnMachine(): void
    {
        $this->wired('rill-c', ['action.arm.on_in' => '5:1750-']);
        $this->world->move('transmitter', '1');
        $this->world->move('radio:lever.A', '2');
        $this->world->move('props', '0');
        $this->world->move('cable', '0');
        $this->pace->wait(1.0);
        $this->world->move('pack', '1');
        $this->pace->wait(2.0);
        $armed = fn (): bool => true === ($this->world->store->peek()->arming['armed'] ?? null);
        $this->world->move('outdoors', '1');
        self::assertFalse($armed(), 'on at power-up never counts');
        $this->world->move('radio:lever.A', '0');
        $this->pace->wait(0.2);
        $this->world->move('radio:lever.A', '2');
        $this->pace->wait(0.2);
        $this->world->move('outdoors', '0');
        self::assertTrue($armed());
        $this->world->move('cable', '1');
        $this->pace->wait(0.2);
        $this->world->move('radio:lever.A', '0');
        $this->pace->wait(0.2);
        self::assertFalse($this->client()->radio(0)->guard->armed);
    }

    public function testControlsThereAreNotAreRefused(): void
    {
        $this->wired('rill-c');
        $none = [['lever.G', '1'], ['lever.A', '3'], ['sticks', 'flap=1'], ['dial.40.low', '90'], ['x', '1'], ['sticks', 'roll=nan']];
        foreach ($none as [$what, $to]) {
            try {
                $this->world->move("radio:$what", $to);
                self::fail("$what to $to");
            } catch (NothingToMove $e) {
                self::assertStringContainsString('The radio has no', $e->getMessage());
            }
        }
        $this->expectException(LinkError::class);
        $this->client()->edges('9');
    }

    /**
     * @param array<string, float|int|bool|string> $set
     * @param list<array{string, string}>|null     $wires
     */
    private function wired(string $receiver, array $set = [], ?array $wires = null): void
    {
        $this->world->move('cable', '0');
        $this->world->move('pack', '0');
        $this->world->store->change(function (WorldState $s) use ($receiver, $set, $wires): void {
            $s->soldered = $wires ?? self::WIRES[$receiver];
            $s->kept = $set + self::SET[$receiver] + ['uart.1.role' => 'receiver'] + $this->settings('26.01');
            $s->keptVersion = '26.01';
        });
        $this->world->move('cable', '1');
        $this->pace->wait(1.0);
    }
}
