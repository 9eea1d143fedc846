<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Aids;

use Ortholex\Bench\State\WorldState;
use Ortholex\Core\Link\Aids\AidsClient;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Tests\bench\BenchCase;

/** Bittern on its bench, wired as it is drawn, linked and with its pack on. */
abstract class AidsCase extends BenchCase
{
    protected string $slug = 'bittern';

    /** @param array<string, float|int|bool|string> $set */
    protected function onBench(array $set = [], bool $pack = true): BoardClient
    {
        $this->world->store->change(function (WorldState $s) use ($set): void {
            $s->soldered = $this->demo->wires['wires'];
            $s->bridged = $this->demo->wires['bridged'];
            $s->kept = $set + ('bittern' === $this->slug ? ['compass.enabled' => true] : []) + $this->settings('26.01');
            $s->keptVersion = '26.01';
        });
        $this->world->move('cable', '1');
        $this->world->move('props', '0');
        if ($pack) {
            $this->world->move('pack', '1');
        }
        $this->pace->wait(1.0);

        return $this->client();
    }

    protected function aids(): AidsClient
    {
        return new AidsClient($this->client());
    }
}
