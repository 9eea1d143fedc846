<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Wiring\WiringCode;

final class WiringTest extends AppCase
{
    public function testWiresAreCheckedAsTheyAreDrawnAndTheSettingsFollow(): void
    {
        self::assertStringNotContainsString('data-spot=', $this->page('/craft/dunlin/13'), 'no board, no drawing of it');
        self::assertSame('board', $this->draw(['what' => 'wire', 'from' => 'rill-c.tx', 'to' => 'RX1'], 422)['field']);
        $this->link('dunlin');
        self::assertSays(Fact::of(WiringCode::NotWired, name: 'Rill C'), $this->page('/craft/dunlin/13'));
        self::assertStringContainsString(
            'Crossed',
            (string) json_encode($this->draw(['what' => 'wire', 'from' => 'rill-c.tx', 'to' => 'TX1'])['refused']),
        );
        // A pin has one wire: drawing it again moves it, in either direction.
        $this->draw(['what' => 'wire', 'from' => 'RX1', 'to' => 'rill-c.tx']);
        foreach (
            [
                'rill-c.rx' => 'TX1',
                'rill-c.v' => '4V5',
                'rill-c.gnd' => 'GND-L2',
                'heron-400.v' => '9V',
                'heron-400.gnd' => 'GND-R6',
                'heron-400.one' => 'TX2',
            ] as $pin => $pad
        ) {
            $last = $this->draw(['what' => 'wire', 'from' => $pin, 'to' => $pad]);
        }
        self::assertSame([], $last['refused']);
        self::assertStringContainsString('wiring/stage"', $this->page('/craft/dunlin/13'), 'sound, so its settings may be staged');
        $this->post('/craft/dunlin/wiring/stage');
        $staged = $this->staged($this->craft('dunlin'));
        self::assertSame(
            ['receiver', '420000', true, 'video', '9600', true],
            [
                $staged['uart.1.role'],
                $staged['uart.1.baud'],
                $staged['video.enabled'],
                $staged['uart.2.role'],
                $staged['uart.2.baud'],
                $staged['uart.2.half_duplex'],
            ],
        );
        self::assertStringContainsString('restarts twice, in order', $this->page('/craft/dunlin/13'));
        $this->post('/craft/dunlin/commit', ['reason' => 'wired']);
        self::assertStringNotContainsString('wiring/stage"', $this->page('/craft/dunlin/13'), 'the settings agree with the wiring');
        self::assertSame('video', $this->craft('dunlin')->settings['uart.2.role']);
    }

    /** The board itself takes no job for a feature it did not start with: order matters on the wire. */
    public function testTheBoardRefusesAJobWhoseFeatureIsOff(): void
    {
        $this->link('dunlin');
        $this->post('/craft/dunlin/stage', ['values' => ['uart.3.role' => 'gps']]);
        $refused = $this->post('/craft/dunlin/commit', ['reason' => ''], 422);
        self::assertSame('location.enabled', $refused['field']);
        $client = self::getContainer()->get(\Ortholex\App\Link\Benches::class)->client($this->craft('dunlin'));
        $client->writeSetting('location.enabled', true);
        try {
            $client->writeSetting('uart.3.role', 'gps');
            self::fail('It took the job before the restart.');
        } catch (\Ortholex\Core\Link\LinkError $e) {
            self::assertStringContainsString('needs location.enabled switched on, and a restart', $e->getMessage());
        }
    }

    public function testPartsAndJumpersArePutDownAndTakenAway(): void
    {
        $this->link('dunlin');
        $this->draw(['what' => 'part', 'from' => 'plumb-g2']);
        foreach (['plumb-g2.v' => '4V5', 'plumb-g2.gnd' => 'GND-L2', 'plumb-g2.tx' => 'RX3', 'plumb-g2.rx' => 'TX3'] as $pin => $pad) {
            $last = $this->draw(['what' => 'wire', 'from' => $pin, 'to' => $pad]);
        }
        self::assertStringContainsString('J3', (string) json_encode($last['refused']));
        self::assertSame([], $this->draw(['what' => 'bridge', 'from' => 'J3'])['refused']);
        self::assertStringContainsString('Jumper J3, bridged', $this->page('/craft/dunlin/13'));
        $this->draw(['what' => 'cut', 'from' => 'plumb-g2.gnd', 'to' => 'GND-L2']);
        self::assertSays(Fact::of(WiringCode::NoGround, name: 'Plumb G2'), $this->page('/craft/dunlin/13'));
        $this->draw(['what' => 'no_part', 'from' => 'plumb-g2']);
        self::assertStringNotContainsString('Plumb G2 has', $this->page('/craft/dunlin/13'));
        self::assertSame(
            'to',
            $this->draw(['what' => 'wire', 'from' => 'plumb-g2.tx', 'to' => 'RX3'], 422)['field'],
            'it is not there any more',
        );
        self::assertSame('from', $this->draw(['what' => 'part', 'from' => 'toaster'], 422)['field']);
        self::assertSame('what', $this->draw(['what' => 'burn'], 422)['field']);
    }

    public function testPartsAreListenedToAndTheirRateIsFound(): void
    {
        $this->link('bittern');

        $listen = fn (string $part, string $every = '', int $status = 200): array => $this->post(
            '/craft/bittern/wiring/listen',
            ['part' => $part, 'every' => $every],
            $status,
        );
        self::assertSame('silent', $listen('rill-s')['verdict'], 'it has not heard its transmitter since it has power');
        $this->world('bittern')->move('transmitter', '1');
        usleep(60_000);
        self::assertStringContainsString('SBUS at 100000 baud, inverted', (string) json_encode($listen('rill-s')));
        self::assertSame('silent', $listen('plumb-g2')['verdict']);
        self::assertSays(Fact::of(WiringCode::RailDeadOnUsb, rail: '5 V', name: 'Plumb G2'), $this->page('/craft/bittern/13'));
        $this->world('bittern')->move('pack', '1');
        self::assertSame('rubbish', $listen('plumb-g2')['verdict'], 'somebody told it another rate, and to remember it');
        self::assertSame(['understood', 57600], [$listen('plumb-g2', '1')['verdict'], $listen('plumb-g2', '1')['baud']]);
        $this->post('/craft/bittern/stage', ['values' => ['uart.3.baud' => '57600']]);
        $this->post('/craft/bittern/commit', ['reason' => 'found']);
        usleep(20_000);
        self::assertSame('understood', $listen('plumb-g2')['verdict']);
        self::assertSame('part', $listen('toaster', '', 422)['field']);
    }

    public function testOnlyAPowerlessBoardIsSoldered(): void
    {
        $this->link('dunlin');
        $this->draw(['what' => 'part', 'from' => 'plumb-g2']);
        foreach (['plumb-g2.rx' => 'TX2', 'plumb-g2.tx' => 'RX2', 'plumb-g2.v' => '3V3', 'plumb-g2.gnd' => 'GND-R6'] as $pin => $pad) {
            $this->draw(['what' => 'wire', 'from' => $pin, 'to' => $pad]);
        }
        self::assertSame('solder', $this->post('/craft/dunlin/wiring/solder', [], 422)['field']);
        self::assertSame('silent', $this->post('/craft/dunlin/wiring/listen', ['part' => 'plumb-g2'])['verdict']);
        $this->world('dunlin')->move('cable', '0');
        $this->post('/craft/dunlin/wiring/solder');
        $this->link('dunlin');
        self::assertSame(
            'rubbish',
            $this->post('/craft/dunlin/wiring/listen', ['part' => 'plumb-g2'])['verdict'],
            'UART 2 is not set to its rate yet',
        );
        $this->post('/craft/dunlin/wiring/stage');
        $this->post('/craft/dunlin/commit', ['reason' => 'wired']);
        usleep(20_000);
        self::assertSame('understood', $this->post('/craft/dunlin/wiring/listen', ['part' => 'plumb-g2'])['verdict']);
    }

    public function testTheOtherCraftAreWiredAsTheyFly(): void
    {
        foreach (['curlew', 'bittern'] as $slug) {
            $this->link($slug);
            $html = $this->page("/craft/$slug/13");
            // Bittern's telemetry is soldered, and nobody has switched it on yet.
            self::assertSame('bittern' === $slug, str_contains($html, 'wiring/stage"'), $slug);
            self::assertStringNotContainsString('stop-edge', $html, $slug);
        }
        $this->post('/craft/bittern/wiring/stage');
        $uart = array_map(static fn (string $w): string => "uart.software_1.$w", ['role', 'baud', 'inverted', 'half_duplex']);
        self::assertEqualsCanonicalizing(
            ['telemetry.enabled', ...$uart],
            array_keys($this->staged($this->craft('bittern'))),
        );
    }

    /**
     * @param array<string, string> $body
     *
     * @return array<mixed>
     */
    private function draw(array $body, int $status = 200): array
    {
        return $this->post('/craft/dunlin/wiring/draw', $body, $status);
    }
}
