<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench;

use Ortholex\Bench\Link\WorldLink;
use Ortholex\Bench\Power\Mode;
use Ortholex\Bench\Shelf\ShelfMaker;
use Ortholex\Bench\State\WorldState;
use Ortholex\Core\Airframe\LevelCheck;
use Ortholex\Core\Airframe\Rotation;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\PageWriter;

final class BoardTest extends BenchCase
{
    public function testSaysWhoItIsOnceItHasStarted(): void
    {
        $this->world->move('cable', '1');
        $identity = $this->client()->awaitIdentity(2000);
        self::assertSame(
            ['QUERN-F7', 'Quern F7', 'F7', 'Loam', '26.01', false],
            [
                $identity->hardwareId,
                $identity->board,
                $identity->processor,
                $identity->firmware,
                $identity->version?->toString(),
                $identity->inBootloader,
            ],
        );
        $this->pace->wait(5);
        $state = $this->client()->state();
        self::assertGreaterThan(5.0, $state->uptimeS);
        self::assertFalse($state->packRail);
        self::assertSame(0.0, $state->batteryV);
    }

    public function testWithoutTheCableItSaysWhatIsMissing(): void
    {
        $this->world->move('pack', '1');
        $this->pace->wait(1);
        try {
            $this->client()->identity();
            self::fail('It answered through the air.');
        } catch (LinkError $e) {
            self::assertTrue($e->lost);
            self::assertStringContainsString('cable is out', $e->getMessage());
        }
    }

    public function testALinkOfBeforeIsGoneWhenTheCableWasPulledAndPluggedAgain(): void
    {
        $client = $this->plug();
        $client->identity();
        $this->world->move('cable', '0');
        $this->world->move('cable', '1');
        $this->pace->wait(1);
        $this->expectException(LinkError::class);
        $client->identity();
    }

    public function testAttitudeFollowsTheTiltThroughTheMounting(): void
    {
        $client = $this->plug();
        // Its own sensor reads some hundredths of a g beside the truth; the level calibration takes off what that is on the desk.
        $level = LevelCheck::of($client->accelerometer(64), Rotation::degrees(0, 0, 0));
        $client->writeSetting('level.roll_deg', $level->rollDeg);
        $client->writeSetting('level.pitch_deg', $level->pitchDeg);
        foreach (['level' => [0, 0], 'nose_up' => [0, 45], 'right_down' => [45, 0], 'left_down' => [-45, 0]] as $tilt => [$roll, $pitch]) {
            $this->world->move('tilt', $tilt);
            $this->pace->wait(3);
            $state = $client->state();
            // Where gravity points in the board's axes, less what the sensor reads beside it, with the level taken off.
            [$sinR, $cosR, $sinP, $cosP] = [sin(deg2rad($roll)), cos(deg2rad($roll)), sin(deg2rad($pitch)), cos(deg2rad($pitch))];
            $seen = [-$sinP - 0.012, $sinR * $cosP + 0.009, $cosR * $cosP - 0.015];
            $size = sqrt($seen[0] ** 2 + $seen[1] ** 2 + $seen[2] ** 2);
            $down = Rotation::degrees($level->rollDeg, $level->pitchDeg, 0)->apply([$seen[0] / $size, $seen[1] / $size, $seen[2] / $size]);
            $bound = 'level' === $tilt ? 0.15 : 0.3;
            self::assertEqualsWithDelta(rad2deg(atan2($down[1], $down[2])), $state->rollDeg, $bound, $tilt);
            self::assertEqualsWithDelta(rad2deg(asin(-$down[0])), $state->pitchDeg, $bound, $tilt);
            if ('level' === $tilt) {
                self::assertEqualsWithDelta([0.0, 0.0], [$state->rollDeg, $state->pitchDeg], 0.15, 'calibrated, it reads level');
            }
        }
        $client->writeSetting('level.roll_deg', 0);
        $client->writeSetting('level.pitch_deg', 0);
        $client->writeSetting('mounting.yaw_deg', 90);
        $this->world->move('tilt', 'nose_up');
        $this->pace->wait(3);
        self::assertGreaterThan(40, abs($client->state()->rollDeg), 'a wrong mounting turns pitch into roll');
    }

    /** Whatever the rhythm of asking, the mean comes near: 600 readings of 5.8 mg, so within four hundredths of a degree. */
    public function testNoRhythmOfAskingLinesUpWithTheSensorsNoise(): void
    {
        $client = $this->plug();
        foreach ([0.0, 0.001, 0.00415, 0.00685, 0.0137, 0.05] as $wait) {
            $sum = [0.0, 0.0, 0.0];
            for ($i = 0; $i < 600; ++$i) {
                $this->pace->wait($wait);
                foreach ($client->accelerometer(1) as $axis => $g) {
                    $sum[$axis] += $g / 600;
                }
            }
            $level = LevelCheck::of($sum, Rotation::degrees(0, 0, 0));
            $still = LevelCheck::of($client->accelerometer(3000), Rotation::degrees(0, 0, 0));
            self::assertEqualsWithDelta([$still->rollDeg, $still->pitchDeg], [$level->rollDeg, $level->pitchDeg], 0.07, "every $wait s");
        }
    }

    public function testSettingsAreReadWholeWrittenAndRefused(): void
    {
        $client = $this->plug();
        $settings = $client->readSettings();
        self::assertEquals($this->settings('26.01'), $settings->toArray());
        $client->writeSetting('gain.roll.p', 29.5);
        self::assertSame(29.5, $client->readSettings()['gain.roll.p']);
        foreach (['gain.roll.p' => 900.0, 'no.such.setting' => 1] as $name => $value) {
            try {
                $client->writeSetting($name, $value);
                self::fail("$name was taken.");
            } catch (LinkError $e) {
                self::assertTrue($e->refused);
            }
        }
    }

    public function testWhatWasNotKeptIsGoneWithThePower(): void
    {
        $client = $this->plug();
        $client->writeSetting('gain.roll.p', 20.0);
        $client->keepSettings();
        $client->writeSetting('gain.roll.p', 50.0);
        $this->world->move('cable', '0');
        self::assertSame(Mode::Off, $this->world->store->peek()->mode);
        self::assertSame(20.0, $this->plug()->readSettings()['gain.roll.p']);
    }

    public function testPropsDeclaredOffLapsesWithPowerOrCable(): void
    {
        foreach (['cable', 'pack'] as $thing) {
            $this->world->move($thing, '1');
            $this->world->move('props_declared_off', '1');
            self::assertTrue($this->world->store->peek()->propsDeclaredOff);
            $this->world->move($thing, '0');
            self::assertFalse($this->world->store->peek()->propsDeclaredOff);
        }
    }

    /** Boards and benches of before the numbers by year and month. */
    public function testABoardFlashedUnderTheFirstNumbersAnswersWithTheNumberOfNow(): void
    {
        $this->solder('QUERN-F7', '4.1.2');
        $this->world->store->change(static fn (WorldState $s) => ($s->keptVersion = '4.1.2'));
        $client = $this->plug();
        self::assertSame('25.08', $client->identity()->version?->toString());
        self::assertTrue($client->readSettings()->has('motors.idle_permille'), 'which counted its idle in microseconds');
        self::assertSame('25.08', $this->world->store->peek()->keptVersion);
        self::assertSame('26.10-pre1', WorldState::fromArray(['runningVersion' => '4.4.0-pre1'])->runningVersion);
        self::assertSame('9.9', WorldState::fromArray(['runningVersion' => '9.9'])->runningVersion);
    }

    public function testAnotherBoardsFirmwareHangsUntilTheBootloaderButtonIsPressed(): void
    {
        $this->solder('QUERN-F7-2', '26.06');
        $client = $this->plug();
        try {
            $client->identity();
            self::fail('It answered.');
        } catch (LinkError $e) {
            self::assertStringContainsString('did not answer', $e->getMessage());
        }
        $this->world->move('bootloader_button', '1');
        $this->pace->wait(1);
        $identity = $client->identity();
        self::assertTrue($identity->inBootloader);
        self::assertSame('QUERN-F7', $identity->hardwareId);
        self::assertNull($identity->version);
        $this->expectException(LinkError::class);
        $this->client()->readSettings();
    }

    public function testAnImageIsWrittenVerifiedAndRuns(): void
    {
        $client = $this->toBootloader();
        $pages = $this->pages('26.06');
        $told = [];
        $writer = new PageWriter($client);
        $writer->write($pages, 0, static function (int $done, int $of) use (&$told): void {
            $told[] = [$done, $of];
        });
        $writer->verify($pages, static fn (int $done, int $of) => null);
        self::assertSame([\count($pages), \count($pages)], $told[\count($told) - 1]);
        $client->run();
        self::assertSame('26.06', $client->awaitIdentity(2000)->version?->toString());
    }

    public function testPulledInTheMiddleItWaitsInItsBootloaderAndIsFinishedFromThere(): void
    {
        $client = $this->toBootloader();
        $pages = $this->pages('26.06');
        try {
            (new PageWriter($client))->write($pages, 0, function (int $done): void {
                if (9 === $done) {
                    $this->world->move('cable', '0');
                }
            });
            self::fail('It wrote through the air.');
        } catch (LinkError $e) {
            self::assertTrue($e->lost);
        }
        $client = $this->plug();
        self::assertTrue($client->identity()->inBootloader, 'half-written firmware does not start');
        $writer = new PageWriter($client);
        self::assertSame(9, $writer->alreadyWritten($pages));
        $writer->write($pages, 9, static fn (int $done, int $of) => null);
        $writer->verify($pages, static fn (int $done, int $of) => null);
        $client->run();
        self::assertSame('26.06', $client->awaitIdentity(2000)->version?->toString());
    }

    public function testAWornPageIsRetriedThenNamed(): void
    {
        $this->world->move('fault:worn_flash', '1');
        $client = $this->toBootloader();
        $before = $this->world->store->peek()->requests;
        try {
            (new PageWriter($client))->write($this->pages('26.06'), 0, static fn (int $done, int $of) => null);
            self::fail('A worn page took.');
        } catch (FirmwareError $e) {
            self::assertStringContainsString(\sprintf('0x%08X', $this->demo->model->flashFrom + 17 * 2048), $e->getMessage());
        }
        self::assertSame(17 + 4, $this->world->store->peek()->requests - $before, 'one try and three more');
    }

    public function testDamagedFlashIsFoundByReadingBack(): void
    {
        $client = $this->toBootloader();
        $pages = $this->pages('26.06');
        $writer = new PageWriter($client);
        $writer->write($pages, 0, static fn (int $done, int $of) => null);
        $flash = new \Ortholex\Bench\Flash\FlashFile($this->world->store->flashPath(), $this->demo->model->flashBytes());
        $flash->write(5 * 2048 + 100, \chr(\ord($flash->read(5 * 2048 + 100, 1)) ^ 1));
        $this->expectException(FirmwareError::class);
        $this->expectExceptionMessage(\sprintf('0x%08X', $this->demo->model->flashFrom + 5 * 2048));
        $writer->verify($pages, static fn (int $done, int $of) => null);
    }

    public function testANoisyCableIsOutlasted(): void
    {
        $this->world->move('fault:noisy_cable', '1');
        $client = $this->plug();
        for ($i = 0; $i < 60; ++$i) {
            self::assertSame('QUERN-F7', $client->identity()->hardwareId);
        }
    }

    public function testTheBootloaderButtonStopsFirmwareFromStarting(): void
    {
        $client = $this->plug();
        $this->world->move('bootloader_button', '1');
        $this->pace->wait(1);
        self::assertTrue($client->identity()->inBootloader);
        $client->run();
        self::assertFalse($client->awaitIdentity(2000)->inBootloader);
    }

    public function testRubbishOnTheWireIsNotAnswered(): void
    {
        $this->plug();
        $link = new WorldLink($this->world, $this->pace);
        $link->write(random_bytes(4000));
        self::assertSame('', $link->read(100, 50));
        self::assertSame('QUERN-F7', $this->client()->identity()->hardwareId);
    }

    public function testASpunOutputTurnsItsOwnMotorAndStopsByItself(): void
    {
        $client = $this->plug();
        try {
            $client->spin(1, 6);
            self::fail('It turned without power.');
        } catch (LinkError $e) {
            self::assertTrue($e->refused);
            self::assertStringContainsString('flight pack', $e->getMessage());
        }
        $this->world->move('props', '0');
        $this->world->move('pack', '1');
        foreach ($this->demo->physics->wiredPads as $pad => $place) {
            $client->spin($pad, 6);
            self::assertSame($place, $this->world->drive->turning($this->world->store->peek())[0]['place'] ?? null);
            $this->pace->wait(0.6);
            self::assertSame([], $this->world->drive->turning($this->world->store->peek()), 'nobody said it again');
        }
        $client->spin(2, 6);
        $client->spin(2, 0);
        self::assertSame([], $this->world->drive->turning($this->world->store->peek()));
        $this->expectException(LinkError::class);
        $client->spin(1, 40);
    }

    public function testWhoLiesAboutThePropsSeesWhatHappens(): void
    {
        $client = $this->plug();
        $this->world->move('pack', '1');
        $this->world->move('props_declared_off', '1');
        try {
            $client->spin(1, 6);
            self::fail('The cable held.');
        } catch (LinkError $e) {
            self::assertTrue($e->lost);
        }
        $state = $this->world->store->peek();
        self::assertStringContainsString('leapt off the desk', $state->mishap);
        self::assertFalse($state->cable);
        self::assertFalse($state->propsDeclaredOff);
        self::assertSame([], $this->world->drive->turning($state));
        $this->world->move('cable', '1');
        self::assertSame('', $this->world->store->peek()->mishap);
    }

    public function testThereIsNothingElseToMove(): void
    {
        foreach ([['tilt', 'sideways'], ['fault:gremlins', '1'], ['desk', '1']] as [$thing, $to]) {
            try {
                $this->world->move($thing, $to);
                self::fail("$thing moved.");
            } catch (\InvalidArgumentException $e) {
                self::assertNotSame('', $e->getMessage());
            }
        }
    }

    private function toBootloader(): \Ortholex\Core\Link\BoardClient
    {
        $client = $this->plug();
        $client->toBootloader();
        self::assertTrue($client->awaitIdentity(2000)->inBootloader);

        return $client;
    }

    /** @return array<int, string> */
    private function pages(string $version): array
    {
        return PageWriter::pages(
            ShelfMaker::image('QUERN-F7', $version, '', $this->demo->model->flashFrom, 40),
            $this->demo->model->flashFrom,
            2048,
        );
    }
}
