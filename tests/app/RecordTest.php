<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Snapshot;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Yaml\Yaml;

/** All settings, the snapshots and the change record: what was, what is, and the ways back. */
final class RecordTest extends AppCase
{
    /** @return iterable<string, array{string}> */
    public static function craftOfTheDemo(): iterable
    {
        yield 'Curlew' => ['curlew'];
        yield 'Bittern' => ['bittern'];
        yield 'Dunlin' => ['dunlin'];
    }

    #[DataProvider('craftOfTheDemo')]
    public function testWhatGoesOutAsYamlComesInAsItWas(string $slug): void
    {
        $this->link($slug);
        $yaml = $this->yaml($slug);
        self::assertStringStartsWith('# '.$this->craft($slug)->name, $yaml);
        $read = Yaml::parse($yaml);
        self::assertIsArray($read);
        self::assertSameSize($this->craft($slug)->settings->toArray(), $read);
        foreach ($this->craft($slug)->settings as $name => $value) {
            self::assertSame($value, $read[$name], $name);
        }
        $said = $this->post("/craft/$slug/settings.yaml", ['yaml' => $yaml])['said'];
        self::assertIsString($said);
        self::assertStringContainsString((string) \count($read), $said);
        self::assertSame([], $this->staged($this->craft($slug)));
    }

    public function testYamlOfAnotherCraftBringsWhatDiffersAndNothingElse(): void
    {
        $this->link('curlew');
        $this->link('bittern');
        $other = EscTable::without($this->craft('bittern')->settings)->toArray();
        $mine = $this->craft('curlew')->settings;
        $both = array_intersect_key($other, $mine->toArray());
        $this->post('/craft/curlew/settings.yaml', ['yaml' => Yaml::dump($both)]);
        $staged = $this->staged($this->craft());
        self::assertNotSame([], $staged);
        foreach ($both as $name => $value) {
            self::assertSame(!Setting::same($value, $mine[$name]), isset($staged[$name]), $name);
        }
    }

    /** @return iterable<string, array{string, list<string>}> */
    public static function badYaml(): iterable
    {
        yield 'one of many' => ["gain.roll.p: 20\ngain.roll.i: much\ngain.roll.d: 2\n", ['gain.roll.i', '“much” is not a number']];
        yield 'out of range' => ["gain.roll.p: 2000\n", ['gain.roll.p', 'lies outside']];
        yield 'a name there is not' => ["gain.bank.p: 20\n", ['gain.bank.p', 'no such setting']];
        yield 'a name of a later release' => ["gain.roll.p: 20\nno.more: 1\n", ['no.more']];
        yield 'a map where a value belongs' => ["gain.roll.p: {a: 1}\n", ['gain.roll.p', 'is not a number']];
        yield 'a date' => ["gain.roll.p: 2026-11-25\n", ['gain.roll.p', 'lies outside']];
        yield 'an object of a program' => ["gain.roll.p: !php/object 'O:8:\"stdClass\":0:{}'\n", ['gain.roll.p', 'has no value']];
        yield 'a reference to nothing' => ["gain.roll.p: *there\n", ['Line 1']];
        yield 'tabs' => ["gain:\n\troll: 3\n", ['Line 2']];
        yield 'nothing' => ['', ['nothing to read']];
        yield 'a word' => ['hello', ['Line 1, column 6: the colon']];
    }

    /** @param list<string> $says */
    #[DataProvider('badYaml')]
    public function testYamlIsTakenWholeOrNotAtAll(string $yaml, array $says): void
    {
        $this->link();
        $problem = $this->post('/craft/curlew/settings.yaml', ['yaml' => $yaml], 422);
        self::assertSame('yaml', $problem['field']);
        foreach ($says as $words) {
            self::assertIsString($problem['error']);
            self::assertStringContainsString($words, $problem['error']);
        }
        self::assertSame([], $this->staged($this->craft()));
    }

    public function testTheSheetShowsWhatDiffersFromTheFactoryAndAllWhenAsked(): void
    {
        $this->link();
        $craft = $this->craft();
        $defaults = Catalogue::loam()->defaults($craft->version());
        $differs = $other = null;
        foreach (EscTable::without($craft->settings) as $name => $value) {
            Setting::same($value, $defaults[$name]) ? ($other ??= $name) : ($differs ??= $name);
        }
        self::assertNotNull($differs);
        self::assertNotNull($other);
        $short = $this->page('/craft/curlew/71');
        self::assertStringContainsString($differs, $short);
        self::assertStringNotContainsString(">$other<", $short);
        $all = $this->page('/craft/curlew/71?all=1');
        self::assertStringContainsString($differs, $all);
        self::assertStringContainsString($other, $all);
        self::assertStringContainsString($other, $this->page("/craft/curlew/71?setting=$other"), 'one that is looked for is shown');
    }

    public function testSettingsAreFoundFilteredAndChangedWhereTheyStand(): void
    {
        $this->link();
        $found = $this->page('/craft/curlew/71?q=CUTOFF+d+path');
        self::assertStringContainsString('name="values[d_path.stage.1.cutoff_hz]"', $found);
        self::assertStringNotContainsString('rate_path.stage.1.cutoff_hz', $found);
        self::assertStringContainsString('href="/craft/curlew/62?setting=d_path.stage.1.cutoff_hz"', $found, 'each leads to its sheet');
        self::assertStringContainsString('No setting is like that', $this->page('/craft/curlew/71?q=submarine'));
        $radio = $this->page('/craft/curlew/71?which=all&group=radio');
        self::assertStringContainsString('values[channel.roll.low_us]', $radio);
        self::assertStringNotContainsString('values[gain.roll.p]', $radio);
        self::assertStringNotContainsString('name="values[', $this->page('/craft/curlew/71?which=staged'));

        // As the form sends it where no scripts run: all that it shows, of which one is other.
        preg_match_all('~name="(values\[[^"]+\])"[^>]* value="([^"]*)"~', $radio, $fields, \PREG_SET_ORDER);
        self::assertGreaterThan(20, \count($fields));
        $values = ['channel.roll.low_us' => '1010'];
        $this->post('/craft/curlew/stage', ['values' => $values]);
        self::assertSame(['channel.roll.low_us' => 1010.0], $this->staged($this->craft()));
        $staged = $this->page('/craft/curlew/71?which=staged');
        self::assertMatchesRegularExpression('~low_us.*?value="1010".*?was 1\D{0,3}000~', $staged);
        self::assertStringContainsString('1 shown', $staged);
        $this->page('/craft/curlew/71?q[]=x', 422);
        self::assertStringContainsString('1 shown', $this->page('/craft/curlew/71?which=staged&group=radio&q=low'));
    }

    public function testTheRecordTellsWhatByWhomWhenAndWhy(): void
    {
        $this->link();
        $this->commit(['gain.roll.p' => 31.0, 'feel.yaw.full_dps' => 420.0], 'yaw felt lazy');
        $this->commit(['gain.roll.p' => 30.0], '');
        $page = $this->page('/craft/curlew/73');
        self::assertStringContainsString('yaw felt lazy', $page);
        self::assertStringContainsString('gain.roll.p', $page);
        self::assertLessThan(strpos($page, 'yaw felt lazy'), strpos($page, 'revision 2') ?: strpos($page, '>2<') ?: 0, 'the newest first');
        [$first, $second] = $this->entries();
        self::assertSame([1, 2], [$first->revision, $second->revision]);
        self::assertSame([['name' => 'gain.roll.p', 'from' => 31.0, 'to' => 30.0]], $second->items);
    }

    public function testAWayBackLeadsToTheValueOfBeforeWhateverCameSince(): void
    {
        $this->link();
        $before = $this->craft()->settings['gain.roll.p'];
        $this->commit(['gain.roll.p' => 31.0], 'first');
        $this->commit(['gain.roll.p' => 29.0, 'gain.roll.i' => 75.0], 'second');
        $this->post("/craft/curlew/changes/{$this->entries()[0]->id}/back", ['over' => '2']);
        self::assertSame(['gain.roll.p' => $before], $this->staged($this->craft()), 'of the first, and nothing of the second');
        $this->post('/craft/curlew/commit');
        self::assertSame([$before, 75.0], [$this->craft()->settings['gain.roll.p'], $this->craft()->settings['gain.roll.i']]);
        // The way back is an entry like any other, with its own.
        $this->post('/craft/curlew/changes/'.$this->entries()[2]->id.'/back');
        self::assertSame(['gain.roll.p' => 29.0], $this->staged($this->craft()));
    }

    public function testEntriesAndSnapshotsOfAnotherCraftAreNoneOfThisOne(): void
    {
        $this->link('curlew');
        $this->link('bittern');
        $this->commit(['gain.roll.p' => 31.0], '');
        $entry = $this->entries()[0];
        $this->post("/craft/bittern/changes/{$entry->id}/back", [], 404);
        $this->post('/craft/curlew/snapshots', ['name' => 'mine']);
        $snapshot = $this->entities()->getRepository(Snapshot::class)->findOneBy(['name' => 'mine']);
        self::assertNotNull($snapshot);
        $this->post("/craft/bittern/snapshots/{$snapshot->id}/stage", [], 404);
        self::assertSame([], $this->staged($this->craft('bittern')));
        self::assertStringNotContainsString('mine', $this->page('/craft/bittern/72'));
    }

    public function testASnapshotIsComparedWithWhatIsNow(): void
    {
        $this->link();
        $this->post('/craft/curlew/snapshots', ['name' => 'a']);
        $this->commit(['gain.roll.p' => 31.0, 'gain.pitch.p' => 28.0], '');
        $this->post('/craft/curlew/snapshots', ['name' => 'b']);
        $this->commit(['gain.roll.p' => 33.0], '');
        $ids = [];
        foreach ($this->entities()->getRepository(Snapshot::class)->findBy(['craft' => $this->craft()]) as $snapshot) {
            $ids[$snapshot->name] = $snapshot->id;
        }
        $a = $this->page("/craft/curlew/72?snapshot={$ids['a']}");
        $b = $this->page("/craft/curlew/72?snapshot={$ids['b']}");
        self::assertStringContainsString('gain.pitch.p', $a);
        self::assertStringNotContainsString('gain.roll.p', $a, 'roll is what it was then');
        self::assertStringContainsString('gain.roll.p', $b);
        self::assertStringNotContainsString('gain.pitch.p', $b);
    }

    public function testWordsOfPeopleAreShownAsTheyWereTyped(): void
    {
        $this->link();
        $typed = 'Öl & "Fett" <b>auf</b> 日本 🛩';
        $this->post('/craft/curlew/snapshots', ['name' => $typed]);
        $this->commit(['gain.roll.p' => 31.0], $typed);
        foreach (['72', '73'] as $sheet) {
            $html = $this->page("/craft/curlew/$sheet");
            self::assertStringContainsString(htmlspecialchars($typed, \ENT_QUOTES), $html, $sheet);
            self::assertStringNotContainsString('<b>auf</b>', $html, $sheet);
        }
    }

    public function testAReasonOfAnyLengthUpToItsLimitIsKeptAndBeyondItRefused(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 31.0]]);
        $this->post('/craft/curlew/commit', ['reason' => str_repeat('ü', 501)], 422);
        self::assertSame(['gain.roll.p' => 31.0], $this->staged($this->craft()), 'still staged');
        $this->post('/craft/curlew/commit', ['reason' => str_repeat('ü', 500)]);
        self::assertSame(500, mb_strlen($this->entries()[0]->reason));
    }

    private function yaml(string $slug): string
    {
        $this->browser->request('GET', "/craft/$slug/settings.yaml");
        self::assertResponseIsSuccessful();

        return (string) $this->browser->getResponse()->getContent();
    }

    /** @param array<string, float> $values */
    private function commit(array $values, string $reason): void
    {
        $this->post('/craft/curlew/stage', ['values' => $values]);
        $this->post('/craft/curlew/commit', ['reason' => $reason]);
    }

    /** @return list<ChangeEntry> oldest first */
    private function entries(): array
    {
        return $this->entities()
            ->getRepository(ChangeEntry::class)
            ->findBy(['craft' => $this->craft()], ['id' => 'ASC']);
    }
}
