<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench;

use Ortholex\Bench\State\WorldState;

/** A board on the desk whose receiver is wired and set right: cable, pack and transmitter are in and on, the props off. */
abstract class DeskCase extends BenchCase
{
    private const WIRES = [['rill-c.v', '4V5'], ['rill-c.gnd', 'GND-L2'], ['rill-c.tx', 'RX1'], ['rill-c.rx', 'TX1']];
    private const SET = [
        'receiver.protocol' => 'crsf',
        'uart.1.role' => 'receiver',
        'uart.1.baud' => '420000',
        'uart.1.inverted' => false,
        'action.arm.on_in' => '5:1750-',
        'level.roll_deg' => 0.3,
    ];

    /** @param array<string, float|int|bool|string> $set */
    protected function onDesk(array $set = []): void
    {
        $this->world->move('cable', '0');
        $this->world->move('pack', '0');
        $this->world->store->change(function (WorldState $s) use ($set): void {
            $s->soldered = self::WIRES;
            $s->kept = $set + self::SET + $this->settings('26.01');
            $s->keptVersion = '26.01';
            $s->radio = ['boundTo' => '1', 'model' => '1'];
            $s->chargeUsed = 0.05;
        });
        $this->world->move('props', '0');
        $this->world->move('cable', '1');
        $this->world->move('pack', '1');
        $this->world->move('transmitter', '1');
        $this->world->move('radio:lever.A', '0');
        $this->world->move('radio:sticks', 'throttle=-1');
        $this->pace->wait(2.0);
        $this->client()->radio(0);
    }
}
