<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Record\Staging;

final class FrameTest extends AppCase
{
    public function testShownLevelAndNoseUpTheMountingFollowsAndIsMended(): void
    {
        self::assertStringContainsString('cable is out', (string) json_encode($this->post('/craft/dunlin/frame/pose', ['pose' => 'level'], 409)));
        $this->link('dunlin');
        self::assertSame('pose', $this->post('/craft/dunlin/frame/mounting', [], 422)['field']);
        self::assertSame('pose', $this->post('/craft/dunlin/frame/pose', ['pose' => 'sideways'], 422)['field']);
        $this->show('level', 'level');
        $this->show('nose_up', 'nose_up');
        $html = $this->page('/craft/dunlin/14');
        self::assertStringContainsString('The board sits turned 90° to the right; the settings say otherwise.', $html);
        $this->post('/craft/dunlin/frame/mounting');
        self::assertSame(['mounting.yaw_deg' => 90.0], self::getContainer()->get(Staging::class)->of($this->craft('dunlin')));
        $this->post('/craft/dunlin/commit', ['reason' => 'the cable leaves to the right']);
        self::assertStringContainsString('and the settings say so', $this->page('/craft/dunlin/14'));
        // The proof: the picture follows the craft.
        usleep(50_000);
        $attitude = $this->json('/craft/dunlin/live.json')['link']['attitude'] ?? null;
        self::assertIsArray($attitude);
        self::assertEqualsWithDelta(0, $attitude[0], 1.0);
        self::assertEqualsWithDelta(45, $attitude[1], 1.0);
    }

    public function testPosesThatContradictAreSaidToAndShownAgain(): void
    {
        $this->link('dunlin');
        $this->show('level', 'level');
        $this->show('level', 'nose_up');
        self::assertStringContainsString('too alike', $this->page('/craft/dunlin/14'));
        self::assertStringContainsString('too alike', (string) json_encode($this->post('/craft/dunlin/frame/mounting', [], 422)));
        $this->post('/craft/dunlin/frame/again');
        self::assertStringContainsString('Which way does the board face? Show it.', $this->page('/craft/dunlin/14'));
    }

    private function show(string $tilt, string $pose): void
    {
        $world = self::getContainer()->get(\Ortholex\App\Craft\Worlds::class)->of($this->craft('dunlin'));
        $world->move('tilt', $tilt);
        // The tilt takes a quarter of a second of life; it is let settle.
        $world->store->change(static function ($s): void { $s->tiltChangedAt -= 60; });
        $this->post('/craft/dunlin/frame/pose', ['pose' => $pose]);
    }
}
