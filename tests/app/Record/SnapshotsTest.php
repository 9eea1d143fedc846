<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Record;

use Ortholex\App\Settings\Snapshot;
use Ortholex\Tests\app\AppCase;
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
