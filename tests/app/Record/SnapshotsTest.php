<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Record;

use Ortholex\App\Settings\Snapshot;
use Ortholex\Tests\app\AppCase;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\Yaml\Yaml;

/** Sheet 72: snapshots are renamed, saved, held against one another, and put away with a way back. */
final class SnapshotsTest extends AppCase
{
    public function testACommitOfManySettingsIsPrecededByOne(): void
    {
        $this->link();
        $few = ['gain.roll.p' => 30.0, 'gain.roll.i' => 72.0, 'gain.roll.d' => 2.0];
        $this->post('/craft/curlew/stage', ['values' => $few]);
        $this->post('/craft/curlew/commit', ['reason' => 'three']);
        self::assertCount(1, $this->snapshots());
        $before = $this->craft()->settings;
        $many = ['gain.pitch.p' => 31.0, 'gain.pitch.i' => 73.0, 'gain.pitch.d' => 2.1, 'gain.yaw.p' => 44.0];
        $this->post('/craft/curlew/stage', ['values' => $many]);
        $this->post('/craft/curlew/commit', ['reason' => 'four']);
        self::assertCount(2, $this->snapshots());
        $taken = $this->snapshots()[1];
        self::assertSame('Before “four”', $taken->name);
        self::assertTrue($taken->byItself);
        self::assertEquals($before->toArray(), $taken->settings->toArray());
    }

    public function testTwoAreHeldAgainstEachOther(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.yaw.p' => 44.0]]);
        $this->post('/craft/curlew/commit', ['reason' => 'firmer']);
        $this->post('/craft/curlew/snapshots', ['name' => 'firm yaw']);
        $this->post('/craft/curlew/stage', ['values' => ['gain.yaw.p' => 39.0, 'gain.yaw.i' => 91.0]]);
        $this->post('/craft/curlew/commit', ['reason' => 'softer']);
        [$first, $firm] = $this->snapshots();
        $page = $this->page("/craft/curlew/72?snapshot=$firm->id&beside=$first->id");
        self::assertStringContainsString('1 settings differ between “As found at first link” and “firm yaw”', html_entity_decode($page));
        self::assertStringNotContainsString('Stage the way back', $page);
        $page = html_entity_decode($this->page("/craft/curlew/72?snapshot=$firm->id"));
        self::assertStringContainsString('2 settings differ from “firm yaw”', $page);
        $page = $this->page("/craft/curlew/72?snapshot=$firm->id&beside=$firm->id");
        self::assertStringContainsString('are the same', $page);
    }

    public function testASnapshotIsHeldAgainstAFileAndAnotherCraft(): void
    {
        $this->link();
        [$one] = $this->snapshots();
        $ask = function (string $yaml) use ($one): string {
            $path = (string) tempnam(sys_get_temp_dir(), 'yaml');
            file_put_contents($path, $yaml);
            $file = new UploadedFile($path, 'theirs <b>.yaml', 'text/yaml', null, true);
            $server = ['CONTENT_TYPE' => 'multipart/form-data', 'HTTP_ACCEPT' => 'text/html'];
            $this->browser->request('POST', '/craft/curlew/snapshots/against', ['snapshot' => $one->id], ['file' => $file], $server);

            return (string) preg_replace('~\s+~', ' ', html_entity_decode((string) $this->browser->getResponse()->getContent()));
        };
        $html = $ask("gain.roll.p: 31\ngain.yaw.i: {$this->craft()->settings->number('gain.yaw.i')}\nd_path.stage.1.cutoff_hz: 88\n");
        self::assertResponseIsSuccessful();
        self::assertStringContainsString('2 settings differ between “theirs <b>.yaml” and “As found at first link”', $html);
        self::assertMatchesRegularExpression('~scope="rowgroup">.*d_path.stage.1.cutoff_hz~', $html);
        self::assertStringContainsString('line 2', $ask("gain.roll.p: 31\ngain.roll.q: 3\n"));
        self::assertSame(422, $this->browser->getResponse()->getStatusCode());
        self::assertSame([], $this->staged($this->craft()), 'it is looked at, and nothing else');
        $this->link('bittern');
        $html = html_entity_decode($this->page("/craft/curlew/72?snapshot=$one->id&beside=bittern"));
        self::assertStringContainsString('settings differ between “Bittern” and “As found at first link”', $html);
        self::assertStringContainsString('has not been read yet', $this->page('/craft/curlew/72?beside=dunlin', 422));
    }

    /** Restored on another release, what it cannot take is said before anything is staged. */
    public function testWhatAnotherVersionCannotTakeIsSaidBefore(): void
    {
        $this->link('dunlin');
        $one = $this->entities()->getRepository(Snapshot::class)->findOneBy(['craft' => $this->craft('dunlin')]);
        self::assertNotNull($one);
        self::assertStringNotContainsString('id="other-version"', $this->page('/craft/dunlin/72'));
        // As it was taken under a later release, with what that one has and this one has not.
        $this->entities()->getConnection()->executeStatement('UPDATE snapshot SET version = ?, settings = ? WHERE id = ?', [
            '26.06',
            json_encode(['motors.idle_pct' => 5.5, 'gain.roll.p' => 33.0, 'notch.motor.orders' => '1,2,3', 'link_loss.hold_s' => 1.0]),
            $one->id,
        ]);
        $this->entities()->clear();
        $html = $this->page('/craft/dunlin/72');
        self::assertStringContainsString('Taken with Loam 26.06', $html);
        self::assertMatchesRegularExpression('~motors.idle_pct 5.5 → motors.idle_permille 55~', strip_tags($html));
        self::assertMatchesRegularExpression('~link_loss.hold_s 1 → link_loss.hold_ms 1000~', strip_tags($html));
    }

    public function testRenamedSavedPutAwayAndBroughtBack(): void
    {
        $this->link();
        $this->post('/craft/curlew/snapshots', ['name' => 'in wind']);
        [, $one] = $this->snapshots();
        $this->post("/craft/curlew/snapshots/$one->id/name", ['name' => '  '], 422);
        $this->post("/craft/curlew/snapshots/$one->id/name", ['name' => 'flew well in wind <b>']);
        self::assertSame('flew well in wind <b>', $this->snapshots()[1]->name);
        self::assertStringContainsString('flew well in wind &lt;b&gt;', $this->page('/craft/curlew/72'));
        $this->browser->request('GET', "/craft/curlew/snapshots/$one->id.yaml");
        $yaml = (string) $this->browser->getResponse()->getContent();
        self::assertStringStartsWith('# Curlew, Quern F7, Loam 26.01, revision 0', $yaml);
        self::assertEquals($this->craft()->settings->toArray(), Yaml::parse($yaml));
        $this->post("/craft/curlew/snapshots/$one->id/away");
        $page = $this->page('/craft/curlew/72');
        self::assertStringContainsString('Bring back', $page);
        self::assertSame(1, preg_match_all('~<small class="fig">~', (string) preg_replace('~</ol>.*~', '', $page)), 'it is not listed');
        $this->post("/craft/curlew/snapshots/$one->id/away", ['back' => '1']);
        self::assertStringNotContainsString('Bring back', $this->page('/craft/curlew/72'));
        // Another craft's are none of this one's; and what a flash is to return is not put away under it.
        $this->post("/craft/bittern/snapshots/$one->id/away", [], 404);
        $this->craft()->toReturn = $one->id;
        $this->entities()->flush();
        self::assertStringContainsString('sheet 12', $this->post("/craft/curlew/snapshots/$one->id/away", [], 422)['error'] ?? '');
    }

    /** @return list<Snapshot> oldest first */
    private function snapshots(): array
    {
        return array_values($this->entities()->getRepository(Snapshot::class)->findBy(['craft' => $this->craft()], ['id' => 'ASC']));
    }
}
