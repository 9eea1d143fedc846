<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Settings\Airframes;
use Ortholex\App\Settings\Staging;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\MotorPlace;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Drive\SignalTiming;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\Consistency;
use PHPUnit\Framework\Attributes\Group;

/** A frame has the motors that are mapped, each motor of a custom one keeps its way, and what is level reads level. */
final class FrameMapTest extends AppCase
{
    public function testAMapToAMotorThatTheFrameHasNotIsRefused(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['pad.5.drives' => 'left']]);
        $refused = $this->post('/craft/curlew/commit', ['reason' => 'a sixth arm'], 422);
        self::assertStringContainsString('utput 5 is set to drive the left motor', (string) json_encode($refused));
        self::assertSame('pad.5.drives', $refused['field']);
        // Put there behind our back, it does not fly.
        $this->post('/craft/curlew/discard');
        $craft = $this->craft();
        $craft->settings = $craft->settings->with(['pad.5.drives' => 'left']);
        $this->entities()->flush();
        self::assertSame([5 => 'left'], self::getContainer()->get(Airframes::class)->unfounded($craft));
        $this->ready();
        $error = $this->post('/craft/curlew/logs/fly', ['card' => 'cruise'], 422)['error'] ?? '';
        self::assertStringContainsString('will not arm', \is_string($error) ? $error : '');
    }

    public function testTakingAMotorAwayTurnsNoOther(): void
    {
        $this->link('bittern');
        $before = [];
        foreach (self::getContainer()->get(Airframes::class)->of($this->craft('bittern'))->motors as $m) {
            $before[$m->place] = $m->spin;
        }
        self::assertCount(6, $before);
        $this->post('/craft/bittern/frame/layout', ['layout' => 'custom']);
        $this->post('/craft/bittern/stage', ['values' => ['motor_place.left.forward_mm' => 0, 'motor_place.left.right_mm' => 0]]);
        $frame = self::getContainer()->get(Airframes::class)->staged($this->craft('bittern'));
        self::assertNotNull($frame);
        self::assertCount(5, $frame->motors);
        foreach ($frame->motors as $m) {
            self::assertSame($before[$m->place], $m->spin, $m->place);
        }
        self::assertStringContainsString('motor_place.right.turns', $this->page('/craft/bittern/14'), 'each can be set');
    }

    public function testAMotorTurnsAsItIsSetElseAgainstItsNeighbour(): void
    {
        $set = ['frame.layout' => 'custom'];
        foreach (['front_left' => [90, -90], 'front_right' => [90, 90], 'rear' => [-120, 1]] as $place => [$forward, $right]) {
            $set["motor_place.$place.forward_mm"] = $forward;
            $set["motor_place.$place.right_mm"] = $right;
        }
        $set = SettingSet::of($set);
        $spins = static fn (string ...$more): array => array_column(
            array_map(
                static fn (MotorPlace $m): array => [$m->place, $m->spin],
                Airframe::of($set->with(self::turns($more)))->motors,
            ),
            1,
            0,
        );
        self::assertSame(['front_right' => -1, 'rear' => 1, 'front_left' => -1], $spins());
        self::assertSame(
            ['front_right' => 1, 'rear' => 1, 'front_left' => -1],
            $spins(front_right: 'clockwise', rear: 'against_neighbours'),
        );
        self::assertSame(-1, $spins(rear: 'counter_clockwise')['rear']);
    }

    /**
     * @param array<int|string, string> $more by place
     *
     * @return array<string, string>
     */
    private static function turns(array $more): array
    {
        $named = [];
        foreach ($more as $place => $turn) {
            $named["motor_place.$place.turns"] = $turn;
        }

        return $named;
    }

    /** What the calibration takes off and what shows the attitude are the same sensor: on a level desk it reads level. */
    #[Group('slow')]
    public function testAfterTheLevelCalibrationTheBoardReadsLevel(): void
    {
        foreach (['curlew', 'bittern', 'dunlin'] as $slug) {
            $this->link($slug);
            if ('dunlin' === $slug) {
                // Its board lies a quarter turn about.
                foreach (['level', 'nose_up'] as $pose) {
                    $this->world($slug)->move('tilt', $pose);
                    usleep(2_200_000);
                    $this->post("/craft/$slug/frame/pose", ['pose' => $pose]);
                }
                $this->world($slug)->move('tilt', 'level');
                usleep(2_200_000);
                $this->post("/craft/$slug/frame/mounting");
                $this->post("/craft/$slug/commit", ['reason' => 'as it lies']);
            }
            $this->post("/craft/$slug/frame/level");
            $staged = $this->staged($this->craft($slug));
            if ([] !== $staged) {
                $this->post("/craft/$slug/commit", ['reason' => 'level']);
            }
            usleep(50_000);
            for ($i = 0; $i < 5; ++$i) {
                [$roll, $pitch] = $this->attitude($slug);
                self::assertEqualsWithDelta(0.0, $roll, 0.101, "$slug roll");
                self::assertEqualsWithDelta(0.0, $pitch, 0.101, "$slug pitch");
            }
        }
    }

    public function testEverySignalFitsALoopThatCanBeChosen(): void
    {
        $rates = Catalogue::loam()->get('motors.loop_rate_hz', Version::parse('26.06'))->choices;
        self::assertSame('50', $rates[0]);
        foreach (MotorSignal::cases() as $signal) {
            $timing = SignalTiming::of($signal, false);
            self::assertContains((string) $timing->highestLoopHz(), $rates, $signal->value);
            $set = Catalogue::loam()
                ->defaults(Version::parse('26.06'))
                ->with(['motors.protocol' => $signal->value, 'motors.loop_rate_hz' => (string) $timing->highestLoopHz()]);
            $codes = array_map(
                static fn (Clash $c): mixed => $c->what->code,
                Consistency::of($set, Version::parse('26.06'), new Circumstances(4, 'F7')),
            );
            self::assertNotContains(ClashCode::SignalLongerThanLoop, $codes);
        }
    }

    public function testAHardwareDifferenceIsAcceptedOnceWithANote(): void
    {
        $this->link('dunlin');
        $this->post('/craft/dunlin/bench', ['thing' => 'pack', 'to' => '1']);
        $this->post('/craft/dunlin/escs/read');
        self::assertStringContainsString('front left: firmware, hardware', $this->page('/craft/dunlin/16'));
        self::assertSame('note', $this->post('/craft/dunlin/escs/accept', ['note' => ''], 422)['field']);
        $this->post('/craft/dunlin/escs/accept', ['note' => 'a spare was fitted on the marsh']);
        $html = $this->page('/craft/dunlin/16');
        self::assertStringContainsString('front left: firmware ·', $html);
        self::assertStringNotContainsString('may stay so', $html);
        // Another ESC of other hardware is news again.
        $craft = $this->craft('dunlin');
        $identity = $craft->escs[1]['identity'] ?? null;
        self::assertIsArray($identity);
        $craft->escs[1] = ['identity' => ['layout' => 'P3'] + $identity];
        $this->entities()->flush();
        self::assertStringContainsString('hardware', $this->page('/craft/dunlin/16'));
    }

    public function testWhatIsRoundedIsSaid(): void
    {
        $this->link();
        $said = $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => '30.3', 'gain.yaw.i' => '91']])['said'] ?? '';
        self::assertSame('gain.roll.p goes in steps: 30.3 became 30.5.', $said);
        self::assertArrayNotHasKey('said', $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => '31']]));
    }

    /** Another firmware runs: what waits to be committed passes the same migration as what is on the craft. */
    public function testWhatIsStagedSurvivesAFlash(): void
    {
        $this->link();
        $staging = self::getContainer()->get(Staging::class);
        $staging->stage($this->craft(), ['gain.roll.p' => 30, 'link_loss.tone' => false, 'gain.roll.d' => 11]);
        $job = $this->job('flash', ['image' => 'loam-26.06-quern-f7', 'keep' => true]);
        self::assertSame('', $job->message);
        $this->entities()->clear();
        self::assertEquals(['gain.roll.p' => 30.0, 'gain.roll.d' => 8.0], $this->staged($this->craft()), 'clipped to what 26.06 takes');
        $html = $this->page('/craft/curlew/12');
        self::assertStringContainsString('What was staged', $html);
        self::assertStringContainsString('link_loss.tone', $html);
    }

    /** @return array{float, float} roll and pitch that the board tells, deg */
    private function attitude(string $slug): array
    {
        $board = $this->world($slug);

        return \array_slice($board->board($board->store->peek())->attitude(), 0, 2);
    }
}
