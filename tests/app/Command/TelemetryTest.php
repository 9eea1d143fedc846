<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Command;

/** Telemetry on sheet 21: what goes back, and what it takes. */
final class TelemetryTest extends CommandCase
{
    public function testATwoWayReceiverNeedsOnlyToBeToldSo(): void
    {
        $this->heard();
        $this->move('curlew', 'pack', '1');
        self::assertStringContainsString('It takes 1 setting, in one Commit.', $this->page('/craft/curlew/21'));
        $this->post('/craft/curlew/radio/stage', ['what' => 'telemetry']);
        self::assertSame(['telemetry.enabled' => true], $this->staged($this->craft()));
        $this->post('/craft/curlew/commit', ['reason' => 'telemetry']);
        usleep(60_000);
        $html = $this->page('/craft/curlew/21');
        self::assertMatchesRegularExpression('~2\d\.\d V, \d+ mAh used~', $html);
        self::assertSame('battery', array_key_first($this->told('curlew')));
        // What each sensor tells is chosen.
        $this->post('/craft/curlew/stage', ['values' => ['telemetry.attitude' => '1', 'telemetry.battery' => '0']]);
        $this->post('/craft/curlew/commit', ['reason' => 'other']);
        usleep(60_000);
        self::assertNull($this->told('curlew')['battery']);
        self::assertIsArray($this->told('curlew')['attitude']);
    }

    public function testAWireThatIsNotThereIsNamed(): void
    {
        $this->heard('bittern');
        $this->post('/craft/bittern/wiring/draw', ['what' => 'cut', 'from' => 'rill-port.one', 'to' => 'SW1']);
        self::assertStringContainsString('The telemetry pin of the receiver is on no UART.', $this->page('/craft/bittern/21'));
        $this->post('/craft/bittern/wiring/draw', ['what' => 'wire', 'from' => 'rill-port.one', 'to' => 'SW1']);
        $this->post('/craft/bittern/wiring/draw', ['what' => 'bridge', 'from' => 'J2']);
        self::assertStringContainsString('The telemetry wire cannot work as it is drawn.', $this->page('/craft/bittern/21'));
        $this->post('/craft/bittern/radio/stage', ['what' => 'telemetry']);
        self::assertSame([], $this->staged($this->craft('bittern')));
    }

    public function testAPadWhoseJumperIsOpenCarriesNothing(): void
    {
        $this->heard('bittern');
        $this->move('bittern', 'pack', '1');
        $this->post('/craft/bittern/radio/stage', ['what' => 'telemetry']);
        $this->post('/craft/bittern/commit', ['reason' => 'telemetry']);
        usleep(60_000);
        self::assertIsArray($this->told('bittern')['battery'] ?? null);
        // The iron opens the jumper: what is set is as it was, and nothing goes back.
        $this->move('bittern', 'pack', '0');
        $this->move('bittern', 'cable', '0');
        $this->post('/craft/bittern/wiring/draw', ['what' => 'bridge', 'from' => 'J2']);
        $this->post('/craft/bittern/wiring/solder');
        $this->link('bittern');
        $this->move('bittern', 'pack', '1');
        usleep(60_000);
        self::assertSame([], $this->told('bittern'));
    }

    /** @return array<mixed> what the transmitter's screen shows */
    private function told(string $slug): array
    {
        $live = $this->json("/craft/$slug/live.json");
        self::assertIsArray($live['bench'] ?? null);

        return \is_array($live['bench']['told'] ?? null) ? $live['bench']['told'] : [];
    }
}
