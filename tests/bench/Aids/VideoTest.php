<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Aids;

use Ortholex\Bench\Video\HeronModule;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Video\Heron;
use Ortholex\Core\Video\Wire\HeronFrame;
use Ortholex\Core\Video\Wire\HeronState;
use Ortholex\Core\Video\Wire\HeronTable;
use Ortholex\Core\Video\Wire\HeronVerb;

/** The video transmitter on its one wire, how warm it gets, and the servo under the camera. */
final class VideoTest extends AidsCase
{
    public function testItsTableIsReadOverTheWire(): void
    {
        $this->onBench();
        $frame = HeronFrame::in($this->aids()->say('5', HeronFrame::BAUD, HeronFrame::ask(HeronVerb::Table)));
        self::assertTrue($frame?->answers(HeronVerb::Table));
        $table = HeronTable::unpack($frame->payload);
        self::assertSame([Heron::mhz(), Heron::POWERS], [$table?->mhz, $table->mw ?? []]);
        self::assertNull(HeronFrame::in($this->aids()->say('5', 19200, HeronFrame::ask(HeronVerb::Table))), 'at another rate');
        self::assertSame('', $this->aids()->say('2', HeronFrame::BAUD, HeronFrame::ask(HeronVerb::Table)), 'nobody hangs there');
    }

    public function testItIsTunedToWhatItHasOnly(): void
    {
        $this->onBench();
        self::assertTrue($this->told(HeronVerb::Tune, 5718)?->answers(HeronVerb::Tune));
        self::assertFalse($this->told(HeronVerb::Tune, 5719)?->answers(HeronVerb::Tune) ?? true, 'no channel of its');
        self::assertFalse($this->told(HeronVerb::Power, 26)?->answers(HeronVerb::Power) ?? true);
        self::assertSame(5718.0, $this->state()?->mhz);
    }

    public function testTheBoardTellsItItsSettingsAndTheLeastUntilArmed(): void
    {
        $this->onBench(['video.mhz' => 5704.0, 'video.power_mw' => 25.0]);
        $state = $this->state();
        self::assertSame([5704.0, 1.0], [$state?->mhz, $state?->mw], 'the least, as nobody armed it');
        $this->client()->writeSetting('video.low_until_armed', false);
        $this->world->move('tilt', 'nose_up');
        self::assertSame(25.0, $this->state()?->mw);
    }

    /** On the bench without air: e^(−t/110 s), from 20 °C, 32 K/W on 0.9 W and 4.5 mW a mW. */
    public function testItGetsWarmAsABodyDoesAndProtectsItself(): void
    {
        $this->onBench(['video.low_until_armed' => false, 'video.power_mw' => 25.0]);
        $from = $this->state()->degC ?? 0.0;
        $this->pace->wait(110.0);
        $ends = 20 + 32 * (0.9 + 0.0045 * 25);
        $is = $this->state();
        self::assertEqualsWithDelta($ends + ($from - $ends) / \M_E, $is->degC ?? 0.0, 0.6);
        self::assertTrue($this->told(HeronVerb::Power, 400)?->answers(HeronVerb::Power));
        $this->pace->wait(600.0);
        $hot = $this->state();
        self::assertNotNull($hot);
        self::assertTrue($hot->protects);
        self::assertSame(1.0, $hot->mw, 'as little as it can');
        self::assertLessThan(95.5, $hot->degC);
    }

    public function testBytesThatAreNoFrameAreNoAnswer(): void
    {
        $even = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar(6));
        $whole = HeronFrame::answer(HeronVerb::State, (new HeronState(5788, 25, 41.3, false))->pack());
        self::assertEquals(
            new HeronState(5788, 25, 41.3, false),
            HeronState::unpack(HeronFrame::in("rub\x5A".$whole.'bish')->payload ?? ''),
        );
        for ($i = 0; $i < 2000; ++$i) {
            $bytes = $whole;
            $at = $even->getInt(0, \strlen($bytes) - 1);
            $bytes[$at] = \chr(\ord($bytes[$at]) ^ (1 << $even->getInt(0, 7)));
            self::assertNull(HeronFrame::in($bytes), 'one flipped bit shows');
            self::assertNull(HeronFrame::in(substr($whole, 0, $even->getInt(0, \strlen($whole) - 1))), 'a torn one is none');
            HeronTable::unpack($even->getBytes($even->getInt(1, 60)));
            HeronModule::of(['mhz' => 'x', 'deg' => []], true, $this->pace)->hears($even->getBytes(20));
        }
        self::assertNull(HeronTable::unpack("\1\2"));
        self::assertNull(HeronState::unpack('short'));
    }

    public function testTheServoBindsAndBuzzesAndGoesBackByItself(): void
    {
        $this->onBench(['camera.pulse_hz' => 50.0]);
        $bench = new \Ortholex\Bench\Room\SimulatedBench($this->world, $this->pace);
        $rest = $bench->state();
        // 1500 µs, and level is at 1478, by −9.2 µs a degree.
        self::assertEqualsWithDelta((1500 - 1478) / -9.2, $rest->cameraDeg ?? 0.0, 0.1);
        self::assertFalse($rest->buzzes);
        $this->aids()->servo(7, 2100.0);
        self::assertSame(-67.6, round($bench->state()->cameraDeg ?? 0.0, 1));
        $this->aids()->servo(7, 2300.0);
        self::assertSame(-71.0, $bench->state()->cameraDeg, 'its stop');
        self::assertTrue($bench->state()->buzzes);
        $this->pace->wait(3.5);
        self::assertEqualsWithDelta($rest->cameraDeg ?? 0.0, $bench->state()->cameraDeg ?? 9.9, 0.1);
        $this->client()->writeSetting('camera.pulse_hz', 330.0);
        self::assertTrue($bench->state()->buzzes, 'pulses faster than it follows');
        $this->expectException(LinkError::class);
        $this->aids()->servo(6, 1500.0);
    }

    private function told(HeronVerb $verb, int $value): ?HeronFrame
    {
        return HeronFrame::in($this->aids()->say('5', HeronFrame::BAUD, HeronFrame::ask($verb, pack('v', $value))));
    }

    private function state(): ?HeronState
    {
        $frame = HeronFrame::in($this->aids()->say('5', HeronFrame::BAUD, HeronFrame::ask(HeronVerb::State)));

        return null === $frame ? null : HeronState::unpack($frame->payload);
    }
}
