<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Wiring;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\CommitPlan;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\PadKind;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\Wiring\Wiring;
use Ortholex\Core\Wiring\WiringCode;
use Ortholex\Core\Wiring\WiringFault;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class WiringTest extends TestCase
{
    private const RECEIVER = [['rill-c.v', '4V5'], ['rill-c.gnd', 'GND-L2'], ['rill-c.tx', 'RX1'], ['rill-c.rx', 'TX1']];

    public function testASoundWiringGivesItsSettings(): void
    {
        $wiring = self::wiring(['rill-c'], self::RECEIVER);
        self::assertSame([], $wiring->faults);
        self::assertTrue($wiring->isWhole());
        $settings = $wiring->settings(Catalogue::loam()->defaults(Version::parse('25.08')));
        self::assertSame(
            ['receiver', '420000', false, false, 'crsf'],
            [
                $settings['uart.1.role'],
                $settings['uart.1.baud'],
                $settings['uart.1.inverted'],
                $settings['uart.1.half_duplex'],
                $settings['receiver.protocol'],
            ],
        );
        self::assertSame(['none', 'none', 'none'], [$settings['uart.2.role'], $settings['uart.3.role'], $settings['uart.software_1.role']]);
    }

    /**
     * @param list<string>                $parts
     * @param list<array{string, string}> $wires
     */
    #[DataProvider('faults')]
    public function testEachFaultHasItsOwnCode(array $parts, array $wires, WiringCode $code, ?int $atWire, string $board = 'MARL-F4'): void
    {
        $wiring = self::wiring($parts, $wires, board: $board);
        $found = array_values(array_filter($wiring->faults, static fn (WiringFault $f): bool => $f->what->is($code)));
        self::assertNotEmpty($found, 'found only '.json_encode(array_column($wiring->faults, 'what')));
        self::assertSame([$code->refuses(), $atWire], [$found[0]->refuses, $found[0]->wire]);
        self::assertSame(!$code->refuses(), $wiring->isWhole());
    }

    /** @return iterable<string, array{0: list<string>, 1: list<array{string, string}>, 2: WiringCode, 3: int|null, 4?: string}> */
    public static function faults(): iterable
    {
        $but = self::but(...);
        yield 'crossed' => [['rill-c'], $but([2 => 'TX1', 3 => 'RX1']), WiringCode::Crossed, 2];
        yield 'no ground' => [['rill-c'], $but([1 => null]), WiringCode::NoGround, null];
        yield 'no supply' => [['rill-c'], $but([0 => null]), WiringCode::NoSupply, null];
        yield 'not heard' => [['rill-c'], $but([2 => null]), WiringCode::NotHeard, null];
        yield 'not told' => [['rill-c'], $but([3 => null]), WiringCode::CannotBeTold, null];
        yield 'dead on USB' => [['rill-c'], $but([0 => '5V']), WiringCode::RailDeadOnUsb, 0];
        yield 'too much' => [['rill-c'], $but([0 => '9V']), WiringCode::VoltageTooHigh, 0];
        yield 'too little' => [['rill-c'], $but([0 => '3V3']), WiringCode::VoltageTooLow, 0];
        yield '3.3 V part on 5 V' => [
            ['ledger-m'],
            [['ledger-m.v', '5V'], ['ledger-m.gnd', 'GND-L2'], ['ledger-m.rx', 'TX2']],
            WiringCode::VoltageTooHigh,
            0,
        ];
        yield 'short' => [['rill-c'], $but([0 => 'GND-R2']), WiringCode::ShortCircuit, 0];
        yield 'supply on data' => [['rill-c'], $but([0 => 'RX2']), WiringCode::SupplyOnData, 0];
        yield 'data on supply' => [['rill-c'], $but([3 => '4V5']), WiringCode::SupplyOnData, 3];
        yield 'data on ground' => [['rill-c'], $but([2 => 'GND-L2']), WiringCode::DataOnGround, 2];
        yield 'over two UARTs' => [['rill-c'], $but([3 => 'TX2']), WiringCode::SpreadOverUarts, null];
        yield 'inverted' => [
            ['rill-s'],
            [['rill-s.v', '4V5'], ['rill-s.gnd', 'GND-L2'], ['rill-s.tx', 'RX2']],
            WiringCode::UartCannotInvert,
            2,
        ];
        yield 'half-duplex' => [
            ['heron-400'],
            [['heron-400.v', '9V'], ['heron-400.gnd', 'GND-R6'], ['heron-400.one', 'TX3']],
            WiringCode::UartCannotHalfDuplex,
            2,
        ];
        yield 'half-duplex on the receive pad' => [
            ['heron-400'],
            [['heron-400.v', '9V'], ['heron-400.gnd', 'GND-R6'], ['heron-400.one', 'RX2']],
            WiringCode::OneWireOnReceivePad,
            2,
        ];
        yield 'too slow' => [
            ['ledger-m'],
            [['ledger-m.v', '3V3'], ['ledger-m.gnd', 'GND-L2'], ['ledger-m.rx', 'SW1']],
            WiringCode::UartTooSlow,
            2,
        ];
        yield 'two jobs' => [
            ['rill-c', 'plumb-g2'],
            [...self::RECEIVER, ['plumb-g2.v', '4V5'], ['plumb-g2.gnd', 'GND-L2'], ['plumb-g2.tx', 'RX1'], ['plumb-g2.rx', 'TX1']],
            WiringCode::UartShared,
            null,
        ];
        yield 'open jumper' => [
            ['plumb-g2'],
            [['plumb-g2.v', '4V5'], ['plumb-g2.gnd', 'GND-L2'], ['plumb-g2.tx', 'RX3'], ['plumb-g2.rx', 'TX3']],
            WiringCode::JumperOpen,
            2,
        ];
        yield 'open jumper of another board' => [
            ['heron-400'],
            [['heron-400.v', '9V'], ['heron-400.gnd', 'GND-R2'], ['heron-400.one', 'TX6']],
            WiringCode::JumperOpen,
            2,
            'QUERN-F7',
        ];
    }

    public function testAJumperOnceBridgedIsNoFault(): void
    {
        $wires = [['plumb-g2.v', '4V5'], ['plumb-g2.gnd', 'GND-L2'], ['plumb-g2.tx', 'RX3'], ['plumb-g2.rx', 'TX3']];
        self::assertTrue(self::wiring(['plumb-g2'], $wires, ['J3'])->isWhole());
    }

    public function testAFaultyPartStagesNothingAndLeavesItsUartAsItIs(): void
    {
        $settings = self::wiring(
            ['rill-c'],
            [['rill-c.v', '9V'], ['rill-c.gnd', 'GND-L2'], ['rill-c.tx', 'RX1'], ['rill-c.rx', 'TX1']],
        )->settings(Catalogue::loam()->defaults(Version::parse('26.06')));
        self::assertFalse($settings->has('uart.1.role'));
        self::assertFalse($settings->has('receiver.protocol'));
        self::assertSame('none', $settings['uart.2.role']);
    }

    public function testUnknownEndsAreNoWires(): void
    {
        $wiring = self::wiring(['rill-c', 'nobody'], [['rill-c.tx', 'RX9'], ['x', 'y'], ['RX1', 'rill-c.tx']]);
        self::assertSame([['rill-c.tx', 'RX1']], $wiring->wires);
        self::assertNull(BoardPads::of('NOBODY'));
    }

    /** On every board each part can be wired without a refusal, so no board is a dead end. */
    public function testEveryPartHasASoundPlaceOnEveryBoard(): void
    {
        foreach (['MARL-F4', 'QUERN-F7', 'TARN-H7'] as $id) {
            $board = BoardPads::of($id);
            self::assertNotNull($board);
            $bridged = array_values(array_filter(array_map(static fn ($p) => $p->bridge, $board->pads())));
            $grounds = array_keys(array_filter($board->pads(), static fn ($p): bool => PadKind::Ground === $p->kind));
            foreach (Part::all() as $part) {
                $sound = false;
                foreach (array_keys($board->uarts) as $uart) {
                    foreach ([null, ...$board->rails()] as $rail) {
                        $wires = [];
                        foreach ($part->pins as $pin) {
                            $to = match ($pin->kind) {
                                PadKind::Ground => $grounds[0],
                                PadKind::Power => $rail?->id,
                                PadKind::Transmits => "RX$uart",
                                default => 'software_1' === $uart ? 'SW1' : "TX$uart",
                            };
                            if (null !== $to) {
                                $wires[] = [$pin->id, $to];
                            }
                        }
                        $sound = $sound || Wiring::of($board, [$part->id], $wires, $bridged)->isWhole();
                    }
                }
                self::assertTrue($sound, "$part->name on $id");
            }
        }
    }

    public function testFeaturesGoFirstAndOnlyTheNeededRestartsFollow(): void
    {
        $catalogue = Catalogue::loam();
        $version = Version::parse('26.06');
        $plan = CommitPlan::of(
            SettingSet::of(['uart.3.role' => 'gps', 'uart.3.baud' => '38400', 'location.enabled' => true, 'gain.roll.p' => 30.0]),
            $catalogue,
            $version,
        );
        self::assertSame(2, $plan->restarts());
        self::assertSame(['location.enabled' => true], $plan->rounds[0]['changes']->toArray());
        self::assertSame(['uart.3.role', 'uart.3.baud', 'gain.roll.p'], $plan->rounds[1]['changes']->names());
        self::assertSame(1, CommitPlan::of(SettingSet::of(['uart.1.role' => 'receiver']), $catalogue, $version)->restarts());
        self::assertSame(0, CommitPlan::of(SettingSet::of(['gain.roll.p' => 30.0]), $catalogue, $version)->restarts());
        self::assertSame([], CommitPlan::of(SettingSet::of([]), $catalogue, $version)->rounds);
        self::assertSame(
            1,
            CommitPlan::of(SettingSet::of(['uart.3.role' => 'none', 'location.enabled' => false]), $catalogue, $version)->restarts(),
            'taking away needs no order',
        );
    }

    /**
     * The receiver's wires with some moved to other pads, or left out.
     *
     * @param array<int, string|null> $changes
     *
     * @return list<array{string, string}>
     */
    private static function but(array $changes): array
    {
        $wires = [];
        foreach (self::RECEIVER as $i => [$pin, $pad]) {
            $to = \array_key_exists($i, $changes) ? $changes[$i] : $pad;
            if (null !== $to) {
                $wires[] = [$pin, $to];
            }
        }

        return $wires;
    }

    /**
     * @param list<string>                $parts
     * @param list<array{string, string}> $wires
     * @param list<string>                $bridged
     */
    private static function wiring(array $parts, array $wires, array $bridged = [], string $board = 'MARL-F4'): Wiring
    {
        $pads = BoardPads::of($board);
        self::assertNotNull($pads);

        return Wiring::of($pads, $parts, $wires, $bridged);
    }
}
