<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench;

use Ortholex\Bench\Esc\EscModel;
use Ortholex\Bench\Room\Assembly;
use Ortholex\Bench\Room\Belongings;
use Ortholex\Bench\Room\EmptyBench;
use Ortholex\Bench\Room\SimulatedBench;
use Ortholex\Bench\Room\SimulatedBenches;
use Ortholex\Bench\Shelf\ShelfMaker;
use Ortholex\Bench\Time\ManualPace;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\Recorder\RecorderClient;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\World\Bench;
use Ortholex\Core\World\FlightEnd;
use Ortholex\Core\World\NothingToMove;
use Ortholex\Demo\DemoCraft;
use Ortholex\Demo\Scenario;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** The bench as the application meets it: through the port, for any craft that lies in its room. */
final class RoomTest extends TestCase
{
    private static string $shelf;
    private string $folder;
    private ManualPace $pace;
    private SimulatedBenches $rooms;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/room-'.bin2hex(random_bytes(6));
        $this->pace = new ManualPace();
        $this->rooms = new SimulatedBenches(Catalogue::loam(), $this->pace, $this->folder);
    }

    public static function setUpBeforeClass(): void
    {
        self::$shelf = sys_get_temp_dir().'/shelf-'.bin2hex(random_bytes(6));
        ShelfMaker::fill(self::$shelf.'/boards');
        ShelfMaker::fillEscs(self::$shelf.'/escs');
    }

    public static function tearDownAfterClass(): void
    {
        exec('rm -rf '.escapeshellarg(self::$shelf));
    }

    protected function tearDown(): void
    {
        exec('rm -rf '.escapeshellarg($this->folder));
    }

    /** @return iterable<string, array{DemoCraft}> */
    public static function demo(): iterable
    {
        foreach (Scenario::craft() as $slug => $craft) {
            yield $slug => [$craft];
        }
    }

    #[DataProvider('demo')]
    public function testWhatLiesThereComesBackAsItWasPutDown(DemoCraft $demo): void
    {
        $made = new Belongings($demo->model, $demo->physics);
        $made->putInto("$this->folder/one");
        $back = Belongings::in("$this->folder/one");
        self::assertEquals($made, $back);
        self::assertNotNull($back);
        // The same once more: nothing is lost by going to and fro.
        $back->putInto("$this->folder/two");
        self::assertFileEquals("$this->folder/one/made.json", "$this->folder/two/made.json");
        self::assertContainsOnlyInstancesOf(EscModel::class, $back->physics->escs);
        self::assertSame($demo->physics->frame->places(), $back->physics->frame->places());
        self::assertSame($demo->physics->frame->layout, $back->physics->frame->layout);
    }

    /** @return iterable<string, array{string}> */
    public static function broken(): iterable
    {
        yield 'no JSON' => ['{'];
        yield 'nothing in it' => ['{}'];
        yield 'a list' => ['[1, 2]'];
        yield 'no frame' => ['{"model": {}, "layout": "quad_x", "motors": [], "escs": [], "physics": {}}'];
        yield 'a layout there is not' => ['{"layout": "kite", "motors": []}'];
        yield 'deep' => [str_repeat('[', 60).str_repeat(']', 60)];
    }

    #[DataProvider('broken')]
    public function testWhatCannotBeReadIsSaidWithItsPlace(string $content): void
    {
        mkdir("$this->folder/odd", 0o775, true);
        file_put_contents("$this->folder/odd/made.json", $content);
        $this->expectException(\RuntimeException::class);
        $this->expectExceptionMessage("$this->folder/odd");
        Belongings::in("$this->folder/odd");
    }

    public function testACraftThatNoBenchHoldsHasNothingPluggedIn(): void
    {
        $bench = $this->rooms->of('heron');
        self::assertInstanceOf(EmptyBench::class, $bench);
        self::assertNull($this->rooms->world('heron'));
        self::assertFalse($bench->state()->cable);
        self::assertFalse($bench->state()->pack);
        self::assertNull($bench->state()->packVolts);
        self::assertNull($bench->frame());
        self::assertNull($bench->aboard());
        self::assertSame([], $bench->faults());
        self::assertSame([], $bench->mishaps());
        self::assertSame([], $bench->sticks(Card::Cruise, 10, 3));
    }

    /** @return iterable<string, array{\Closure(Bench): mixed, class-string<\Throwable>}> */
    public static function hands(): iterable
    {
        yield 'the cable' => [static fn (Bench $b): mixed => $b->link(), LinkError::class];
        yield 'a hand' => [
            static function (Bench $b): void {
                $b->move('cable', '1');
            },
            NothingToMove::class,
        ];
        yield 'the iron' => [
            static function (Bench $b): void {
                $b->solder([], []);
            },
            NothingToMove::class,
        ];
        yield 'a flight' => [
            static fn (Bench $b): mixed => $b->fly(
                Card::Cruise,
                5,
                1,
                SettingSet::none(),
                '',
                static fn (): bool => true,
            ),
            NothingToMove::class,
        ];
    }

    /**
     * @param \Closure(Bench): mixed   $act
     * @param class-string<\Throwable> $error
     */
    #[DataProvider('hands')]
    public function testNothingCanBeDoneWhereNothingLies(\Closure $act, string $error): void
    {
        $this->expectException($error);
        $act(new EmptyBench());
    }

    public function testWhatIsSeenFollowsTheHands(): void
    {
        $bench = $this->assembled('curlew');
        $before = $bench->state();
        self::assertFalse($before->cable);
        self::assertFalse($before->powered);
        $bench->move('cable', '1');
        $now = $bench->state();
        self::assertTrue($now->cable);
        self::assertTrue($now->powered);
        self::assertSame($before->cableMoves + 1, $now->cableMoves, 'a link of before is known to be gone');
        self::assertGreaterThan($before->powerMoves, $now->powerMoves);
        $bench->move('pack', '1');
        self::assertEqualsWithDelta(24.98, $bench->state()->packVolts, 0.05, 'six cells at rest, five per cent used');
        $bench->move('tilt', 'nose_up');
        self::assertSame('nose_up', $bench->state()->tilt);
        $bench->move('fault:loose_arm', '1');
        self::assertSame(['loose_arm'], $bench->state()->faults);
        $bench->move('fault:loose_arm', '0');
        self::assertSame([], $bench->state()->faults);
        $bench->move('props_declared_off', '1');
        self::assertTrue($bench->state()->propsDeclaredOff);
        $bench->move('pack', '0');
        self::assertFalse($bench->state()->propsDeclaredOff, 'what was declared ends with the power');
        $bench->solder([['rill-c.tx', 'RX1']], []);
        self::assertSame([['rill-c.tx', 'RX1']], $bench->state()->soldered);
    }

    /** @return iterable<string, array{string, string}> */
    public static function unknown(): iterable
    {
        yield 'a thing' => ['moon', '1'];
        yield 'a fault' => ['fault:rust', '1'];
        yield 'a mishap' => ['mishap:flood', '1'];
        yield 'a tilt' => ['tilt', 'sideways'];
        yield 'a place' => ['swap_motors', 'front_left,middle'];
        yield 'one place' => ['swap_motors', 'front_left'];
        yield 'nothing' => ['', ''];
    }

    #[DataProvider('unknown')]
    public function testWhatThereIsNotCannotBeMovedAndNothingChanges(string $thing, string $to): void
    {
        $bench = $this->assembled('curlew');
        $before = $bench->state();
        try {
            $bench->move($thing, $to);
            self::fail('it was moved');
        } catch (NothingToMove $e) {
            self::assertNotSame('', $e->getMessage());
        }
        self::assertEquals($before, $bench->state());
    }

    public function testItFliesWithWhatItHasAboardAndNotWithoutFirmware(): void
    {
        $bench = $this->assembled('curlew');
        $aboard = $bench->aboard();
        self::assertNotNull($aboard);
        self::assertSame('26.01', $aboard->version->toString());
        self::assertTrue($aboard->settings->has('gain.roll.p'));
        $bench->move('mishap:board', '1');
        self::assertSame('25.08', $bench->aboard()?->version->toString(), 'what its label says, whoever it was made for');
        $bench->move('cable', '1');
        $bench->move('bootloader_button', '1');
        self::assertNull($bench->aboard(), 'in its bootloader it does not fly');
    }

    public function testAFlightIsCalledBackAndWritesItsLog(): void
    {
        $bench = $this->assembled('curlew');
        $bench->move('pack', '1');
        $settings = Catalogue::loam()
            ->defaults(Version::parse(Catalogue::CURRENT))
            ->with(Scenario::craft()['curlew']->settings);
        $told = [];
        $flown = $bench->fly(Card::HoverAndClimb, 4, 3, $settings, "flight.card: x\n", static function (float $share) use (&$told): bool {
            $told[] = $share;

            return true;
        });
        self::assertSame(FlightEnd::Flown, $flown->end);
        $sorted = $told;
        sort($sorted);
        self::assertSame($sorted, $told, 'the share only grows');
        self::assertSame(1.0, end($told));
        $bench->move('cable', '1');
        $recorder = new RecorderClient(new BoardClient($bench->link()));
        self::assertSame([$flown->recording], array_keys($recorder->about()->recordings));
        $called = $bench->fly(Card::HoverAndClimb, 4, 3, $settings, '', static fn (): bool => false);
        self::assertSame(FlightEnd::Stopped, $called->end);
        self::assertCount(2, $recorder->about()->recordings, 'as far as it was flown, it is kept');
    }

    public function testTheSticksOfEachCardStayWithinTheirThrow(): void
    {
        $bench = $this->assembled('curlew');
        foreach (Card::gathering() as $card) {
            $frames = $bench->sticks($card, 12, 3.0);
            self::assertEqualsWithDelta(36, \count($frames), 3, $card->value);
            foreach ($frames as [$roll, $pitch, $yaw, $throttle]) {
                self::assertLessThanOrEqual(1.0, max(abs($roll), abs($pitch), abs($yaw)));
                self::assertGreaterThanOrEqual(0.0, $throttle);
                self::assertLessThanOrEqual(1.0, $throttle);
            }
            self::assertSame($frames, $bench->sticks($card, 12, 3.0), 'shown, a card is always the same');
        }
    }

    private function assembled(string $slug): Bench
    {
        $build = Scenario::craft()[$slug]->build(Scenario::memories());
        Assembly::of($this->rooms, Catalogue::loam(), $slug, $build)->solder(self::$shelf.'/boards', self::$shelf.'/escs');
        $bench = $this->rooms->of($slug);
        self::assertInstanceOf(SimulatedBench::class, $bench);
        $this->pace->wait(1);

        return $bench;
    }
}
