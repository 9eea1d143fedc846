<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Settings\Staging;

final class FrameTest extends AppCase
{
    public function testShownLevelAndNoseUpTheMountingFollowsAndIsMended(): void
    {
        self::assertStringContainsString(
            'cable is out',
            (string) json_encode($this->post('/craft/dunlin/frame/pose', ['pose' => 'level'], 409)),
        );
        $this->link('dunlin');
        self::assertSame('pose', $this->post('/craft/dunlin/frame/mounting', [], 422)['field']);
        self::assertSame('pose', $this->post('/craft/dunlin/frame/pose', ['pose' => 'sideways'], 422)['field']);
        $this->show('level', 'level');
        $this->show('nose_up', 'nose_up');
        self::assertStringContainsString('frame/mounting"', $this->page('/craft/dunlin/14'), 'the settings say otherwise');
        $this->post('/craft/dunlin/frame/mounting');
        self::assertSame(['mounting.yaw_deg' => 90.0], $this->staged($this->craft('dunlin')));
        $this->post('/craft/dunlin/commit', ['reason' => 'the cable leaves to the right']);
        self::assertStringNotContainsString('frame/mounting"', $this->page('/craft/dunlin/14'));
        // The proof: the picture follows the craft.
        usleep(50_000);
        $attitude = $this->json('/craft/dunlin/live.json')['link']['attitude'] ?? null;
        self::assertIsArray($attitude);
        // Dunlin's board is crooked by some degrees besides; that is what level calibration is for.
        self::assertEqualsWithDelta([0, 45], \array_slice($attitude, 0, 2), 4.0);
        self::assertSame('level', $this->post('/craft/dunlin/frame/level', [], 422)['field'], 'nose up is not level');
        $this->tilt('level');
        $this->post('/craft/dunlin/frame/level');
        self::assertEqualsWithDelta([1.9, -2.6], array_values($this->staged($this->craft('dunlin'))), 0.9);
        $this->post('/craft/dunlin/commit', ['reason' => 'it lay level']);
        usleep(50_000);
        $level = $this->json('/craft/dunlin/live.json')['link']['attitude'] ?? null;
        self::assertIsArray($level);
        self::assertEqualsWithDelta([0, 0], \array_slice($level, 0, 2), 0.9, 'the accelerometer has small offsets of its own');
    }

    public function testACustomFrameStartsFromTheOneBeforeAndItsArmsAreMoved(): void
    {
        $this->link('curlew');
        $this->post('/craft/curlew/frame/layout', ['layout' => 'custom']);
        $staging = self::getContainer()->get(Staging::class);
        self::assertSame(
            ['frame.layout', 'motor_place.front_right.forward_mm', 'motor_place.front_right.right_mm'],
            \array_slice($staging->of($this->craft())->names(), 0, 3),
        );
        self::assertSame(76.0, $staging->of($this->craft())['motor_place.front_right.forward_mm'], '216 mm across the corners');
        self::assertStringContainsString('front right motor, 76 mm forward', $this->page('/craft/curlew/14'));
        foreach (['front_right', 'front_left'] as $place) {
            $this->post('/craft/curlew/stage', ['values' => ["motor_place.$place.forward_mm" => 120]]);
        }
        self::assertStringContainsString('120 forward', $this->page('/craft/curlew/14'));
        $this->post('/craft/curlew/commit', ['reason' => 'longer nose']);
        // An arm taken away leaves three motors, which command everything but not independently.
        $gone = ['motor_place.front_left.forward_mm' => 0, 'motor_place.front_left.right_mm' => 0];
        $this->post('/craft/curlew/stage', ['values' => $gone]);
        self::assertStringContainsString('cannot command', $this->page('/craft/curlew/14'));
        self::assertSame('frame.layout', $this->post('/craft/curlew/commit', ['reason' => 'three arms'], 422)['field']);
        $gone = ['motor_place.front_right.forward_mm' => 0, 'motor_place.front_right.right_mm' => 0];
        $this->post('/craft/curlew/stage', ['values' => $gone]);
        self::assertStringContainsString('These arms do not make a frame yet.', $this->page('/craft/curlew/14'));
        self::assertSame('frame.layout', $this->post('/craft/curlew/frame/layout', ['layout' => 'flying_saucer'], 422)['field']);
    }

    public function testPosesThatContradictAreSaidToAndShownAgain(): void
    {
        $this->link('dunlin');
        $this->show('level', 'level');
        $this->show('level', 'nose_up');
        self::assertStringContainsString('too alike', $this->page('/craft/dunlin/14'));
        self::assertStringContainsString('too alike', (string) json_encode($this->post('/craft/dunlin/frame/mounting', [], 422)));
        $this->post('/craft/dunlin/frame/again');
        self::assertStringNotContainsString('too alike', $this->page('/craft/dunlin/14'));
    }

    private function show(string $tilt, string $pose): void
    {
        $this->tilt($tilt);
        $this->post('/craft/dunlin/frame/pose', ['pose' => $pose]);
    }

    private function tilt(string $tilt): void
    {
        $world = $this->world('dunlin');
        $world->move('tilt', $tilt);
        // The tilt takes a quarter of a second of life; it is let settle.
        $world->store->change(static function ($s): void {
            $s->tiltChangedAt -= 60;
        });
    }
}
