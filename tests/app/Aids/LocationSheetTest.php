<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Aids;

use Ortholex\App\Location\Compass\Turned;
use Ortholex\App\Work\JobState;
use Ortholex\Bench\Position\PlumbState;
use Ortholex\Bench\State\WorldState;
use Ortholex\Core\Homing\GiftNeed;
use Ortholex\Tests\app\Command\CommandCase;

/** Sheet 41 through its forms and jobs. */
final class LocationSheetTest extends CommandCase
{
    private const SHEET = '/craft/bittern/41';

    public function testFromASilentModuleToAFix(): void
    {
        self::assertStringContainsString('Link the craft once', $this->page(self::SHEET));
        $this->link('bittern');
        self::assertStringContainsString('dead on USB alone', $this->page(self::SHEET));
        $this->move('bittern', 'pack', '1');
        $this->listen();
        self::assertStringContainsString('not at the rate its port is set to', $this->page(self::SHEET));
        $job = $this->job('find_module', [], 'bittern');
        self::assertSame(JobState::Done, $job->state, $job->message);
        self::assertSame([57600, 5, 'both', true], [
            $job->result['baud'] ?? 0,
            $job->result['rate'] ?? 0,
            $job->result['sky'] ?? '',
            $job->result['kept'] ?? false,
        ]);
        $page = $this->page(self::SHEET);
        self::assertStringContainsString('UART 3 is set to 38400', $page);
        self::assertStringContainsString('values[uart.3.baud]', $page);
        $this->post('/craft/bittern/stage', ['values' => ['uart.3.baud' => '57600']]);
        self::assertStringContainsString('staged as it speaks: commit it', $this->page(self::SHEET));
        $this->post('/craft/bittern/commit', ['reason' => 'found']);
        usleep(30_000);
        $this->listen();
        preg_match('~<h1>(.*?)</h1>~', $this->page(self::SHEET), $h1);
        self::assertStringContainsString('No fix under a roof: go outside', $h1[1] ?? '');
        $this->move('bittern', 'outdoors', '1');
        self::assertTrue($this->fixed(), 'a fix comes');
        $page = $this->page(self::SHEET);
        preg_match('~<h1>(.*?)</h1>~', $page, $h1);
        self::assertStringContainsString('It knows where it is', $h1[1] ?? '');
        self::assertMatchesRegularExpression('~54\.(9000|8999)\d\d°~', $page);
        self::assertMatchesRegularExpression('~half within \d\.\d\d m~', $this->wandered());
    }

    public function testTheModuleIsToldAndProvedToRemember(): void
    {
        $this->ready41();
        self::assertSame(
            'tell',
            $this->post('/craft/bittern/location/tell', ['baud' => '115200', 'rate' => '5', 'sky' => 'both'], 422)['field'] ?? '',
            'its rate is not found yet',
        );
        $this->job('find_module', [], 'bittern');
        self::assertSame('baud', $this->post('/craft/bittern/location/tell', ['baud' => '31250', 'rate' => '5'], 422)['field']);
        self::assertSame('rate', $this->post('/craft/bittern/location/tell', ['baud' => '9600', 'rate' => '3'], 422)['field']);
        $this->post('/craft/bittern/location/tell', ['baud' => '115200', 'rate' => '10', 'sky' => 'gps']);
        $plumb = PlumbState::fromArray($this->world('bittern')->store->peek()->plumb);
        self::assertSame([115200, 10, 'GPS'], [$plumb->kept['baud'], $plumb->kept['rate'], $plumb->kept['sky']]);
        $this->post('/craft/bittern/stage', ['values' => ['uart.3.baud' => '115200']]);
        $this->post('/craft/bittern/commit', ['reason' => 'told']);
        usleep(30_000);
        $this->listen();
        self::assertStringContainsString('Not proved yet', $this->page(self::SHEET));
        $this->move('bittern', 'pack', '0');
        $this->move('bittern', 'pack', '1');
        usleep(30_000);
        $this->listen();
        self::assertStringContainsString('It remembers 115200 baud', $this->page(self::SHEET));
    }

    public function testTheCompassIsTurnedStagedAndMeasuredAgainstTheMotors(): void
    {
        $this->ready41();
        $at = self::SHEET.'?look=compass';
        self::assertStringContainsString('The compass is off', $this->page($at));
        self::assertSame('compass', $this->post('/craft/bittern/location/turn', [], 422)['field']);
        $this->post('/craft/bittern/stage', ['values' => ['compass.enabled' => '1', 'uart.3.baud' => '57600']]);
        $this->post('/craft/bittern/commit', ['reason' => 'compass']);
        usleep(30_000);
        self::assertStringContainsString('Turn the craft through all poses', $this->page($at));
        // Kept as the job keeps it, of one turning: the job itself watches for forty seconds.
        $this->turned('bittern');
        $page = $this->page($at);
        self::assertStringContainsString('Found. Stage it, and commit.', $page);
        self::assertStringContainsString('roll 180°, pitch 0°, yaw 90°', $page);
        preg_match_all('~name="values\[(compass\.[a-z_.]+)\]" value="([^"]*)"~', $page, $m);
        self::assertContains('compass.offset.x_ut', $m[1]);
        $this->post('/craft/bittern/stage', ['values' => array_combine($m[1], $m[2])]);
        $this->post('/craft/bittern/commit', ['reason' => 'calibrated']);
        usleep(30_000);
        self::assertStringContainsString('The compass is calibrated', $this->page($at));
        self::assertDoesNotSay(GiftNeed::Calibration, $this->page(self::SHEET));
        $this->move('bittern', 'props', '1');
        $refused = $this->job('compass_motors', [], 'bittern');
        self::assertSame(JobState::Failed, $refused->state, 'the props are on');
        $this->move('bittern', 'props', '0');
        $this->move('bittern', 'props_declared_off', '1');
        $job = $this->job('compass_motors', [], 'bittern');
        self::assertSame(JobState::Done, $job->state, $job->message);
        $page = $this->page($at);
        self::assertMatchesRegularExpression('~0\.0[56]\d µT</span> a percent of output~', $page);
        self::assertStringContainsString('told once it had a fix', $page);
        self::assertTrue($this->fixed());
        self::assertMatchesRegularExpression('~off by <span class="fig">\d\.\d°</span> at hover~', $this->page($at));
    }

    public function testTheWayHomeIsRehearsedAndItsDangersShown(): void
    {
        $this->ready41();
        $this->post(
            '/craft/bittern/stage',
            [
                'values' => [
                    'compass.enabled' => '1',
                    'compass.offset.x_ut' => '18.4',
                    'compass.offset.y_ut' => '-31.2',
                    'compass.offset.z_ut' => '22.7',
                    'compass.roll_deg' => '180',
                    'compass.yaw_deg' => '90',
                    'uart.3.baud' => '57600',
                    'motors.loop_rate_hz' => '1000',
                ],
            ],
        );
        $this->post('/craft/bittern/commit', ['reason' => 'as found']);
        usleep(30_000);
        $at = self::SHEET.'?look=home';
        $fly = fn (string $wrong): \Ortholex\App\Work\Job => $this->job(
            'fly_return',
            ['distance' => 60, 'height' => 15, 'wind' => 3, 'from' => 180, 'used' => 20, 'wrong' => $wrong],
            'bittern',
        );
        $job = $fly('nothing');
        self::assertSame(JobState::Done, $job->state, $job->message);
        $page = $this->page($at);
        self::assertMatchesRegularExpression('~down \d\.\d m from home~', (string) preg_replace('~<[^>]+>~', '', $page));
        $fly('before_fix');
        self::assertStringContainsString('Never arm before the fix', $this->page($at));
        $this->post(
            '/craft/bittern/location/return',
            ['distance' => '9999', 'height' => '20', 'wind' => '3', 'from' => '0', 'used' => '3'],
            422,
        );
        self::assertStringContainsString('No flight here has a position', $page);
    }

    public function testACraftWithoutAReceiverIsToldSo(): void
    {
        $this->link('dunlin');
        self::assertStringContainsString('No position receiver is drawn', $this->page('/craft/dunlin/41'));
        self::assertSame('port', $this->post('/craft/dunlin/location/find', [], 422)['field']);
        $this->link();
        self::assertStringContainsString('This board has no compass', $this->page('/craft/curlew/41?look=compass'));
        $this->json('/craft/curlew/search.json');
    }

    public function testAKnownPlaceIsExportedWithoutHome(): void
    {
        $this->ready41();
        $this->post('/craft/bittern/stage', ['values' => ['uart.3.baud' => '57600', 'motors.loop_rate_hz' => '1000']]);
        $this->post('/craft/bittern/commit', ['reason' => 'found']);
        usleep(30_000);
        foreach (['props', 'transmitter'] as $thing) {
            $this->move('bittern', $thing, '1');
        }
        $job = $this->job('fly', ['card' => 'survey', 'seed' => 5, 'seconds' => 30], 'bittern');
        self::assertSame(JobState::Done, $job->state, $job->message);
        $page = $this->page(self::SHEET.'?look=home');
        self::assertSame(1, preg_match('~/location/track/(\d+)\.gpx~', $page, $m));
        $this->browser->request('GET', "/craft/bittern/location/track/$m[1].gpx?home=1");
        $whole = (string) $this->browser->getResponse()->getContent();
        self::assertStringContainsString('<trkpt lat="54.9', $whole);
        $this->browser->request('GET', "/craft/bittern/location/track/$m[1].geojson");
        $data = json_decode((string) $this->browser->getResponse()->getContent(), true);
        self::assertIsArray($data);
        self::assertGreaterThan(0, $data['properties']['points_left_out_near_home'] ?? 0);
        self::assertStringContainsString('m/s it leans', (string) preg_replace('~<[^>]+>~', '', $this->page('/craft/bittern/43')));
    }

    /** Linked, with its pack on, outdoors. */
    private function ready41(): void
    {
        $this->link('bittern');
        $this->move('bittern', 'pack', '1');
        $this->move('bittern', 'outdoors', '1');
        usleep(30_000);
    }

    private function listen(): bool
    {
        return true === ($this->post('/craft/bittern/location/listen')['fixed'] ?? false);
    }

    private function fixed(): bool
    {
        for ($i = 0; $i < 80; ++$i) {
            if ($this->listen()) {
                return true;
            }
            usleep(50_000);
        }

        return false;
    }

    private function wandered(): string
    {
        for ($i = 0; $i < 12; ++$i) {
            $this->listen();
        }

        return $this->page(self::SHEET);
    }

    /** One turning through the poses, as its job keeps it. */
    private function turned(string $slug): void
    {
        $aids = new \Ortholex\Core\Link\Aids\AidsClient(
            self::getContainer()->get(\Ortholex\App\Link\Benches::class)->client($this->craft($slug)),
        );
        $kept = [];
        for ($t = 0.0; $t < 39.0; $t += 0.4) {
            $this->world($slug)->store->change(static function (WorldState $s) use ($t): void {
                $s->tumbleAt = microtime(true) - $t;
            });
            foreach (\array_slice($aids->compass(4), -2) as $reading) {
                $kept[] = $reading->toArray();
            }
        }
        $this->world($slug)->store->change(static function (WorldState $s): void {
            $s->tumbleAt = 0.0;
        });
        $job = new \Ortholex\App\Work\Job($this->craft($slug), 'turn_compass', 'turned', [], microtime(true));
        $job->state = JobState::Done;
        $job->result = ['readings' => $kept, 'settings' => Turned::of($kept, 69.07)?->settings() ?? []];
        $this->entities()->persist($job);
        $this->entities()->flush();
    }
}
