<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Guard;

use Ortholex\Tests\app\Command\CommandCase;

/** Sheet 33 through its forms. */
final class PackSheetTest extends CommandCase
{
    public function testTheScaleFollowsTheMeterAndSaysWhatTheOldOneCost(): void
    {
        $this->link('dunlin');
        self::assertSame('meter', $this->post('/craft/dunlin/pack/calibrate', ['meter' => '16.4'], 422)['field'], 'no pack, no voltage');
        $this->move('dunlin', 'pack', '1');
        foreach (['', 'much', '0', '99', '1e9'] as $meter) {
            self::assertSame('meter', $this->post('/craft/dunlin/pack/calibrate', ['meter' => $meter], 422)['field'], $meter);
        }
        $far = $this->post('/craft/dunlin/pack/calibrate', ['meter' => '12.1'], 422);
        self::assertStringContainsString('more than a scale is ever off', (string) json_encode($far));
        $said = $this->post('/craft/dunlin/pack/calibrate', ['bench' => '1']);
        // The divider reads 0.957 of what is: 11/0.957, and an alarm at 3.40/0.957 V.
        self::assertEqualsWithDelta(11 / 0.957, $this->staged($this->craft('dunlin'))['pack.divider_scale'], 0.01);
        self::assertStringContainsString('at 3.55 V a cell instead of 3.40 V', (string) json_encode($said));
        self::assertStringContainsString('counts once the tray is committed', $this->page('/craft/dunlin/33'));
    }

    public function testTwoPointsAreKeptAndUsed(): void
    {
        $this->link('dunlin');
        $this->move('dunlin', 'pack', '1');
        self::assertStringContainsString(
            'first point',
            (string) json_encode($this->post('/craft/dunlin/pack/calibrate', ['bench' => '1', 'first' => '1'])),
        );
        $live = $this->json('/craft/dunlin/live.json');
        $first = ['meter' => $live['bench']['pack_v'] ?? 0, 'reported' => $live['link']['battery_v'] ?? 0];
        $page = $this->page('/craft/dunlin/33?'.http_build_query($first));
        self::assertStringContainsString('First point kept', $page);
        $this->move('dunlin', 'pack_used', '0.85');
        $both = ['bench' => '1', 'meter_before' => $first['meter'], 'reported_before' => $first['reported']];
        $this->post('/craft/dunlin/pack/calibrate', $both);
        self::assertEqualsWithDelta(11 / 0.957, $this->staged($this->craft('dunlin'))['pack.divider_scale'], 0.05);
    }

    public function testPacksAreKeptAndFlightsPutDownToTheOneInUse(): void
    {
        $this->link();
        $this->post('/craft/curlew/pack/cards', ['do' => 'add', 'name' => 'Teasel', 'cells' => '6', 'ah' => '1,5']);
        self::assertSame(
            'name',
            $this->post('/craft/curlew/pack/cards', ['do' => 'add', 'name' => 'Teasel', 'cells' => '6', 'ah' => '1.5'], 422)['field'],
        );
        self::assertSame(
            'name',
            $this->post('/craft/curlew/pack/cards', ['do' => 'add', 'name' => ' ', 'cells' => '6', 'ah' => '1.5'], 422)['field'],
        );
        self::assertSame(
            'ah',
            $this->post('/craft/curlew/pack/cards', ['do' => 'add', 'name' => 'x', 'cells' => '6', 'ah' => 'lots'], 422)['field'],
        );
        $this->ready();
        $log = $this->flown('hover_and_climb', 5, 40);
        $cards = array_column($this->craft()->packs, null, 'name');
        self::assertSame([$log->id], $cards['Teasel']['logs'] ?? null);
        $page = $this->page('/craft/curlew/33');
        // Six cells of 21 mΩ together.
        self::assertMatchesRegularExpression('~3\.[4-6] mΩ a cell~', $page);
        self::assertStringContainsString('from full to flight end', $page);
        $this->post('/craft/curlew/pack/cards', ['do' => 'drop', 'pack' => '3']);
        self::assertStringNotContainsString('Teasel', $this->page('/craft/curlew/33'));
        $this->post('/craft/curlew/pack/cards', ['do' => 'burn', 'pack' => '1'], 422);
    }

    public function testTheCurrentSensorFollowsTheCharger(): void
    {
        $this->link();
        $this->post('/craft/curlew/pack/current', ['counted' => '0.9', 'charged' => '1.0']);
        self::assertSame(9.0, $this->staged($this->craft())['pack.current_scale_mv_per_a']);
        self::assertSame('charged', $this->post('/craft/curlew/pack/current', ['counted' => '0.9', 'charged' => '0.01'], 422)['field']);
    }

    public function testAnOldPackIsSeenAndTheAlarmIsHeard(): void
    {
        $this->link();
        $this->move('curlew', 'pack', '1');
        $alarm = fn (): mixed => $this->json('/craft/curlew/live.json')['bench']['alarm'] ?? null;
        self::assertSame('none', $alarm());
        $this->move('curlew', 'pack_used', '0.85');
        self::assertSame('warns', $alarm());
        $this->move('curlew', 'pack_used', '0.95');
        self::assertSame('ends', $alarm());
        $this->post('/craft/curlew/bench', ['thing' => 'pack_used', 'to' => '7'], 422);
    }
}
