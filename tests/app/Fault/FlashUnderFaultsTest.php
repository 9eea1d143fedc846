<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

use Ortholex\App\Firmware\FlashHandler;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Settings\Writing;
use Ortholex\App\Work\CraftLocks;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobProgress;
use Ortholex\Bench\Shelf\ShelfMaker;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Firmware\IntelHex;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Migration\Migration;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\World\CannotKeep;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;

/**
 * Firmware is written to a board, and the writing is struck at every message. Gone on with, it ends with the new firmware and with the
 * settings of before it, carried over; never with its defaults taken for them.
 */
final class FlashUnderFaultsTest extends FaultCase
{
    private const IMAGE = 'loam-26.06-small';

    /** @return iterable<string, array{string, string}> craft, hardware */
    public static function crafts(): iterable
    {
        yield 'Curlew' => ['curlew', 'QUERN-F7'];
        yield 'Bittern' => ['bittern', 'TARN-H7'];
        yield 'Dunlin' => ['dunlin', 'MARL-F4'];
    }

    #[DataProvider('crafts'), Group('faults')]
    public function testStruckAnywhereItEndsWithTheSettingsOfBefore(string $slug, string $hardware): void
    {
        $this->smallImage($hardware);
        $this->powered($slug);
        // What a builder has made of it, and the defaults have not.
        $mine = ['gain.roll.p' => 37.5, 'gain.pitch.d' => 3.9, 'feel.yaw.full_dps' => 333, 'pack.warn_cell_v' => 3.7];
        $this->service(Staging::class)->stage($this->craft($slug), $mine);
        $this->post("/craft/$slug/commit", ['reason' => 'mine']);
        $craft = $this->craft($slug);
        $to = Version::parse('26.06');
        $wanted = Migration::between(Catalogue::loam(), EscTable::without($craft->settings), $craft->version(), $to)->settings;
        $mark = $this->mark($slug);
        Plan::lay(Blow::Cable, \PHP_INT_MAX, false);
        FullDisk::fillAt(\PHP_INT_MAX);
        $this->flash($slug, false);
        [$messages, $writes] = [Plan::$sent, FullDisk::$writes];
        $this->assertReturned($slug, $wanted, 'undisturbed');
        $this->backTo($mark, $slug);
        $strokes = $full = 0;
        foreach (self::strokes($messages) as [$at, $blow, $after]) {
            $mark = $this->mark($slug);
            $what = "$slug, message $at, {$blow->value}".($after ? ' after it' : ' before it');
            Plan::lay($blow, $at, $after);
            try {
                $this->flash($slug, false);
            } catch (LinkError|FirmwareError|Killed|CannotKeep) {
            }
            if (Plan::$fell) {
                ++$strokes;
                $this->makeRoom();
                $this->again($slug);
                $this->finish($slug, $what);
                $this->assertReturned($slug, $wanted, $what);
            }
            $this->backTo($mark, $slug);
        }
        for ($at = 1; $at <= $writes; ++$at) {
            $mark = $this->mark($slug);
            FullDisk::fillAt($at);
            try {
                $this->flash($slug, false);
            } catch (LinkError|FirmwareError) {
            } catch (\Throwable $e) {
                self::assertTrue(self::isFull($e), "$slug, write $at: ".$e->getMessage());
            }
            if (FullDisk::$full) {
                ++$full;
                $this->makeRoom();
                $this->again($slug);
                $this->finish($slug, "$slug, write $at of the book");
            }
            $this->assertReturned($slug, $wanted, "$slug, write $at of the book");
            $this->backTo($mark, $slug);
        }
        self::assertGreaterThan(8 * $messages - 80, $strokes);
        self::assertGreaterThan(5, $full, self::AS_OFTEN);
        $said = "$strokes strokes, and $full writes without room, all ended with the settings of before";
        fwrite(\STDERR, "\n$slug: a flash of $messages messages, $said\n");
    }

    /** As a person does: go on from there, until it is done. */
    private function finish(string $slug, string $what): void
    {
        for ($try = 0; $try < 3; ++$try) {
            try {
                $this->flash($slug, true);

                return;
            } catch (LinkError|FirmwareError $e) {
                $problem = $e->getMessage();
                $this->again($slug);
            }
        }
        self::fail("$what: it could not be gone on with: $problem");
    }

    private function assertReturned(string $slug, SettingSet $wanted, string $what): void
    {
        $craft = $this->craft($slug);
        $state = $this->world($slug)->store->peek();
        // What the new release has and the old had not stands at its default until it is written once.
        $kept = $state->kept + $state->running;
        self::assertSame('26.06', $craft->version, $what);
        self::assertNull($craft->toReturn, "$what: nothing waits to come back");
        self::assertNull($this->service(Writing::class)->interrupted($craft), $what);
        foreach ($wanted as $name => $value) {
            self::assertTrue(Setting::same($value, $kept[$name]), "$what: $name came back");
            self::assertTrue(Setting::same($value, $craft->settings[$name]), "$what: the sheets say $name");
        }
    }

    /** The job itself, in this process: a blow that kills it leaves its row as it was. */
    private function flash(string $slug, bool $resume): void
    {
        $this->entities()->clear();
        $craft = $this->craft($slug);
        $job = new Job($craft, 'flash', 'Write', ['image' => self::IMAGE, 'keep' => true, 'resume' => $resume], microtime(true));
        $this->entities()->persist($job);
        $this->entities()->flush();
        $locks = $this->service(CraftLocks::class);
        self::assertTrue($locks->hold($craft));
        try {
            $progress = new JobProgress($this->entities()->getConnection(), (int) $job->id);
            $this->service(FlashHandler::class)->run($job, $progress);
        } finally {
            $locks->release($craft);
            $this->entities()->clear();
        }
    }

    /** A release that is small enough to be written some hundred times. */
    private function smallImage(string $hardware): void
    {
        $folder = self::data().'/shelf';
        $like = json_decode((string) file_get_contents("$folder/loam-26.06-".strtolower($hardware).'.json'), true);
        self::assertIsArray($like);
        self::assertIsInt($like['flash_from']);
        $image = ShelfMaker::image($hardware, '26.06', '', $like['flash_from'], 12);
        file_put_contents("$folder/".self::IMAGE.'.hex', IntelHex::write($image));
        file_put_contents("$folder/".self::IMAGE.'.json', json_encode(['sha256' => $image->sha256()] + $like));
    }

    protected function tearDown(): void
    {
        foreach (['hex', 'json'] as $kind) {
            @unlink(self::data().'/shelf/'.self::IMAGE.".$kind");
        }
        parent::tearDown();
    }
}
