<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Workshop;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Share\BookError;
use Ortholex\App\Book\Share\BookExport;
use Ortholex\App\Book\Share\BookImport;
use Ortholex\App\Book\Share\BookWriter;
use Ortholex\App\Book\Share\ShareChoice;
use Ortholex\App\FlightLog\Log;
use Ortholex\App\Link\Escs;
use Ortholex\App\Noise\Desk\DeskMeasurement;
use Ortholex\App\Pack\Packs;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Snapshots;
use Ortholex\Bench\Sky\Marsh;
use Ortholex\Core\DeskNoise\DeskStep;
use Ortholex\Core\Pack\PackCard;
use Ortholex\Tests\app\AppCase;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/** A whole book goes out as one file and comes in again, whoever made the file. */
final class BookFileTest extends AppCase
{
    private string $folder;

    protected function setUp(): void
    {
        parent::setUp();
        $this->folder = sys_get_temp_dir().'/books-'.bin2hex(random_bytes(6));
        mkdir($this->folder);
    }

    protected function tearDown(): void
    {
        array_map(unlink(...), glob("$this->folder/*") ?: []);
        rmdir($this->folder);
        parent::tearDown();
    }

    /** Flown, changed, staged, snapshots and all: out, in under another name, and out again. */
    public function testWhatGoesOutComesInAndGoesOutTheSame(): void
    {
        $log = $this->flown('survey', 4, 20);
        $log->note = 'windy: “gusts” & rain';
        $this->entities()->flush();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => '31.5']]);
        $this->post('/craft/curlew/commit', ['reason' => 'firmer']);
        $this->post('/craft/curlew/stage', ['values' => ['gain.pitch.p' => '29']]);
        // Flown with the first pack; the next flight is to be with another.
        $packs = self::getContainer()->get(Packs::class);
        $packs->add($this->craft(), 'Sedge 9', 6, 1.3);
        self::getContainer()->get(Snapshots::class)->take($this->craft(), 'before the show', false);
        $this->post("/craft/curlew/logs/{$log->id}/passages", ['name' => 'the turn', 'from' => 2.0, 'to' => 4.5]);
        $this->marked();
        $out = $this->out(new ShareChoice(true, true, true));

        [$craft, $taken, $left] = $this->in($out);
        self::assertSame([], $left);
        self::assertSame('Curlew 2', $craft->name);
        self::assertEquals($this->craft()->settings, $craft->settings);
        self::assertSame(['gain.pitch.p' => 29.0], $this->staged($craft));
        self::assertSame(1, $taken['logs']);
        $changes = $this->entities()->getRepository(ChangeEntry::class)->findBy(['craft' => $craft]);
        self::assertSame(['firmer'], array_map(static fn (ChangeEntry $c): string => $c->reason, $changes));
        $its = $this->entities()->getRepository(Log::class)->findOneBy(['craft' => $craft]);
        self::assertSame([$log->code, $log->note, $log->samples], [$its?->code, $its?->note, $its?->samples]);
        self::assertSame($log->flownAt->format('c'), $its?->flownAt->format('c'));
        $told = static fn (PackCard $c): array => [$c->name, $c->logs, $c->inUse];
        $flown = static fn (Craft $of): array => array_map($told, $packs->of($of));
        $there = $flown($this->craft());
        self::assertContains([$log->id], array_column($there, 1));
        self::assertSame(['Sedge 9', [], true], $there[\count($there) - 1]);
        self::assertSame(array_map(static fn (array $p): array => [$p[0], [] === $p[1] ? [] : [$its->id], $p[2]], $there), $flown($craft));

        self::assertSame($this->craft()->ticks, $craft->ticks);
        self::assertSame($this->craft()->putBack, $craft->putBack);
        self::assertSame($this->craft()->accepted, $craft->accepted);
        self::assertEquals(Escs::seats($this->craft()), Escs::seats($craft));
        self::assertSame(1, $taken['desk measurements']);
        $desk = $this->entities()->getRepository(DeskMeasurement::class)->findOneBy(['craft' => $craft]);
        $step = $desk?->steps()[0];
        self::assertEquals([12.0, 4210.5, 33 / 16.4], [$step?->pct, $step?->rpm, $step?->bursts['yaw'][1][1] ?? null]);

        // But for its name, all of the second file is what the first was.
        $craft->name = 'Curlew';
        $again = $this->out(new ShareChoice(true, true, true), $craft);
        self::assertFileEquals($out, $again);
    }

    /** Each craft of the Workshop, read or never read, flown or not, from the catalogue or known by hand: the second file is the first. */
    /** Ticked, accepted, put aside, its ESCs read, and measured on the desk. */
    private function marked(): void
    {
        $this->post('/craft/curlew/bench', ['thing' => 'pack', 'to' => '1']);
        $this->post('/craft/curlew/escs/read');
        $craft = $this->craft();
        $craft->ticks = ['props' => ['at' => 1_700_000_000.0, 'revision' => 2]];
        $craft->putBack = ['gain.roll.ff' => 0.4];
        $craft->accepted = ['hardware' => ['of' => ['P3-1' => 'dead time 250 ns'], 'note' => 'a spare one']];
        $desk = new DeskMeasurement($craft, new \DateTimeImmutable('2026-11-02T10:00:00+00:00'), 3200.0);
        $burst = static fn (float $v): array => [[$v, -$v, 0.5 * $v], [0.0, 2.0]];
        $desk->add(new DeskStep(12.0, 4210.5, ['roll' => $burst(1.5), 'pitch' => $burst(-2.5), 'yaw' => $burst(0.25)]));
        $desk->add(new DeskStep(14.0, null, ['roll' => $burst(3.0), 'pitch' => [], 'yaw' => []]));
        $this->entities()->persist($desk);
        $this->entities()->flush();
        self::assertNotSame([], $craft->escs);
    }

    public function testEveryCraftGoesOutAgainAsItCameIn(): void
    {
        $parts = ['frame' => 'rush-140', 'prop' => 'reed-76-3', 'motor' => 'whin-14', 'pack' => 'sedge-4-085', 'esc' => 'osier-20'];
        $this->post('/workshop/new', ['name' => 'Teal', 'built' => 'faults', 'seed' => 5] + $parts + ['board' => 'MARL-F4']);
        $this->post('/workshop/new', ['name' => 'Smew', 'built' => 'well'] + $parts + ['board' => 'MARL-F4S']);
        $this->post('/workshop/by-logs', ['name' => 'Friend']);
        $this->link('smew');
        foreach (['dunlin', 'curlew', 'bittern', 'teal', 'smew', 'friend'] as $slug) {
            $craft = $this->craft($slug);
            $out = $this->out(new ShareChoice(true, true, true), $craft, 'first.zip');
            [$in] = $this->in($out);
            $in->name = $craft->name;
            self::assertFileEquals($out, $this->out(new ShareChoice(true, true, true), $in, 'second.zip'), $slug);
        }
    }

    public function testHomeSerialsAndNamesStayUnlessAskedFor(): void
    {
        $log = $this->flown('survey', 4, 20);
        self::assertStringContainsString('flight.origin_lat_deg', $log->head);
        $log->note = 'from the heron hide';
        $this->craft()->purpose = 'counts for Wigeon Point';
        $this->entities()->flush();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => '31.5']]);
        $this->post('/craft/curlew/commit', ['reason' => 'as Robin said']);
        $this->marked();
        $files = $this->unpacked($this->out(new ShareChoice()));
        $all = implode("\n", $files);
        foreach (['Q7-00417', 'P3-', 'heron hide', 'Wigeon Point', 'Robin', 'Curlew', 'a spare one'] as $secret) {
            self::assertFalse(strpos($all, $secret), $secret);
        }
        // No two figures of anything but samples, and no two beside each other among those, are a place within 500 m of home.
        foreach ($files as $name => $text) {
            $said = str_ends_with($name, '.csv') ? (string) preg_replace('~^[^#].*$~m', '', $text) : $text;
            preg_match_all('~-?\d+\.\d+~', $said, $figures);
            $near = static fn (float $of, float $deg): array => array_filter(
                $figures[0],
                static fn (string $f): bool => abs((float) $f - $of) < $deg,
            );
            $both = [] !== $near(Marsh::LAT_DEG, 0.0045) && [] !== $near(Marsh::LON_DEG, 0.0045 / cos(deg2rad(Marsh::LAT_DEG)));
            self::assertFalse($both, $name);
        }
        preg_match_all('~(-?\d+\.\d+)[^\d.-]{1,24}(-?\d+\.\d+)~', $all, $pairs, \PREG_SET_ORDER);
        foreach ($pairs as [, $lat, $lon]) {
            $north = ((float) $lat - Marsh::LAT_DEG) * 111_200;
            $east = ((float) $lon - Marsh::LON_DEG) * 111_200 * cos(deg2rad(Marsh::LAT_DEG));
            self::assertGreaterThan(500, hypot($north, $east), "$lat $lon");
        }
        self::assertSame([], preg_grep('~geojson~', array_keys($files)), 'a track begins at home');
        $asked = $this->unpacked($this->out(new ShareChoice(true, true, true)));
        $track = json_decode($asked["tracks/$log->code.geojson"] ?? '', true);
        self::assertSame('Feature', \is_array($track) ? $track['type'] ?? null : null);
        self::assertStringContainsString((string) round(Marsh::LAT_DEG, 2), $asked["tracks/$log->code.geojson"] ?? '');
        $with = implode("\n", $asked);
        foreach (['Q7-00417', 'heron hide', 'Wigeon Point', 'Robin', 'flight.origin_lat_deg'] as $asked) {
            self::assertNotFalse(strpos($with, $asked), $asked);
        }
        self::assertSame([], preg_grep('~\.csv$|^desk/~', array_keys($this->unpacked($this->out(new ShareChoice(logs: false))))));
    }

    public function testFromThePageAndBack(): void
    {
        $this->link();
        self::assertStringContainsString('name="home"', $this->page('/craft/curlew/book'));
        $this->browser->request('GET', '/craft/curlew/book.zip?logs=1&names=1');
        self::assertResponseHeaderSame('Content-Type', 'application/zip');
        $zip = (string) $this->browser->getInternalResponse()->getContent();
        $made = $this->post('/workshop/book', ['upload' => $this->upload($zip)]);
        self::assertSame('curlew-2', $made['craft']);
        self::assertStringContainsString('Taken:', $this->page('/craft/curlew-2/book'));
        self::assertStringContainsString('Curlew 2', $this->page('/'));
        $refused = $this->post('/workshop/book', ['upload' => $this->upload('PK no zip at all')], 422);
        self::assertStringContainsString('not a whole zip file', $refused['error']);
        self::assertSame('upload', $refused['field']);
    }

    /** Whatever was done to a file, it is refused or read in part, said so, and nothing beside the data folder is touched. */
    public function testDamagedAndHostileFilesAreRefusedOrReadInPart(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => '31.5']]);
        $this->post('/craft/curlew/commit', ['reason' => 'firmer']);
        $this->marked();
        $sound = $this->unpacked($this->out(new ShareChoice(true, true, true)));
        $bytes = (string) file_get_contents("$this->folder/book.zip");
        $dice = new Randomizer(new Xoshiro256StarStar(11));
        $ended = ['refused' => 0, 'in part' => 0, 'whole' => 0];
        $db = $this->entities()->getConnection();
        for ($case = 0; $case < 1000; ++$case) {
            $path = "$this->folder/bad.zip";
            match ($case % 3) {
                0 => file_put_contents($path, $this->flipped($bytes, $dice)),
                1 => $this->changed($sound, $path, $dice),
                default => $this->hostile($sound, $path, $dice),
            };
            $db->beginTransaction();
            try {
                [$craft, $taken, $left] = $this->in($path);
                self::assertNotSame([], $taken);
                if ([] === $left) {
                    // A flipped byte may be one that says nothing, such as the hour at which a file was packed.
                    self::assertSame($sound, $this->unpacked($path), 'nothing that was changed is taken as whole');
                }
                ++$ended[[] === $left ? 'whole' : 'in part'];
                if (0 === $case % 9) {
                    foreach (['11', '13', '16', '21', '31', '53', '33', '51', '61', '71', '72', '73'] as $sheet) {
                        $this->page("/craft/$craft->slug/$sheet");
                    }
                }
            } catch (BookError $e) {
                self::assertNotSame('', $e->getMessage());
                ++$ended['refused'];
            } finally {
                $db->rollBack();
                $this->entities()->clear();
            }
        }
        self::assertLessThan(10, $ended['whole'], 'and that is rare');
        self::assertGreaterThan($case / 10, $ended['in part']);
        self::assertGreaterThan($case / 10, $ended['refused']);
        self::assertSame(['bad.zip', 'book.zip'], array_map(basename(...), glob("$this->folder/*") ?: []));
        self::assertFileDoesNotExist(sys_get_temp_dir().'/climbed.yaml');
        self::assertSame([], glob(self::data().'/{book,out}*', \GLOB_BRACE) ?: [], 'nothing is left in the data folder');
    }

    /** A disk that is full in the middle of a book leaves no book, and no half of a log. */
    public function testABookThatCannotBeWrittenToItsEndIsNoFile(): void
    {
        $path = "$this->folder/full.zip";
        $book = new BookWriter($path, new ShareChoice());
        try {
            $book->stream('logs/C-0001.csv', static function ($stream): void {
                fwrite($stream, 'time_s,rate');
                // As PHP warns of a write that falls short.
                trigger_error('fwrite(): Write of 8192 bytes failed with errno=28 No space left on device', \E_USER_WARNING);
            });
            self::fail('What fell short was taken as written.');
        } catch (BookError $e) {
            self::assertStringContainsString('No space left', $e->getMessage());
        }
        $book->discard();
        self::assertSame([], glob("$this->folder/*") ?: []);
    }

    private function flipped(string $bytes, Randomizer $dice): string
    {
        if (0 === $dice->getInt(0, 3)) {
            return substr($bytes, 0, $dice->getInt(0, \strlen($bytes) - 1));
        }
        for ($i = $dice->getInt(1, 12); $i > 0; --$i) {
            $at = $dice->getInt(0, \strlen($bytes) - 1);
            $bytes[$at] = \chr(\ord($bytes[$at]) ^ $dice->getInt(1, 255));
        }

        return $bytes;
    }

    /** @param array<string, string> $files whose text is changed in one place, with a manifest that vouches for it */
    private function changed(array $files, string $path, Randomizer $dice): void
    {
        $name = $this->one($files, $dice);
        $text = $files[$name];
        $values = ['1e999', '.inf', '~', '[]', '{}', '-9999999999999999999', '"\0"', '!!php/object "O:1"', '&a [*a]', "'x", 'true'];
        $values[] = str_repeat('9', 400);
        $files[$name] = (string) preg_replace_callback('~: (\S+)$~m', static function (array $m) use ($dice, $values): string {
            return 0 === $dice->getInt(0, 5) ? ': '.$values[$dice->getInt(0, \count($values) - 1)] : $m[0];
        }, $text).($dice->getInt(0, 1) ? "\nnew: ".$values[$dice->getInt(0, \count($values) - 1)] : '');
        // The hash of one file is left as it was, so that not even a change of nothing passes.
        $this->packed($files, $path, [$this->one(array_diff_key($files, [$name => 1]), $dice) => str_repeat('0', 64)]);
    }

    /** @param array<string, string> $files with something in them that was meant to do harm */
    private function hostile(array $files, string $path, Randomizer $dice): void
    {
        $bomb = "a: &a [x, x, x, x, x, x, x, x, x]\nb: &b [*a, *a, *a, *a, *a, *a, *a, *a, *a]\nc: [*b, *b, *b, *b, *b, *b, *b, *b]\n";
        $tricks = [
            static fn (array $f): array => $f + ['../../../../../../tmp/climbed.yaml' => 'climbed: 1'],
            static fn (array $f): array => $f + ['/tmp/climbed.yaml' => 'climbed: 1'],
            static fn (array $f): array => $f + ['snapshots/../../climbed.yaml' => 'climbed: 1'],
            static fn (array $f): array => $f + ["snapshots/\0.yaml" => 'name: x'],
            static fn (array $f): array => ['settings.yaml' => $bomb] + $f,
            static fn (array $f): array => ['craft.yaml' => str_repeat('[', 100_000)] + $f,
            static fn (array $f): array => ['settings.yaml' => str_repeat("gain.roll.p: 1\n", 200_000)] + $f,
            static fn (array $f): array => $f + ['logs/C-0009.csv' => str_repeat("\0", 30_000_000)],
            static fn (array $f): array => $f + ['logs/C-0009.csv' => "time_s,rate_roll\n".str_repeat("1e999,{}\n", 200)],
            static fn (array $f): array => $f + ['logs/C-0009.yaml' => 'code: ../../x', 'logs/C-0009.csv' => 'no log'],
            static fn (array $f): array => ['changes.yaml' => 'changes: '.str_repeat('{a: ', 400)] + $f,
            static fn (array $f): array => ['changes.yaml' => "changes:\n  - {revision: 1e300, at: now, items: [], left: []}"] + $f,
            static fn (array $f): array => ['snapshots/0001.yaml' => "name: x\nversion: 99.99\nsettings: {no.such: 1}"] + $f,
            static fn (array $f): array => ['craft.yaml' => "\xFF\xFE not utf-8"] + $f,
            static fn (array $f): array => array_diff_key($f, ['craft.yaml' => 1]),
        ];
        /** @var array<string, string> $files */
        $files = $tricks[$dice->getInt(0, \count($tricks) - 1)]($files);
        $this->packed($files, $path, [], 0 === $dice->getInt(0, 4) ? ['craft.yaml' => \PHP_INT_MAX] : ['settings.yaml' => -1]);
    }

    /**
     * @param array<string, string> $files
     * @param array<string, string> $hashes that the manifest gives instead of the true ones
     * @param array<string, int>    $lengths likewise
     */
    private function packed(array $files, string $path, array $hashes = [], array $lengths = []): void
    {
        @unlink($path);
        $zip = new \ZipArchive();
        $zip->open($path, \ZipArchive::CREATE);
        $manifest = ['format' => 'ortholex-book', 'version' => 1, 'craft' => ['name' => "N\u{202E}ame\0"], 'left_out' => [], 'files' => []];
        foreach ($files as $name => $text) {
            if ('manifest.json' !== $name) {
                @$zip->addFromString($name, $text);
                $manifest['files'][$name] = [
                    'sha256' => $hashes[$name] ?? hash('sha256', $text),
                    'bytes' => $lengths[$name] ?? \strlen($text),
                ];
            }
        }
        $zip->addFromString('manifest.json', (string) json_encode($manifest));
        $zip->close();
    }

    /** @param array<string, string> $files */
    private function one(array $files, Randomizer $dice): string
    {
        $names = array_values(array_diff(array_keys($files), ['manifest.json']));

        return $names[$dice->getInt(0, \count($names) - 1)];
    }

    private function out(ShareChoice $choice, ?Craft $craft = null, ?string $name = null): string
    {
        $path = "$this->folder/".($name ?? (null === $craft ? 'book.zip' : 'again.zip'));
        @unlink($path);
        self::getContainer()->get(BookExport::class)->write($craft ?? $this->craft(), $path, $choice);

        return $path;
    }

    /** @return array{Craft, array<string, int>, array<string, string>} */
    private function in(string $path): array
    {
        $import = self::getContainer()->get(BookImport::class);
        $book = $import->open($path);
        $craft = $import->craft($book);
        $import->read($craft, $book, true);

        return [$craft, $book->taken, $book->left];
    }

    /** @return array<string, string> */
    private function unpacked(string $path): array
    {
        $zip = new \ZipArchive();
        $zip->open($path);
        $files = [];
        for ($i = 0; $i < $zip->numFiles; ++$i) {
            $files[(string) $zip->getNameIndex($i)] = (string) $zip->getFromIndex($i);
        }

        return $files;
    }
}
