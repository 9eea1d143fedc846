<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Link\Escs;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Outcome;
use Ortholex\App\Settings\Snapshot;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobState;
use Ortholex\Bench\Power\Mode;
use Ortholex\Bench\Shelf\ShelfMaker;
use Ortholex\Core\Esc\EscFitReason;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Firmware\IntelHex;
use Ortholex\Core\Settings\Inability;

final class EscTest extends AppCase
{
    private const ALL = 'front_right,rear_right,rear_left,front_left';

    public function testTheyAreFoundInTheOrderCableLinkPackAndItSaysWhatIsMissing(): void
    {
        self::assertStringContainsString('first the cable and the link', $this->page('/craft/dunlin/16'));
        $this->world('dunlin')->move('pack', '1');
        $this->link('dunlin');
        $this->post('/craft/dunlin/escs/read');
        self::assertStringContainsString('take the pack off and on again', $this->page('/craft/dunlin/16'));
        self::assertSame([], $this->craft('dunlin')->escs);
        $this->world('dunlin')->move('pack', '0');
        self::assertStringContainsString('connect the flight pack', $this->page('/craft/dunlin/16'));
        self::assertFalse($this->json('/craft/dunlin/live.json')['link']['escs'] ?? null);
        $this->world('dunlin')->move('pack', '1');
        $this->post('/craft/dunlin/escs/read');
        self::assertTrue($this->json('/craft/dunlin/live.json')['link']['escs'] ?? null);
        $html = $this->page('/craft/dunlin/11');
        foreach (['4 of 4 answer', 'dead time 400 ns, pin layout K7, 32 MHz', 'Bracken 6.2.0', 'Osier 20'] as $words) {
            self::assertStringContainsString($words, $html);
        }
        $snapshots = $this->entities()
            ->getRepository(Snapshot::class)
            ->findBy(['craft' => $this->craft('dunlin')]);
        self::assertSame(
            ['As found at first link', 'ESCs as first found'],
            array_map(static fn (Snapshot $s): string => $s->name, $snapshots),
        );
        self::assertSame(22.0, $snapshots[1]->settings['esc.rear_left.advance_deg']);
    }

    public function testOddOnesAreNamedAndSetAlikeOverTheWire(): void
    {
        $this->powered('dunlin');
        $html = $this->page('/craft/dunlin/16');
        self::assertStringContainsString('2 of 4 ESCs differ from the others.', $html);
        self::assertSays(Fact::of(Inability::FirmwareDoesNotKnow, family: 'Bracken', version: '6.2.0'), $html, 'it cannot honour all');
        self::assertSame('key', $this->post('/craft/dunlin/escs/all', ['key' => 'punch', 'value' => 1], 422)['field']);
        self::assertStringContainsString(
            'lies outside',
            (string) json_encode($this->post('/craft/dunlin/escs/all', ['key' => 'advance_deg', 'value' => 99], 422)),
        );
        $staged = $this->post('/craft/dunlin/escs/all', ['key' => 'advance_deg', 'value' => 18])['staged'];
        self::assertSame(
            [
                'esc.front_right.advance_deg' => 18,
                'esc.rear_right.advance_deg' => 18,
                'esc.rear_left.advance_deg' => 18,
                'esc.front_left.advance_deg' => 18,
            ],
            $staged,
        );
        $this->post('/craft/dunlin/commit', ['reason' => 'alike']);
        self::assertSame(
            [18.0, 18.0, 18.0, 18.0],
            array_map(fn (int $pad): mixed => $this->world('dunlin')->store->peek()->esc($pad)->settings['advance_deg'], [1, 2, 3, 4]),
        );
        $this->post('/craft/dunlin/escs/all', ['key' => 'chirp_wait_min', 'value' => 5]);
        self::assertCount(3, $this->staged($this->craft('dunlin')), 'only those that know it');
        self::assertStringContainsString('Front left is the odd one out.', $this->page('/craft/dunlin/16'));
    }

    /** Three of four take it; the fourth is named, stays staged, and takes it when its joint is mended. */
    public function testAWriteThatThreeOfFourTakeLeavesTheRestStagedForARetry(): void
    {
        $this->powered('curlew');
        $pad = (int) array_search('rear_left', $this->world()->physics->wiredPads, true);
        $this->world()->move('fault:loose_signal_wire', '1');
        $this->post('/craft/curlew/escs/all', ['key' => 'tone_loudness_pct', 'value' => 35]);
        $error = (string) json_encode($this->post('/craft/curlew/commit', ['reason' => 'quieter'], 409));
        foreach (['Rear left did not acknowledge, asked 3 times', 'are done', 'Suspect the signal wire'] as $words) {
            self::assertStringContainsString($words, $error);
        }
        self::assertSame(['esc.rear_left.tone_loudness_pct' => 35.0], $this->staged($this->craft()));
        self::assertSame(25.0, $this->world()->store->peek()->esc($pad)->settings['tone_loudness_pct']);
        $this->entities()->clear();
        $entry = $this->entities()
            ->getRepository(ChangeEntry::class)
            ->findOneBy(['craft' => $this->craft()], ['id' => 'DESC']);
        self::assertNotNull($entry);
        self::assertCount(3, $entry->items, 'what was written is on record');
        self::assertStringContainsString('did not acknowledge the last write', $this->page('/craft/curlew/16'));
        $this->world()->move('fault:loose_signal_wire', '0');
        $this->post('/craft/curlew/escs/read');
        $this->world()->move('fault:shy_esc', '1');
        $this->post('/craft/curlew/commit', ['reason' => 'joint mended']);
        self::assertSame(35.0, $this->world()->store->peek()->esc($pad)->settings['tone_loudness_pct']);
        self::assertStringContainsString('took 2 tries', $this->page('/craft/curlew/16'));
    }

    public function testWithoutThePackNothingIsWrittenAndNothingStagedIsLost(): void
    {
        $this->powered('curlew');
        $this->post('/craft/curlew/stage', ['values' => ['esc.front_left.advance_deg' => 20, 'gain.roll.p' => 31]]);
        $this->world()->move('pack', '0');
        self::assertStringContainsString(
            'do not answer now',
            (string) json_encode($this->post('/craft/curlew/commit', ['reason' => ''], 409)),
        );
        self::assertCount(2, $this->staged($this->craft()));
        self::assertSame(33.0, $this->craft()->settings['gain.roll.p']);
    }

    /** Its pack taken off and on while the board is linked, they answer; no sheet of theirs need have been opened for that. */
    public function testACommitAsksEscsThatCameToPowerAgain(): void
    {
        $this->powered('curlew');
        $this->post('/craft/curlew/stage', ['values' => ['esc.front_left.advance_deg' => 20]]);
        $this->world()->move('pack', '0');
        $this->world()->move('pack', '1');
        $this->post('/craft/curlew/commit', ['reason' => 'on again']);
        self::assertSame([], $this->staged($this->craft()));
        self::assertEquals(20, $this->craft()->settings['esc.front_left.advance_deg']);
    }

    public function testEachEscGetsTheImageMadeForItsOwnHardwareAndBrackenIsConverted(): void
    {
        $this->powered('dunlin');
        $html = $this->page('/craft/dunlin/12/escs?image=withy-1.4.0-40');
        self::assertStringContainsString('Withy 1.4.0 at 40 kHz fits every ESC.', $html);
        self::assertSays(Fact::of(EscFitReason::OtherFamily, family: 'Bracken', product: 'Withy'), $html);
        self::assertStringContainsString('fits 3 of 4', $html, '80 kHz is not made for the slow processor');
        self::assertSame(
            'props',
            $this->post('/craft/dunlin/12/escs/write', ['image' => 'withy-1.4.0-40', 'places' => self::ALL], 422)['field'],
        );
        $this->world('dunlin')->move('props_declared_off', '1');
        self::assertSame(
            'places',
            $this->post('/craft/dunlin/12/escs/write', ['image' => 'withy-1.4.0-80', 'places' => self::ALL], 422)['field'],
        );
        self::assertSame('places', $this->post('/craft/dunlin/12/escs/write', ['image' => 'withy-1.4.0-40', 'places' => ''], 422)['field']);
        self::assertSame(
            'image',
            $this->post('/craft/dunlin/12/escs/write', ['image' => 'withy-9.9.9-40', 'places' => self::ALL], 422)['field'],
        );
        $job = $this->flash('dunlin', [
            'front_right' => self::image('1.4.0', 'Osier 20', 'K7', 64, 350, 40),
            'rear_right' => self::image('1.4.0', 'Osier 20', 'K7', 64, 350, 40),
            'rear_left' => self::image('1.4.0', 'Osier 20', 'K7', 64, 350, 40),
            'front_left' => self::image('1.4.0', 'Osier 20', 'K7', 32, 400, 40),
        ]);
        self::assertSame(JobState::Done, $job->state, $job->message);
        $craft = $this->craft('dunlin');
        $this->entities()->refresh($craft);
        self::assertSame(22.0, $craft->settings['esc.rear_left.advance_deg'], 'settings were carried over');
        self::assertSame(25.0, $craft->settings['esc.front_left.sync_loss_power_cut_pct'], 'what came new starts at its default');
        self::assertContains('esc_settings', $craft->redo);
        $runs = static fn (?EscIdentity $e): array => [$e?->family, $e?->version?->toString()];
        self::assertSame(array_fill(0, 4, ['Withy', '1.4.0']), array_map($runs, array_values(Escs::identities($craft))));
        $this->post('/craft/dunlin/escs/looked');
        $this->entities()->clear();
        self::assertNotContains('esc_settings', $this->craft('dunlin')->redo);
    }

    public function testAnImageThatDoesNotFitIsNotWrittenWhateverTheOrderSays(): void
    {
        $this->powered('dunlin');
        $this->world('dunlin')->move('props_declared_off', '1');
        $before = $this->world('dunlin')->drive->escFlash(1)->read(0, 4096);
        $job = $this->flash('dunlin', ['front_right' => self::image('1.4.0', 'Osier 45', 'P3', 64, 250, 40)]);
        self::assertSame(JobState::Failed, $job->state);
        self::assertStringContainsString('P3', $job->message, 'the layout it was made for');
        self::assertSame($before, $this->world('dunlin')->drive->escFlash(1)->read(0, 4096));
        self::assertSame(Mode::Firmware, $this->world('dunlin')->store->peek()->esc(1)->mode);
    }

    public function testOneThatFailsLeavesTheOthersDoneAndATryAfterwardsWorks(): void
    {
        $this->powered('curlew');
        $this->world()->move('props_declared_off', '1');
        $this->world()->move('fault:loose_signal_wire', '1');
        $images = array_fill_keys(['front_right', 'rear_left', 'front_left'], self::image('1.4.0', 'Osier 45', 'P3', 64, 250, 40));
        $job = $this->flash('curlew', $images);
        self::assertSame(JobState::HalfDone, $job->state, 'half is not done');
        self::assertStringStartsWith('Rear left: ', $job->message);
        self::assertSame(['front_right', 'front_left'], array_keys(\is_array($job->result['done']) ? $job->result['done'] : []));
        self::assertSame(['rear_left'], array_keys(\is_array($job->result['failed']) ? $job->result['failed'] : []));
        $html = $this->page('/craft/curlew/12/escs');
        self::assertStringContainsString('2 written, 1 not', $html);
        self::assertStringContainsString('Front right and front left written; rear left: failed.', $html, 'the heading says it');
        self::assertStringContainsString('value="rear_left"', $html, 'and exactly that one is offered');
        self::assertStringContainsString('Firmware is half written', $this->page('/craft/curlew/16'));
        self::assertStringContainsString('ESC firmware is half written: rear left failed.', $this->page('/'));
        $entry = $this->entities()->getRepository(ChangeEntry::class)->findOneBy([], ['id' => 'DESC']);
        self::assertSame([Outcome::HalfDone, ['ESC of rear left']], [$entry?->outcome, $entry?->left]);
        self::assertStringContainsString('Choose withy-1.2.3-20 again', $this->page('/craft/curlew/73'));
        $this->world()->move('fault:loose_signal_wire', '0');
        $again = $this->flash('curlew', ['rear_left' => self::image('1.4.0', 'Osier 45', 'P3', 64, 250, 40)]);
        self::assertSame(['rear_left' => 'Withy 1.4.0, 40 kHz'], $again->result['done']);
        // Written once more it is no change: no entry says x → x.
        $this->flash('curlew', ['rear_left' => self::image('1.4.0', 'Osier 45', 'P3', 64, 250, 40)]);
        $entry = $this->entities()->getRepository(ChangeEntry::class)->findOneBy([], ['id' => 'DESC']);
        self::assertSame([[], 'The same firmware was written once more.'], [$entry?->items, $entry?->reason]);
        foreach (['/craft/curlew/12/escs', '/craft/curlew/16', '/'] as $page) {
            self::assertStringNotContainsString('half written', $this->page($page), 'what is no longer true is no longer said');
        }
        self::assertStringContainsString('Written and verified', $this->page('/craft/curlew/12/escs'));
    }

    public function testADeadEscIsCaughtAtPowerOnAndRescued(): void
    {
        $this->powered('curlew');
        $this->world()->move('mishap:esc', '1');
        $this->post('/craft/curlew/escs/read');
        self::assertSays(Inability::Silent, $this->page('/craft/curlew/16'));
        self::assertSame('place', $this->post('/craft/curlew/escs/catch', ['place' => 'tail'], 422)['field']);
        $this->post('/craft/curlew/escs/catch', ['place' => 'front_left']);
        $this->world()->move('pack', '0');
        $this->world()->move('pack', '1');
        $this->world()->move('props_declared_off', '1');
        $this->post('/craft/curlew/escs/read');
        self::assertStringContainsString('bootloader only', $this->page('/craft/curlew/11'));
        $job = $this->flash('curlew', ['front_left' => self::image('1.2.3', 'Osier 45', 'P3', 64, 250, 20)]);
        self::assertSame(JobState::Done, $job->state, $job->message);
        self::assertStringContainsString('All 4 ESCs are alike.', $this->page('/craft/curlew/16'));
    }

    /** The shelf's name of Withy for one hardware. */
    private static function image(string $version, string $make, string $layout, int $clock, int $dead, int $khz): string
    {
        return ShelfMaker::escName($make, 'Withy', $version, ShelfMaker::escImage('Withy', $version, $layout, $clock, $dead, $khz));
    }

    /** @param array<string, string> $images */
    private function flash(string $slug, array $images): Job
    {
        $job = $this->job('flash-escs', ['escs' => $images, 'image' => ''], $slug);
        $this->entities()->refresh($this->craft($slug));

        return $job;
    }

    private function powered(string $slug): void
    {
        $this->link($slug);
        $this->world($slug)->move('props', '0');
        $this->world($slug)->move('pack', '1');
        $this->post("/craft/$slug/escs/read");
    }

    public function testAnImageFromDiskIsTakenOnlyWhereSomethingVouchesForIt(): void
    {
        $this->link();
        $this->world()->move('pack', '1');
        $this->post('/craft/curlew/escs/read');
        $known = IntelHex::write(ShelfMaker::escImage('Withy', '1.4.0', 'P3', 64, 250, 40));
        $at = $this->post('/craft/curlew/12/escs/from-disk', ['hex' => $known]);
        self::assertSame('withy-1.4.0-40', $at['image'], 'the shelf knows its bytes');

        $image = ShelfMaker::escImage('Withy', '1.6.0', 'P3', 64, 250, 40);
        $hex = IntelHex::write($image);
        $refused = $this->post('/craft/curlew/12/escs/from-disk', ['hex' => $hex], 422);
        self::assertStringContainsString('nothing on the shelf vouches', $refused['error']);
        $manifest = [
            'product' => 'Withy', 'version' => '1.6.0', 'layout' => 'P3', 'clock_mhz' => 64, 'dead_time_ns' => 250, 'switching_khz' => 40,
            'rpm_feedback' => true, 'sha256' => $image->sha256(), 'date' => '2026-11-28', 'notes' => 'From a friend.',
        ];
        $broken = [
            ['hex' => $hex, 'manifest' => 'no json'],
            ['hex' => $hex, 'manifest' => json_encode(['sha256' => str_repeat('0', 64)] + $manifest)],
            ['hex' => $hex, 'manifest' => json_encode(['clock_mhz' => 'fast'] + $manifest)],
            ['hex' => substr($hex, 0, 4000), 'manifest' => json_encode($manifest)],
            ['hex' => '', 'manifest' => json_encode($manifest)],
            ['hex' => str_repeat("\n", 399_000)],
            ['hex' => [1, 2]],
        ];
        foreach ($broken as $body) {
            $this->post('/craft/curlew/12/escs/from-disk', $body, 422);
        }
        self::assertStringNotContainsString('withy-1.6.0-40', $this->page('/craft/curlew/12/escs'));
        $taken = $this->post('/craft/curlew/12/escs/from-disk', ['hex' => $hex, 'manifest' => json_encode($manifest)]);
        self::assertSame('withy-1.6.0-40', $taken['image']);
        $page = $this->page('/craft/curlew/12/escs?image=withy-1.6.0-40');
        self::assertStringContainsString('From a friend.', $page);
        self::assertStringContainsString('fits all', $page);
        // For another layout it is there, and does not fit.
        $this->post('/craft/dunlin/12/escs/from-disk', ['hex' => $hex]);
        array_map(unlink(...), glob(self::data().'/shelf-escs/disk-*') ?: []);
    }
}
