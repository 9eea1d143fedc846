<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Command;

/** Sheet 23 through its forms. */
final class SwitchesTest extends CommandCase
{
    public function testLeversAreFoundFromWhereTheyStay(): void
    {
        $this->heard();
        $this->post('/craft/curlew/switches/levers', ['do' => 'forget', 'channel' => '5']);
        self::assertStringNotContainsString('Lever on <span class="fig">5', $this->page('/craft/curlew/23'));
        $this->post('/craft/curlew/switches/levers', ['do' => 'begin']);
        foreach (['1', '2', '0'] as $to) {
            $this->move('curlew', 'radio:lever.A', $to);
            $this->look('curlew', 0.5);
        }
        $this->post('/craft/curlew/switches/levers', ['do' => 'finish']);
        self::assertStringContainsString('Lever on <span class="fig">5', $this->page('/craft/curlew/23'));
        self::assertEqualsWithDelta([1000.0, 1500.0, 2000.0], $this->craft()->radio['levers'][5]['positions'] ?? [], 1.0);
    }

    public function testNothingSeenChangesNothing(): void
    {
        $this->heard();
        $before = $this->craft()->radio;
        $this->post('/craft/curlew/switches/levers', ['do' => 'begin']);
        $this->post('/craft/curlew/switches/levers', ['do' => 'finish']);
        self::assertEquals($before, $this->craft()->radio);
    }

    public function testACellIsStagedAndTheWholeTruthOfTheTableIsChecked(): void
    {
        $this->link();
        $this->post('/craft/curlew/switches/cell', ['cell' => 'arm.7.1', 'on' => '1']);
        self::assertSame(['action.arm.on_in' => '5:1750-, 7:1500-'], $this->staged($this->craft()));
        self::assertStringContainsString('One flick arms', $this->page('/craft/curlew/23'));
        $this->post('/craft/curlew/switches/cell', ['cell' => 'arm.7.1', 'on' => '1', 'with' => '6.0']);
        self::assertSame(['action.arm.on_in' => '5:1750-, 6:-1250 with 7:1500-'], $this->staged($this->craft()));
        $this->post('/craft/curlew/switches/cell', ['cell' => 'arm.7.1', 'on' => '0']);
        self::assertSame([], $this->staged($this->craft()));
        foreach (['arm.7.9', 'arm.12.0', 'dance.5.0', ''] as $cell) {
            $this->post('/craft/curlew/switches/cell', ['cell' => $cell, 'on' => '1'], 422);
        }
        $itself = ['cell' => 'arm.7.1', 'on' => '1', 'with' => '7.0'];
        self::assertSame('with', $this->post('/craft/curlew/switches/cell', $itself, 422)['field']);
    }

    public function testEdgesTooNearAreSnappedMidway(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['action.record.on_in' => '8:1498-']]);
        self::assertStringContainsString('is too near the position at 1500', $this->page('/craft/curlew/23'));
        $this->post('/craft/curlew/switches/snap', ['action' => 'record']);
        self::assertSame(['action.record.on_in' => '8:1250-'], $this->staged($this->craft()));
        self::assertStringContainsString('Nothing to watch out for', $this->page('/craft/curlew/23'));
    }

    public function testEveryRemarkStandsWithItsMend(): void
    {
        $this->link();
        $all = [
            'action.arm.on_in' => '',
            'action.return.on_in' => '8:1750-',
            'action.camera_level.on_in' => '14:1500-',
            'action.record.on_in' => '3:1500-',
            'action.horizon.on_in' => '6:-1750',
        ];
        $this->post('/craft/curlew/stage', ['values' => $all]);
        $html = $this->page('/craft/curlew/23');
        $mends = ['Set arm by flicking a lever', 'To 41 Location', 'Show the levers', 'Take record off it', 'To 43 Camera and video'];
        foreach ($mends as $mend) {
            self::assertStringContainsString($mend, $html);
        }
        self::assertStringContainsString('angle wins', $html);
        self::assertStringContainsString('Set horizon elsewhere', $html);
        $this->post('/craft/curlew/stage', ['values' => ['action.arm.on_in' => '7:1500-', 'motors.still_when_armed' => true]]);
        $html = $this->page('/craft/curlew/23');
        self::assertStringContainsString('cell=arm.7.1', $html, 'a lever of two positions needs a second one');
        self::assertStringContainsString('Let them turn when armed', $html);
    }

    public function testWhatIsOnNowIsSaid(): void
    {
        $this->heard();
        $this->move('curlew', 'pack', '1');
        $this->move('curlew', 'radio:lever.B', '2');
        $this->move('curlew', 'radio:lever.A', '1');
        usleep(80_000);
        $now = $this->json('/craft/curlew/switches/now.json');
        self::assertSame(['beeper'], $now['on']);
        self::assertSame('Now: beeper; without the cable, arm would be taken.', $now['says']);
        $this->move('curlew', 'radio:manner', 'stops');
        $this->move('curlew', 'transmitter', '0');
        usleep(400_000);
        self::assertStringContainsString('hears no transmitter', (string) json_encode($this->json('/craft/curlew/switches/now.json')));
        self::assertSame('action', $this->post('/craft/curlew/switches/choose', ['action' => 'arm'], 422)['field']);
    }
}
