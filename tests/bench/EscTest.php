<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench;

use Ortholex\Bench\Esc\EscState;
use Ortholex\Bench\Power\Mode;
use Ortholex\Bench\Shelf\ShelfMaker;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\TeachStep;
use Ortholex\Core\Drive\Tone;
use Ortholex\Core\Link\EscClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\PageWriter;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Signal\Welch;

final class EscTest extends BenchCase
{
    public function testEscsAnswerOnlyInTheOrderCableLinkPack(): void
    {
        $client = $this->plug();
        $this->world->move('pack', '1');
        self::refuses('take the pack off and on again', static fn () => (new EscClient($client, 1))->identity());
        $client->identity();
        self::refuses('take the pack off and on again', static fn () => (new EscClient($client, 1))->identity());
        $this->world->move('pack', '0');
        self::refuses('flight pack', static fn () => (new EscClient($client, 1))->identity());
        $this->world->move('pack', '1');
        $esc = (new EscClient($client, 1))->identity();
        self::assertSame(
            ['P3', 64, 250, 'Withy', '1.4.0', 20, true],
            [
                $esc->layout,
                $esc->clockMhz,
                $esc->deadTimeNs,
                $esc->family,
                $esc->version?->toString(),
                $esc->switchingKhz,
                $esc->rpmFeedback,
            ],
        );
        self::assertEquals($esc, \Ortholex\Core\Esc\EscIdentity::fromArray($esc->toArray()));
    }

    public function testSettingsAreKeptThroughPowerLossAndWrongOnesRefused(): void
    {
        $esc = new EscClient($this->power(), 2);
        self::assertEquals(EscTable::defaults($esc->identity()), $esc->readSettings());
        $esc->writeSettings(SettingSet::of(['advance_deg' => 20.0, 'direction' => 'swapped']));
        self::refuses(
            'lies outside',
            static fn () => $esc->writeSettings(SettingSet::of(['tone_loudness_pct' => 10.0, 'advance_deg' => 90.0])),
        );
        self::refuses('knows no', static fn () => $esc->writeSettings(SettingSet::of(['punch' => 1])));
        $this->world->move('pack', '0');
        self::refuses('no power', static fn () => $esc->identity());
        $this->world->move('pack', '1');
        self::assertSame(
            [20.0, 'swapped', 25.0],
            [$esc->readSettings()['advance_deg'], $esc->readSettings()['direction'], $esc->readSettings()['tone_loudness_pct']],
        );
    }

    public function testADirectionSetInTheEscTurnsThatMotorAlone(): void
    {
        $client = $this->power();
        $way = function (int $pad) use ($client): int {
            $client->spin($pad, 6);

            return $this->world->drive->turning($this->world->store->peek())[0]['direction'] ?? 0;
        };
        $before = array_map($way, [1 => 1, 2 => 2, 3 => 3, 4 => 4]);
        (new EscClient($client, 3))->writeSettings(SettingSet::of(['direction' => 'swapped']));
        self::assertSame(
            [1 => $before[1], 2 => $before[2], 3 => -$before[3], 4 => $before[4]],
            array_map($way, [1 => 1, 2 => 2, 3 => 3, 4 => 4]),
        );
        self::assertSame(['backward:'.$this->demo->physics->wiredPads[3]], $this->world->drive->driveFaults($this->world->store->peek()));
    }

    public function testAShyEscIsAskedAgainAndALooseWireGivenUpAfterThree(): void
    {
        $client = $this->power();
        $pad = (int) array_search('rear_left', $this->demo->physics->wiredPads, true);
        $esc = new EscClient($client, $pad);
        $this->world->move('fault:shy_esc', '1');
        $esc->writeSettings(SettingSet::of(['advance_deg' => 18.0]));
        self::assertSame(2, $esc->tries);
        $this->world->move('fault:shy_esc', '0');
        $this->world->move('fault:loose_signal_wire', '1');
        self::refuses('asked 3 times', static fn () => $esc->writeSettings(SettingSet::of(['advance_deg' => 20.0])));
        $this->world->move('fault:loose_signal_wire', '0');
        self::assertSame(18.0, $esc->readSettings()['advance_deg']);
    }

    public function testAWrittenImageRunsAndAnotherFamilyStartsFromItsDefaults(): void
    {
        $this->solderEsc(1, 'Bracken', '6.2.0');
        $esc = new EscClient($this->power(), 1);
        self::assertSame('Bracken', $esc->identity()->family);
        self::assertFalse($esc->identity()->rpmFeedback);
        self::assertFalse($esc->readSettings()->has('sync_loss_power_cut_pct'));
        $esc->writeSettings(SettingSet::of(['direction' => 'swapped']));
        $esc->toBootloader();
        self::assertTrue($esc->identity()->inBootloader());
        $pages = PageWriter::pages(ShelfMaker::escImage('Withy', '1.4.0', 'P3', 64, 250, 40), 0x1000, 512);
        $writer = new PageWriter($esc);
        $writer->write($pages, 0, static fn () => null);
        $writer->verify($pages, static fn () => null);
        $esc->run();
        self::assertSame(['Withy', 40, true], [$esc->identity()->family, $esc->identity()->switchingKhz, $esc->identity()->rpmFeedback]);
        self::assertSame('as_wired', $esc->readSettings()['direction'], 'the other family lays its settings out otherwise');
    }

    public function testATornWriteLeavesItInItsBootloader(): void
    {
        $esc = new EscClient($this->power(), 4);
        $esc->toBootloader();
        $pages = PageWriter::pages(ShelfMaker::escImage('Withy', '1.5.0-pre1', 'P3', 64, 250, 40), 0x1000, 512);
        foreach (\array_slice($pages, 0, 7, true) as $address => $bytes) {
            $esc->writePage($address, $bytes);
        }
        $this->world->move('pack', '0');
        $this->world->move('pack', '1');
        self::assertTrue($esc->identity()->inBootloader());
        self::assertSame(7, (new PageWriter($esc))->alreadyWritten($pages));
        self::refuses('page', static fn () => $esc->writePage(0x1001, str_repeat("\0", 512)));
    }

    /** What the application never does: bytes of another layout, forced in. */
    public function testAWrongLayoutForcedInLeavesItDeadUntilItIsCaughtAtPowerOn(): void
    {
        $client = $this->power();
        $esc = new EscClient($client, 2);
        $esc->toBootloader();
        (new PageWriter($esc))->write(
            PageWriter::pages(ShelfMaker::escImage('Withy', '1.4.0', 'K7', 64, 350, 20), 0x1000, 512),
            0,
            static fn () => null,
        );
        $esc->run();
        self::assertSame(Mode::Dead, $this->world->store->peek()->esc(2)->mode);
        self::refuses('did not acknowledge', static fn () => $esc->identity());
        $client->spin(2, 6);
        self::assertSame([], $this->world->drive->turning($this->world->store->peek()));
        $client->catchEsc(2);
        $this->world->move('pack', '0');
        $this->world->move('pack', '1');
        self::assertTrue($esc->identity()->inBootloader(), 'held in its bootloader as power came');
        (new PageWriter($esc))->write(
            PageWriter::pages(ShelfMaker::escImage('Withy', '1.4.0', 'P3', 64, 250, 20), 0x1000, 512),
            0,
            static fn () => null,
        );
        $esc->run();
        self::assertSame('Withy', $esc->identity()->family);
        $this->world->move('mishap:esc', '1');
        self::assertSame(
            [Mode::Dead->value],
            array_values(
                array_unique(
                    array_filter(
                        array_map(fn (int $pad): string => $this->world->store->peek()->esc($pad)->mode->value, [1, 2, 3, 4]),
                        static fn (string $m): bool => Mode::Firmware->value !== $m,
                    ),
                ),
            ),
        );
    }

    public function testAnalogueEscsAreTaughtTheirEndPointsAndDigitalOnesAreNot(): void
    {
        $client = $this->plug();
        $client->identity();
        $this->world->move('props', '0');
        $client->writeSetting('motors.protocol', 'oneshot125');
        $client->teach(TeachStep::Full);
        self::refuses('end it first', static fn () => $client->spin(1, 5), withPack: fn () => $this->world->move('pack', '1'));
        self::assertSame(array_fill(0, 4, Tone::TwoRising), $this->world->store->peek()->tones);
        $client->teach(TeachStep::Zero);
        self::assertSame(array_fill(0, 4, Tone::ThreeFalling), \array_slice($this->world->store->peek()->tones, 4));
        $client->teach(TeachStep::End);
        self::assertSame([1000.0, 2000.0], $this->endPoints(3));
        self::refuses('take the pack off first', static fn () => $client->teach(TeachStep::Full));
        $this->world->move('pack', '0');
        $client->writeSetting('motors.protocol', 'dshot300');
        $client->teach(TeachStep::Full);
        $this->world->move('pack', '1');
        self::assertSame([], $this->world->store->peek()->tones, 'a digital signal has no end points');
    }

    public function testRpmAndVibrationTellTheTruePoleCount(): void
    {
        $client = $this->power();
        self::refuses('refused', static fn () => $client->rpm(9));
        $client->writeSetting('motors.rpm_feedback', true);
        $client->spin(1, 8);
        $this->pace->wait(0.4);
        $client->spin(1, 8);
        $reading = $client->rpm(1);
        self::assertEqualsWithDelta(80, \count($reading['erpm']), 10);
        self::assertSame(0.0, $reading['errors_pct']);
        [$samples, $hz] = $client->gyroBurst(0);
        self::assertCount(2048, $samples);
        $density = Welch::withSegment(1024, $hz)->density([$samples])->density;
        $peak = array_search(max($density), $density, true);
        self::assertIsInt($peak);
        $rpm = array_sum($reading['erpm']) / \count($reading['erpm']) / 7;
        self::assertEqualsWithDelta($rpm / 60, ($peak * $hz) / 1024, 4.0, 'the board shakes once a turn');
        $this->solderEsc(2, 'Withy', '1.1.0');
        $this->world->move('pack', '0');
        $this->world->move('pack', '1');
        self::refuses('does not answer on the signal wire', static fn () => $client->rpm(2));
    }

    private static function refuses(string $words, \Closure $act, ?\Closure $withPack = null): void
    {
        if (null !== $withPack) {
            $withPack();
        }
        try {
            $act();
        } catch (LinkError $e) {
            self::assertStringContainsString($words, $e->getMessage());

            return;
        }
        self::fail("Nothing said “{$words}”.");
    }

    public function testEndPointsAreReadAndTypedAsSettingsAndMoveTheMotorsAsTheySay(): void
    {
        $client = $this->plug();
        $client->identity();
        $this->world->move('props', '0');
        $client->writeSetting('motors.protocol', 'pwm');
        $this->world->move('pack', '1');
        $esc = new EscClient($client, 3);
        self::assertSame([1060.0, 1860.0], $this->endPoints(3), 'rough from the factory');
        self::assertSame(1860.0, $esc->readSettings()['high_us']);
        // 7 % is sent as 1,070 µs: a tenth of a hundredth over the low end of 1,060, and nothing at all over 1,080.
        $client->spin(3, 7);
        self::assertEqualsWithDelta(100 * 10 / 800, $this->felt(3), 1e-9);
        $esc->writeSettings(SettingSet::of(['low_us' => 1080.0]));
        self::assertSame([1080.0, 1860.0], $this->endPoints(3));
        $client->spin(3, 7);
        self::assertSame(0.0, $this->felt(3));
        $esc->writeSettings(SettingSet::of(['low_us' => 1000.0, 'high_us' => 2000.0]));
        $client->spin(3, 7);
        self::assertEqualsWithDelta(7.0, $this->felt(3), 1e-9);
        self::refuses('1700', static fn () => $esc->writeSettings(SettingSet::of(['high_us' => 1500.0])));
    }

    public function testWhatAnEarlierBenchKeptBesideTheSettingsIsTakenOver(): void
    {
        $state = EscState::fromMixed(['family' => 'Withy', 'settings' => ['advance_deg' => 15.0], 'lowUs' => 1000.0, 'highUs' => 2000.0]);
        self::assertEquals(['advance_deg' => 15.0, 'low_us' => 1000.0, 'high_us' => 2000.0], $state->settings);
        self::assertEquals($state, EscState::fromMixed($state->toArray()));
    }

    /** @return array{mixed, mixed} low and high, µs */
    private function endPoints(int $pad): array
    {
        $held = $this->world->store->peek()->esc($pad)->settings;

        return [$held['low_us'] ?? null, $held['high_us'] ?? null];
    }

    private function felt(int $pad): float
    {
        return $this->world->drive->felt($this->world->store->peek(), $pad);
    }
}
