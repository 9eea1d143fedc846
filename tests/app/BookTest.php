<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Book\Sheet\Sheets;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Snapshot;
use PHPUnit\Framework\Attributes\Group;

final class BookTest extends AppCase
{
    #[Group('slow')]
    public function testTheWorkshopSaysWhatEachCraftNeeds(): void
    {
        $html = $this->page('/');
        foreach (['Dunlin', 'Curlew', 'Bittern', 'Look before touching', 'Wigeon Point Marsh Survey'] as $words) {
            self::assertStringContainsString($words, $html);
        }
    }

    public function testEverySheetStandsAsATabAndUnbuiltOnesSaySo(): void
    {
        foreach (self::getContainer()->get(Sheets::class)->all() as $sheet) {
            $html = $this->page("/craft/bittern/$sheet->number");
            self::assertStringContainsString($sheet->name, $html);
            self::assertSame(!$sheet->built, str_contains($html, 'This sheet is not built yet'), $sheet->number);
            self::assertStringContainsString('aria-current=page', $html);
        }
    }

    public function testLinkingReadsTheBoardAndKeepsASnapshotTheFirstTime(): void
    {
        $problem = $this->post('/craft/curlew/link', [], 409);
        self::assertSame('The USB cable is out. Plug it in on the bench strip.', $problem['error']);
        self::assertNull($this->craft()->board, 'nothing is known of it');
        $this->link();
        $html = $this->page('/craft/curlew/11');
        self::assertSame(['Quern F7', '26.01'], [$this->craft()->board, $this->craft()->version]);
        self::assertStringContainsString('Q7-00417', $html);
        $snapshots = $this->entities()->getRepository(Snapshot::class)->findAll();
        self::assertCount(1, $snapshots);
        self::assertTrue($snapshots[0]->byItself);
        self::assertEquals($this->craft()->settings, $snapshots[0]->settings);
        $this->post('/craft/curlew/link');
        self::assertCount(1, $this->entities()->getRepository(Snapshot::class)->findAll(), 'only the first time');
    }

    public function testTheLiveStateFollowsTheBench(): void
    {
        $this->link();
        $live = $this->json('/craft/curlew/live.json');
        self::assertTrue($live['link']['linked'] ?? null);
        self::assertIsArray($live['link']['attitude'] ?? null);
        self::assertIsNumeric($live['link']['uptime_s'] ?? null);
        $this->post('/craft/curlew/bench', ['thing' => 'cable', 'to' => '0']);
        $live = $this->json('/craft/curlew/live.json');
        self::assertFalse($live['link']['linked'] ?? null);
        self::assertNull($live['link']['attitude'] ?? null);
        $this->post('/craft/curlew/bench', ['thing' => 'cable', 'to' => '1']);
        self::assertFalse($this->json('/craft/curlew/live.json')['link']['linked'] ?? null, 'plugged again is not linked again');
        self::assertSame('thing', $this->post('/craft/curlew/bench', ['thing' => 'moon', 'to' => '1'], 422)['field']);
    }

    public function testSettingsChangeByOneRoad(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => '29.5', 'gain.roll.d' => 2.9]]);
        self::assertStringContainsString('2 staged', $this->page('/craft/curlew/61'));
        self::assertSame(33.0, $this->world()->store->peek()->running['gain.roll.p'], 'staged is not on the craft');
        $tray = $this->page('/craft/curlew/61');
        self::assertStringContainsString('33.0 → <b>29.5</b>', $tray);
        $this->post('/craft/curlew/commit', ['reason' => 'roll rings']);
        self::assertSame(29.5, $this->world()->store->peek()->kept['gain.roll.p']);
        self::assertSame(2.9, $this->world()->store->peek()->kept['gain.roll.d']);
        $entry = $this->entities()->getRepository(ChangeEntry::class)->findAll()[0];
        self::assertSame(['Commit', 'roll rings', 1], [$entry->what, $entry->reason, $entry->revision]);
        self::assertSame(
            [['name' => 'gain.roll.p', 'from' => 33.0, 'to' => 29.5], ['name' => 'gain.roll.d', 'from' => 1.7, 'to' => 2.9]],
            $entry->items,
        );
        self::assertSame([], $this->staged($this->craft()));
        $this->post("/craft/curlew/changes/{$entry->id}/back");
        self::assertSame(['gain.roll.p' => 33.0, 'gain.roll.d' => 1.7], $this->staged($this->craft()));
    }

    public function testASettingThatNeedsARestartGetsOne(): void
    {
        $this->link();
        $booted = $this->world()->store->peek()->bootedAt;
        $this->post('/craft/curlew/stage', ['values' => ['motors.protocol' => 'dshot600']]);
        self::assertStringContainsString('The board restarts once', $this->page('/craft/curlew/61'));
        $this->post('/craft/curlew/commit');
        self::assertGreaterThan($booted, $this->world()->store->peek()->bootedAt);
        self::assertSame('dshot600', $this->craft()->settings['motors.protocol']);
    }

    public function testBadValuesAreRefusedAtTheirFieldAndStageNothing(): void
    {
        $this->link();
        foreach (['gain.roll.p' => '900', 'notch.motor.orders' => '1,x', 'no.such' => 1] as $name => $value) {
            self::assertSame(
                $name,
                $this->post('/craft/curlew/stage', ['values' => ['gain.roll.i' => 100, $name => $value]], 422)['field'],
            );
        }
        self::assertSame([], $this->staged($this->craft()));
        self::assertSame('tray', $this->post('/craft/curlew/commit', [], 422)['field']);
    }

    public function testWhatClashesCannotBeCommittedAndStaysStaged(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['feel.roll.half_dps' => 700]]);
        $problem = $this->post('/craft/curlew/commit', [], 422);
        self::assertSame('feel.roll.half_dps', $problem['field']);
        self::assertStringContainsString('Cannot be', $this->page('/craft/curlew/61'));
        self::assertCount(1, $this->staged($this->craft()));
    }

    public function testNothingStagedIsLostWithoutTheCable(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 20]]);
        $this->post('/craft/curlew/bench', ['thing' => 'cable', 'to' => '0']);
        self::assertStringContainsString('cable is out', (string) json_encode($this->post('/craft/curlew/commit', [], 409)));
        self::assertCount(1, $this->staged($this->craft()));
        self::assertCount(0, $this->entities()->getRepository(ChangeEntry::class)->findAll());
    }

    public function testStagingTheCraftsOwnValueTakesTheChangeBack(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 20]]);
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 33]]);
        self::assertSame([], $this->staged($this->craft()));
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 20, 'gain.roll.i' => 90]]);
        $this->post('/craft/curlew/discard', ['name' => 'gain.roll.p']);
        self::assertSame(['gain.roll.i' => 90.0], $this->staged($this->craft()));
        $this->post('/craft/curlew/discard', ['name' => '']);
        self::assertSame([], $this->staged($this->craft()));
    }

    public function testSettingsGoOutAndComeInAsYaml(): void
    {
        $this->link();
        $this->browser->request('GET', '/craft/curlew/settings.yaml');
        $yaml = (string) $this->browser->getResponse()->getContent();
        self::assertStringContainsString('gain.roll.p: 33.0', $yaml);
        $this->post('/craft/curlew/settings.yaml', ['yaml' => $yaml]);
        self::assertSame([], $this->staged($this->craft()), 'what goes out comes in unchanged');
        $this->post('/craft/curlew/settings.yaml', [
            'yaml' => "gain.roll.d: 2.8\nnotch.motor.orders: [1, 2, 3]\nmotors.rpm_feedback: false\n",
        ]);
        self::assertSame(
            ['gain.roll.d' => 2.8, 'notch.motor.orders' => '1,2,3', 'motors.rpm_feedback' => false],
            $this->staged($this->craft()),
        );
        foreach (
            [
                "gain.roll.p: [1\n" => 'Line 1',
                "gain.roll.p: lots\ngain.pitch.p: 5\n" => '“lots” is not a number',
                'just words' => 'Line 1, column 11: the colon',
            ] as $bad => $why
        ) {
            $problem = $this->post('/craft/curlew/settings.yaml', ['yaml' => $bad], 422);
            self::assertSame('yaml', $problem['field']);
            self::assertStringContainsString($why, (string) json_encode($problem['error'], \JSON_UNESCAPED_UNICODE));
        }
        self::assertCount(3, $this->staged($this->craft()));
    }

    public function testASnapshotIsAWayBack(): void
    {
        $this->link();
        self::assertSame('name', $this->post('/craft/curlew/snapshots', ['name' => ' '], 422)['field']);
        $this->post('/craft/curlew/snapshots', ['name' => 'before I tried']);
        $this->post('/craft/curlew/stage', ['values' => ['gain.pitch.p' => 44]]);
        $this->post('/craft/curlew/commit');
        $html = $this->page('/craft/curlew/72');
        self::assertStringContainsString('before I tried', $html);
        self::assertStringContainsString('1 settings differ', $html);
        $snapshot = $this->entities()
            ->getRepository(Snapshot::class)
            ->findOneBy(['name' => 'before I tried']);
        $this->post('/craft/curlew/snapshots/'.$snapshot?->id.'/stage');
        self::assertSame(['gain.pitch.p' => 30.0], $this->staged($this->craft()));
    }

    public function testSearchFindsSheetsSettingsActionsAndCraft(): void
    {
        $this->link();
        $found = $this->json('/craft/curlew/search.json');
        $names = array_column($found, 'name');
        foreach (['61 Gains', 'gain.roll.p', 'Write firmware', 'Bittern'] as $name) {
            self::assertContains($name, $names);
        }
    }
}
