<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

use Ortholex\App\Esc\EscFlashHandler;
use Ortholex\App\Esc\EscOrder;
use Ortholex\App\Esc\EscOrders;
use Ortholex\App\Link\Escs;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Work\CraftLocks;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobProgress;
use Ortholex\Bench\Esc\EscState;
use Ortholex\Bench\Shelf\ShelfMaker;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Firmware\IntelHex;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\World\CannotKeep;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;

/**
 * ESC firmware is written, and the writing is struck at every message. What is left is known and offered; gone on with, each ESC ends
 * with the new firmware and what it held before, and the record says what was written.
 */
final class EscFlashUnderFaultsTest extends FaultCase
{
    /** @return iterable<string, array{string, list<string>}> craft, places that are written */
    public static function crafts(): iterable
    {
        yield 'Curlew' => ['curlew', ['front_right', 'rear_left']];
        yield 'Bittern, of six' => ['bittern', ['left', 'right']];
        yield 'Dunlin, from another family' => ['dunlin', ['rear_right', 'front_left']];
    }

    /** @param list<string> $places */
    #[DataProvider('crafts'), Group('faults')]
    public function testStruckAnywhereEachEscEndsWithWhatItHeldBefore(string $slug, array $places): void
    {
        $this->powered($slug);
        foreach ($places as $n => $place) {
            $this->service(Staging::class)->stage($this->craft($slug), ["esc.$place.advance_deg" => 17 + $n]);
        }
        $this->post("/craft/$slug/commit", ['reason' => 'mine']);
        $this->world($slug)->move('props_declared_off', '1');
        $images = $this->smallImages($slug, $places);
        $held = [];
        foreach ($places as $place) {
            $held[$place] = EscTable::at($place, $this->craft($slug)->settings);
        }
        $mark = $this->mark($slug);
        $flashes = $this->flashes($slug);
        Plan::lay(Blow::Cable, \PHP_INT_MAX, false);
        FullDisk::fillAt(\PHP_INT_MAX);
        $this->flash($slug, $images);
        [$messages, $writes] = [Plan::$sent, FullDisk::$writes];
        $this->assertWritten($slug, $held, 'undisturbed');
        $this->backTo($mark, $slug);
        $this->putFlashes($slug, $flashes);
        $strokes = $offered = $full = 0;
        foreach (self::strokes($messages) as [$at, $blow, $after]) {
            $mark = $this->mark($slug);
            $what = "$slug, message $at, {$blow->value}".($after ? ' after it' : ' before it');
            Plan::lay($blow, $at, $after);
            try {
                $this->flash($slug, $images);
            } catch (LinkError|FirmwareError|Killed|CannotKeep) {
            }
            if (Plan::$fell) {
                ++$strokes;
                $this->makeRoom();
                $this->awake($slug);
                $offered += $this->finish($slug, $images, $what) > 0 ? 1 : 0;
                $this->assertWritten($slug, $held, $what);
            }
            $this->backTo($mark, $slug);
            $this->putFlashes($slug, $flashes);
        }
        for ($at = 1; $at <= $writes; ++$at) {
            $mark = $this->mark($slug);
            FullDisk::fillAt($at);
            try {
                $this->flash($slug, $images);
            } catch (LinkError|FirmwareError) {
            } catch (\Throwable $e) {
                self::assertTrue(self::isFull($e), "$slug, write $at: ".$e->getMessage());
            }
            if (FullDisk::$full) {
                ++$full;
                $this->makeRoom();
                $this->awake($slug);
                // Where not even the order found room, it is ordered again.
                0 < $this->finish($slug, $images, "$slug, write $at") || $this->isWritten($slug, $places) || $this->flash($slug, $images);
            }
            $this->assertWritten($slug, $held, "$slug, write $at of the book");
            $this->backTo($mark, $slug);
            $this->putFlashes($slug, $flashes);
        }
        self::assertGreaterThan(7 * $messages, $strokes);
        self::assertGreaterThan(8, $full, self::AS_OFTEN);
        $said = "$strokes strokes, and $full writes without room, $offered with something left, all ended sound";
        fwrite(\STDERR, "\n$slug: an ESC flash of $messages messages, $said\n");
    }

    /**
     * As a person does: exactly what is offered, until nothing is left.
     *
     * @param array<string, string> $images by place
     */
    private function finish(string $slug, array $images, string $what): int
    {
        for ($try = 0; $try < 4; ++$try) {
            $open = $this->service(EscOrders::class)->open($this->craft($slug));
            if ([] === $open) {
                return $try;
            }
            try {
                $this->flash($slug, array_map(static fn (EscOrder $o): string => $o->image, $open));
            } catch (LinkError|FirmwareError $e) {
                $problem = $e->getMessage();
                $this->awake($slug);
            }
        }
        self::fail("$what: it could not be gone on with: ".($problem ?? implode(', ', array_keys($open))));
    }

    /** @param list<string> $places */
    private function isWritten(string $slug, array $places): bool
    {
        $runs = Escs::identities($this->craft($slug));

        return [] === array_filter($places, static fn (string $p): bool => 80 !== $runs[$p]?->switchingKhz);
    }

    /** Cable, link, pack, in the order in which ESCs listen. */
    private function awake(string $slug): void
    {
        $world = $this->world($slug);
        $world->move('pack', '0');
        $world->move('cable', '1');
        usleep(1_500);
        $this->post("/craft/$slug/link");
        $world->move('pack', '1');
        $this->post("/craft/$slug/escs/read");
        $world->move('props_declared_off', '1');
        $this->entities()->clear();
    }

    /** @param array<string, SettingSet> $held */
    private function assertWritten(string $slug, array $held, string $what): void
    {
        $craft = $this->craft($slug);
        $state = $this->world($slug)->store->peek();
        $pads = array_flip(EscTable::pads($craft->settings));
        foreach ($held as $place => $values) {
            $esc = EscState::fromMixed($state->escs[$pads[$place]]);
            self::assertSame(['Withy', '1.4.0'], [$esc->family, $esc->version], "$what: $place");
            self::assertSame('Withy 1.4.0', Escs::identities($craft)[$place]?->firmwareInWords(), "$what: the sheets say it");
            foreach ($values as $key => $value) {
                self::assertTrue(Setting::same($value, $esc->settings[$key]), "$what: $place holds $key as before");
                self::assertTrue(Setting::same($value, $craft->settings["esc.$place.$key"]), "$what: the sheets say $key of $place");
            }
        }
        self::assertSame([], $this->service(EscOrders::class)->open($craft), "$what: nothing is left");
        // What was written before the blow stands on record, as does what came after.
        $written = [];
        foreach ($this->entities()->getRepository(ChangeEntry::class)->findBy(['craft' => $craft, 'what' => 'ESCs flashed']) as $entry) {
            array_push($written, ...array_column($entry->items, 'name'));
        }
        foreach (array_keys($held) as $place) {
            self::assertContains("esc.$place.firmware", $written, "$what: it stands on record");
        }
    }

    /** @param array<string, string> $images by place */
    private function flash(string $slug, array $images): bool
    {
        $this->entities()->clear();
        $craft = $this->craft($slug);
        $job = new Job($craft, 'flash-escs', 'Write', ['escs' => $images, 'image' => 'withy-1.4.0-80'], microtime(true));
        $this->entities()->persist($job);
        $this->entities()->flush();
        $locks = $this->service(CraftLocks::class);
        self::assertTrue($locks->hold($craft));
        try {
            $this->service(EscFlashHandler::class)->run($job, new JobProgress($this->entities()->getConnection(), (int) $job->id));
        } finally {
            $locks->release($craft);
            $this->entities()->clear();
        }

        return true;
    }

    /**
     * Releases that are small enough to be written some hundred times.
     *
     * @param list<string> $places
     *
     * @return array<string, string> by place
     */
    private function smallImages(string $slug, array $places): array
    {
        $folder = self::data().'/shelf-escs';
        $names = [];
        foreach ($places as $place) {
            $esc = Escs::identities($this->craft($slug))[$place];
            self::assertInstanceOf(EscIdentity::class, $esc);
            $image = ShelfMaker::escImage('Withy', '1.4.0', $esc->layout, $esc->clockMhz, $esc->deadTimeNs, 80, 1024);
            $like = glob("$folder/*withy-1.4.0*.json");
            self::assertNotFalse($like);
            $manifest = json_decode((string) file_get_contents($like[0]), true);
            self::assertIsArray($manifest);
            $names[$place] = "small-$slug-$place";
            file_put_contents("$folder/$names[$place].hex", IntelHex::write($image));
            file_put_contents("$folder/$names[$place].json", json_encode([
                'layout' => $esc->layout,
                'clock_mhz' => $esc->clockMhz,
                'dead_time_ns' => $esc->deadTimeNs,
                'switching_khz' => 80,
                'sha256' => $image->sha256(),
            ] + $manifest));
        }

        return $names;
    }

    /** @return array<string, string> */
    private function flashes(string $slug): array
    {
        $flashes = [];
        foreach (glob(self::data()."/bench/$slug/esc-*.bin") ?: [] as $path) {
            $flashes[$path] = (string) file_get_contents($path);
        }

        return $flashes;
    }

    /** @param array<string, string> $flashes */
    private function putFlashes(string $slug, array $flashes): void
    {
        foreach ($flashes as $path => $bytes) {
            file_put_contents($path, $bytes);
        }
    }

    protected function tearDown(): void
    {
        foreach (glob(self::data().'/shelf-escs/small-*') ?: [] as $path) {
            unlink($path);
        }
        parent::tearDown();
    }
}
