<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Workshop;

use Ortholex\App\Book\Crafts;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Parts\Plan\BuildFault;
use Ortholex\Tests\app\AppCase;
use Symfony\Component\Lock\LockFactory;

/** Craft come into the Workshop: from parts, as copies, by their logs; and go from it. */
final class MakingTest extends AppCase
{
    private const PARTS = [
        'frame' => 'rush-216',
        'motor' => 'whin-22',
        'prop' => 'reed-130-3',
        'esc' => 'osier-45',
        'pack' => 'sedge-6-130',
        'board' => 'QUERN-F7',
        'receiver' => 'rill-c',
    ];
    private const SHEETS = [11, 12, 13, 14, 15, 16, 21, 31, 32, 33, 41, 51, 52, 53, 54, 55, 61, 62, 63, 71];

    public function testWhatIsChosenIsDrawnBeforeAnythingIsMade(): void
    {
        $page = $this->page('/workshop/new');
        self::assertStringContainsString('It flies: hover at', $page);
        $page = $this->page('/workshop/new?frame=rush-140&prop=reed-130-3');
        self::assertStringContainsString('These parts make no craft yet', $page);
        self::assertStringContainsString('The props would meet: 130 mm props overlap by 31 mm', $page);
        self::assertCount(3, $this->slugs());
    }

    public function testOnePutOnTheBenchLinksAndFlies(): void
    {
        $made = $this->post('/workshop/new', ['name' => 'Ruff', 'built' => 'well'] + self::PARTS);
        self::assertSame('ruff', $made['craft']);
        $this->link('ruff');
        $craft = $this->craft('ruff');
        self::assertSame('Quern F7', $craft->board);
        self::assertSame('5.1-inch, 6-cell', $craft->kind);
        self::assertSame(['rill-c'], $craft->wires['parts'] ?? []);
        self::assertNotSame([], $craft->wires['wires'] ?? []);
        foreach (['props', 'outdoors', 'transmitter', 'pack'] as $thing) {
            $this->world('ruff')->move($thing, '1');
        }
        $job = $this->job('fly', ['card' => 'mixed_sticks', 'seed' => 3, 'seconds' => 12], 'ruff');
        self::assertSame('done', $job->state->value, (string) $job->message);
        self::assertStringContainsString('R-0001', $this->page('/craft/ruff/51'));
    }

    public function testMistakesAreMadeAsChosenOrDrawnAndNotTold(): void
    {
        $chosen = ['outputs_mixed' => '1', 'receiver_unset' => '1'];
        $this->post('/workshop/new', ['name' => 'Ruff', 'built' => 'faults', 'faults' => $chosen] + self::PARTS);
        self::assertSame(['outputs_mixed', 'receiver_unset'], $this->craft('ruff')->parts['faults']);
        self::assertNotSame($this->world('ruff')->physics->wiredPads, SettingSet::of($this->world('ruff')->store->peek()->kept)->drives());
        $this->post('/workshop/new', ['name' => 'Teal', 'built' => 'faults', 'number' => 3, 'seed' => 8] + self::PARTS);
        $drawn = array_map(static fn (BuildFault $f): string => $f->value, BuildFault::draw(8, 3));
        self::assertSame($drawn, $this->craft('teal')->parts['faults']);
        self::assertStringNotContainsString('mixed', $this->page('/craft/teal/11'));
    }

    public function testPartsThatDoNotGoTogetherMakeNothing(): void
    {
        $refused = $this->post('/workshop/new', ['name' => 'Ruff', 'prop' => 'reed-203-2'] + self::PARTS, 422);
        self::assertStringContainsString('The props would meet', $refused['error']);
        self::assertSame('name', $refused['field']);
        self::assertCount(3, $this->slugs());
        self::assertDirectoryDoesNotExist(self::data().'/bench/ruff');
    }

    public function testHostileChoicesAreRefusedWithTheirField(): void
    {
        foreach (
            [
                ['frame', 'frame', '../../etc/passwd'],
                ['frame', 'frame', ['x']],
                ['motor', 'motor', "whin\0"],
                ['diagonal_mm', 'diagonal_mm', '1e999'],
                ['diagonal_mm', 'diagonal_mm', '-5'],
                ['weighs_g', 'weighs_g', 'NAN'],
                ['number', 'number', '99'],
                ['seed', 'seed', '9999999999999999999'],
                ['faults', 'faults', ['no_such' => '1']],
                ['faults', 'faults', 'all'],
                ['name', 'name', ''],
                ['name', 'name', str_repeat('n', 41)],
            ] as [$says, $field, $value]
        ) {
            $refused = $this->post('/workshop/new', [$field => $value] + ['name' => 'Ruff', 'built' => 'faults'] + self::PARTS, 422);
            self::assertSame($says, $refused['field'], (string) json_encode($value));
        }
        self::assertCount(3, $this->slugs());
    }

    public function testNamesAreOneEachAndMakeAddresses(): void
    {
        $name = 'Blåmes №1 / "quick"';
        $made = $this->post('/workshop/new', ['name' => $name] + self::PARTS);
        self::assertMatchesRegularExpression('~^[a-z0-9-]+$~', $made['craft']);
        self::assertStringContainsString(htmlspecialchars($name), $this->page('/'));
        $again = $this->post('/workshop/new', ['name' => mb_strtolower($name)] + self::PARTS, 422);
        self::assertStringContainsString('There is a craft', $again['error']);
        $odd = $this->post('/workshop/new', ['name' => '☃'] + self::PARTS);
        self::assertSame('craft', $odd['craft']);
    }

    /** While one makes a craft another waits: both would take the same name, and one lay on the bench of the other. */
    public function testTwoAtOnceDoNotTakeTheSameName(): void
    {
        $crafts = self::getContainer()->get(Crafts::class);
        $other = self::getContainer()->get(LockFactory::class)->createLock('making-craft');
        $crafts->making(static function () use ($other): void {
            self::assertFalse($other->acquire(), 'held meanwhile');
        });
        self::assertTrue($other->acquire(), 'let go afterwards');
        $other->release();
        try {
            $crafts->making(static fn () => throw new \RuntimeException('it failed'));
        } catch (\RuntimeException) {
            self::assertTrue($other->acquire(), 'let go however it ends');
        }
        $other->release();
    }

    public function testRenamedCopiedPutAwayAndBroughtBack(): void
    {
        $this->link('dunlin');
        $this->post('/craft/dunlin/rename', ['name' => 'Sanderling', 'purpose' => 'for <b>trials</b>']);
        self::assertStringContainsString('for &lt;b&gt;trials&lt;/b&gt;', $this->page('/'));
        $refused = $this->post('/craft/dunlin/rename', ['name' => 'curlew'], 422);
        self::assertSame('name', $refused['field']);
        self::assertSame('Sanderling', $this->craft('dunlin')->name);

        $this->post('/craft/dunlin/copy', ['name' => 'Sanderling 2']);
        $this->link('sanderling-2');
        $of = static fn (array $set): array => array_filter($set, static fn (string $n): bool => !str_starts_with($n, 'esc.'), 2);
        self::assertSame($of($this->craft('dunlin')->settings->toArray()), $of($this->craft('sanderling-2')->settings->toArray()));
        self::assertNotSame($this->craft('dunlin')->serial, $this->craft('sanderling-2')->serial);

        $this->post('/craft/dunlin/put-away');
        self::assertNotContains('dunlin', $this->slugs());
        $page = $this->page('/');
        self::assertStringContainsString('Bring Sanderling back', $page);
        $this->page('/craft/dunlin/71');
        $this->post('/craft/dunlin/bring-back');
        self::assertContains('dunlin', $this->slugs());
        self::assertStringNotContainsString('Bring Sanderling back', $this->page('/'));
    }

    /** From a foreign table to a list of changes, with no board anywhere. */
    public function testACraftKnownOnlyByItsLogs(): void
    {
        $made = $this->post('/workshop/by-logs', ['name' => 'Friend', 'cells' => '4', 'diameter_mm' => '76', 'layout' => 'quad_plus']);
        self::assertSame('friend', $made['craft']);
        $craft = $this->craft('friend');
        self::assertTrue($craft->byHand);
        self::assertSame([4, 'quad_plus'], [$craft->settings['pack.cells'], $craft->settings['frame.layout']]);
        foreach (self::SHEETS as $sheet) {
            $this->page("/craft/friend/$sheet");
        }
        self::assertStringContainsString('No board of Friend is here', $this->page('/craft/friend/15'));
        self::assertStringNotContainsString('id="bench"', $this->page('/craft/friend/51'));

        $this->post('/craft/friend/stage', ['values' => ['gain.roll.p' => '30', 'gain.roll.d' => '2.9']]);
        $yaml = $this->body('/craft/friend/staged.yaml');
        self::assertStringContainsString("gain.roll.p: 30.0\n", $yaml);
        self::assertStringContainsString('gain.roll.d: 2.9', $yaml);
        self::assertStringNotContainsString('gain.pitch.p', $yaml);
        $list = $this->page('/craft/friend/staged');
        self::assertMatchesRegularExpression('~gain\.roll\.p.*?24.*?30~s', $list);
        self::assertSame($craft->settings['gain.roll.p'], 24.0, 'only staged');

        $done = $this->post('/craft/friend/commit', ['reason' => 'set by hand in the field']);
        self::assertStringContainsString('2 changes are taken as set', $done['said']);
        $this->entities()->clear();
        self::assertSame(30.0, $this->craft('friend')->settings['gain.roll.p']);
        $entry = $this->entities()->getRepository(ChangeEntry::class)->findOneBy(['craft' => $this->craft('friend')]);
        self::assertSame(['Set by hand', 'set by hand in the field'], [$entry?->what, $entry?->reason]);
        self::assertStringContainsString('Nothing is staged', $this->page('/craft/friend/staged'));
    }

    public function testSettingsOfAFileGoOverWhatIsAssumed(): void
    {
        $yaml = "# Someone's, Loam 26.01, revision 3\ngain.roll.p: 41.5\npack.cells: 3\n";
        $this->post('/workshop/by-logs', ['name' => 'Friend', 'cells' => '6', 'yaml' => $yaml]);
        self::assertSame([41.5, 3], [$this->craft('friend')->settings['gain.roll.p'], $this->craft('friend')->settings['pack.cells']]);
        self::assertStringNotContainsString('assumed', $this->craft('friend')->story);
        foreach (["gain.roll.p: 999\n", "no.such: 1\n", ": : :\n", "gain.roll.p: [1]\n"] as $i => $bad) {
            $refused = $this->post('/workshop/by-logs', ['name' => "Other $i", 'yaml' => $bad], 422);
            self::assertSame('file', $refused['field']);
            self::assertStringContainsString('line 1', strtolower($refused['error']));
        }
        self::assertCount(4, $this->slugs());
    }

    /** @return list<string> */
    private function slugs(): array
    {
        preg_match_all('~id="craft-([a-z0-9-]+)"~', $this->page('/'), $found);

        return $found[1];
    }

    private function body(string $url): string
    {
        $this->browser->request('GET', $url);
        self::assertResponseIsSuccessful();

        return (string) $this->browser->getResponse()->getContent();
    }
}
