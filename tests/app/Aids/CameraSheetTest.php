<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Aids;

use Ortholex\App\Settings\Staging;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Tests\app\Command\CommandCase;

/** Sheet 43 through its forms. */
final class CameraSheetTest extends CommandCase
{
    private const SHEET = '/craft/bittern/43';

    protected function setUp(): void
    {
        parent::setUp();
        // The place and its table belong to the installation, not to the book.
        foreach (['video_place.txt', 'video_law.yaml'] as $file) {
            @unlink(self::data()."/$file");
        }
    }

    public function testTheServoIsTriedAndWhatIsSeenIsStaged(): void
    {
        self::assertStringContainsString('Link the craft once', $this->page(self::SHEET));
        $this->link('bittern');
        $seen = $this->post('/craft/bittern/camera/try', ['us' => '2300']);
        self::assertEquals([-71.0, true], [$seen['deg'] ?? 0, $seen['buzzes'] ?? false], 'it strains against its stop');
        $seen = $this->post('/craft/bittern/camera/try', ['us' => '1478']);
        self::assertEqualsWithDelta(0.0, $seen['deg'] ?? 9, 0.1);
        $this->post('/craft/bittern/camera/mark', ['what' => 'level', 'us' => '1478']);
        $this->post('/craft/bittern/camera/mark', ['what' => 'points', 'us' => '1294', 'deg' => '20']);
        $this->post('/craft/bittern/camera/mark', ['what' => 'binds', 'us' => '1170']);
        $this->post('/craft/bittern/camera/mark', ['what' => 'binds', 'us' => '2125']);
        $set = $this->set();
        self::assertSame(
            [1170.0, 1478.0, 2125.0],
            [$set->number('camera.low_us'), $set->number('camera.middle_us'), $set->number('camera.high_us')],
        );
        self::assertSame([9.2, true], [$set->number('camera.us_per_deg'), $set->flag('camera.reversed')]);
        self::assertStringContainsString('The camera looks from -70° to +33°', $this->page(self::SHEET));
        self::assertSame(
            'deg',
            $this->post('/craft/bittern/camera/mark', ['what' => 'points', 'us' => '1460', 'deg' => '2'], 422)['field'],
        );
        self::assertSame('what', $this->post('/craft/bittern/camera/mark', ['what' => 'sings', 'us' => '1460'], 422)['field']);
        self::assertSame('us', $this->post('/craft/bittern/camera/mark', ['what' => 'level', 'us' => '99'], 422)['field']);
    }

    public function testAnOutputThatDrivesAMotorIsRefused(): void
    {
        $this->link('bittern');
        $refused = $this->post('/craft/bittern/camera/pad', ['pad' => '2'], 422);
        self::assertSame('pad', $refused['field']);
        self::assertStringContainsString('drives the motor right', (string) json_encode($refused));
        $this->post('/craft/bittern/camera/pad', ['pad' => '8']);
        self::assertSame([8 => 'camera_tilt'], array_filter($this->set()->drives(), static fn (string $d): bool => 'camera_tilt' === $d));
        $this->post('/craft/bittern/camera/pad', ['pad' => '0']);
        self::assertStringContainsString('The camera is fixed', $this->page(self::SHEET));
        $this->link('dunlin');
        self::assertStringContainsString('The camera is fixed', $this->page('/craft/dunlin/43'));
        self::assertSame('us', $this->post('/craft/dunlin/camera/try', ['us' => '1500'], 422)['field']);
    }

    public function testThePlaceIsAskedOnceAndItsLawHeld(): void
    {
        $this->link('bittern');
        $at = self::SHEET.'?look=video';
        self::assertStringContainsString('Where will it be flown?', $this->page($at));
        self::assertSame('mw', $this->post('/craft/bittern/video/power', ['mw' => '25'], 422)['field'], 'no place, no power');
        self::assertSame('place', $this->post('/craft/bittern/video/place', ['place' => 'the moon'], 422)['field']);
        $this->post('/craft/bittern/video/place', ['place' => 'European short-range devices']);
        self::assertStringContainsString('5788 MHz at 1 mW', $this->page($at));
        $this->link();
        self::assertStringContainsString('5788 MHz', $this->page('/craft/curlew/43?look=video'), 'it is asked once, for all craft');
        $this->post('/craft/bittern/video/power', ['mw' => '25']);
        self::assertSame(25.0, $this->set()->number('video.power_mw'));
        self::assertSame('mw', $this->post('/craft/bittern/video/power', ['mw' => '400'], 422)['field']);
        $this->post('/craft/bittern/stage', ['values' => ['video.mhz' => '5704']]);
        self::assertStringContainsString('5704 MHz is in no band of that place', $this->page($at));
    }

    public function testTheTableOfPlacesIsEditedOrLeftAsItWas(): void
    {
        $this->link('bittern');
        $bad = $this->post('/craft/bittern/video/laws', ['table' => "X:\n  bands: [[5800, 5700, 1]]\n  source: a law"], 422);
        self::assertSame('table', $bad['field']);
        self::assertStringContainsString('band 1', (string) json_encode($bad));
        self::assertSame('table', $this->post('/craft/bittern/video/laws', ['table' => 'a: [b'], 422)['field']);
        self::assertStringContainsString('European short-range devices', $this->page(self::SHEET.'?look=video'));
        $this->post('/craft/bittern/video/laws', ['table' => "Club field:\n  bands: [[5650, 5950, 200]]\n  source: 'our own permit 7'"]);
        $this->post('/craft/bittern/video/place', ['place' => 'Club field']);
        self::assertStringContainsString('our own permit 7', $this->page(self::SHEET.'?look=video'));
    }

    public function testTheModuleIsReadAndWatched(): void
    {
        $this->link('bittern');
        self::assertSame('read', $this->post('/craft/bittern/video/read', [], 422)['field'], 'dark on the cable alone');
        self::assertStringContainsString('Dark: its rail is dead', $this->page(self::SHEET.'?look=video'));
        $this->move('bittern', 'pack', '1');
        usleep(30_000);
        self::assertStringContainsString('40 channels and 4 powers', (string) json_encode($this->post('/craft/bittern/video/read')));
        $this->post('/craft/bittern/video/watch');
        $page = $this->page(self::SHEET.'?look=video');
        self::assertStringContainsString('as read from the module', $page);
        self::assertMatchesRegularExpression('~\d+ °C</span> at 1 mW~', $page, 'the least, until it is armed');
    }

    public function testTheBestSetIsFoundAmongOthers(): void
    {
        $this->link('bittern');
        $page = $this->page(self::SHEET.'?look=video&taken=5740,5800&pilots=2');
        self::assertStringContainsString('nobody disturbs anybody', $page);
        self::assertStringContainsString('5788 MHz disturbs', $this->placed(self::SHEET.'?look=video&taken=5800'));
        self::assertStringNotContainsString('best-set', $this->page(self::SHEET.'?look=video&pilots=-3&taken=rubbish,%00'));
    }

    private function placed(string $at): string
    {
        $this->post('/craft/bittern/video/place', ['place' => 'European short-range devices']);

        return $this->page($at);
    }

    private function set(): SettingSet
    {
        return self::getContainer()->get(Staging::class)->preview($this->craft('bittern'));
    }
}
