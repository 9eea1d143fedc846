<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench;

use Ortholex\Bench\Esc\EscModel;
use Ortholex\Bench\Radio\Model;
use Ortholex\Bench\Room\Build;
use Ortholex\Bench\Room\FromParts;
use Ortholex\Bench\Room\SimulatedBenches;
use Ortholex\Bench\Room\SimulatedWorkbench;
use Ortholex\Bench\Shelf\ShelfMaker;
use Ortholex\Bench\Time\ManualPace;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Parts\PartsCatalogue;
use Ortholex\Core\Parts\Plan\BuildFault;
use Ortholex\Core\Parts\Plan\CraftPlan;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\World\CannotKeep;
use Ortholex\Core\World\Thing;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Craft put together from the catalogue. */
final class WorkbenchTest extends TestCase
{
    private static string $shelf;
    private string $folder;
    private SimulatedBenches $rooms;
    private SimulatedWorkbench $bench;

    public static function setUpBeforeClass(): void
    {
        self::$shelf = sys_get_temp_dir().'/shelf-'.bin2hex(random_bytes(6));
        ShelfMaker::fill(self::$shelf.'/boards');
        ShelfMaker::fillEscs(self::$shelf.'/escs');
    }

    public static function tearDownAfterClass(): void
    {
        self::remove(self::$shelf);
    }

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir().'/benches-'.bin2hex(random_bytes(6));
        $this->rooms = new SimulatedBenches(Catalogue::loam(), new ManualPace(), $this->folder, false);
        $this->bench = new SimulatedWorkbench($this->rooms, Catalogue::loam(), self::$shelf.'/boards', self::$shelf.'/escs');
    }

    protected function tearDown(): void
    {
        self::remove($this->folder);
    }

    /** @return iterable<string, array{string}> */
    public static function boards(): iterable
    {
        foreach (array_keys(PartsCatalogue::shipped()->boards) as $board) {
            yield $board => [$board];
        }
    }

    #[DataProvider('boards')]
    public function testTheBoardAnswersAndHoldsWhatItsBuilderSet(string $board): void
    {
        $this->bench->put('ruff', 'Ruff', self::plan($board), [], 3);
        $bench = $this->rooms->of('ruff');
        $bench->move(Thing::Cable->value, '1');
        $client = new BoardClient($bench->link());
        self::assertSame($board, $client->awaitIdentity(3000)->hardwareId);
        $held = $client->readSettings();
        self::assertSame('quad_x', $held->text('frame.layout'));
        self::assertSame(216.0, $held->number('frame.diagonal_mm'));
        self::assertSame('crsf', $held->text('receiver.protocol'));
        self::assertSame('receiver', $held->text('uart.1.role'));
        self::assertCount(4, array_intersect($held->drives(), $bench->frame()?->places() ?? []));
    }

    public function testItIsTheSameForASeedAndAnotherForAnother(): void
    {
        $of = static fn (int $seed): mixed => FromParts::build('Ruff', self::plan(), BuildFault::cases(), $seed);
        self::assertEquals($of(5), $of(5));
        self::assertNotEquals($of(5), $of(6));
    }

    /** Each mistake is really made, and nothing else: what a craft with it is otherwise than the sound one. */
    #[DataProvider('faults')]
    public function testEachMistakeIsMadeAndNoOther(BuildFault $fault): void
    {
        $sound = FromParts::build('Ruff', self::plan('TARN-H7'), [], 9);
        $with = FromParts::build('Ruff', self::plan('TARN-H7'), [$fault], 9);
        $differs = [];
        foreach (get_object_vars($with->physics) as $name => $value) {
            // Tolerances are drawn from the same dice, so what is drawn after a mistake may fall otherwise, by a little.
            $drawn = \in_array($name, ['imbalance', 'compass', 'escs', 'resonances'], true);
            if (!$drawn && $value != get_object_vars($sound->physics)[$name]) {
                $differs[] = $name;
            }
        }
        $turns = static fn (Build $build): array => array_map(static fn (EscModel $e): int => $e->turns, $build->physics->escs);
        $set = static fn (Build $build, string $name): mixed => $build->settings[$name] ?? null;
        $memory = Model::fromArray($with->memories['Ruff']);
        $only = static fn (string ...$names): array => $names;
        match ($fault) {
            BuildFault::BoardTurned => self::assertNotSame(0.0, $with->physics->mountedDeg[2]),
            BuildFault::BoardCrooked => self::assertGreaterThan(1.0, $with->physics->levelFault[0]),
            BuildFault::OutputsMixed => self::assertCount(
                3,
                array_diff_assoc($with->physics->wiredPads, $sound->physics->wiredPads),
            ),
            BuildFault::DirectionsWrong => self::assertCount(2, array_diff_assoc($turns($with), $turns($sound))),
            BuildFault::OddEsc => self::assertCount(1, array_filter($with->escs, static fn (array $e): bool => 'Bracken' === $e[0])),
            BuildFault::MagnetsMiscounted => self::assertNotSame($with->physics->magnets, $set($with, 'motors.rotor_magnets')),
            BuildFault::PropUnbalanced => self::assertGreaterThan(3 * min($with->physics->imbalance) * 0.5, max($with->physics->imbalance)),
            BuildFault::ArmLoose => self::assertSame(0.9, $with->physics->resonances[0]['gain']),
            BuildFault::ReceiverUnset => self::assertSame('none', $set($with, 'receiver.protocol')),
            BuildFault::ChannelOrder => self::assertSame([2, 0, 1, 3], \array_slice($memory->order, 0, 4)),
            BuildFault::SpansShort => self::assertLessThan(94, max(\array_slice($memory->lowPct, 0, 4) ?: [100.0])),
            BuildFault::ChannelReversed => self::assertSame([false, true, false], \array_slice($memory->reversed, 0, 3)),
            BuildFault::VoltageWrong => self::assertLessThan(0.98, $with->physics->dividerFault),
            BuildFault::CurrentWrong => self::assertSame(1.18, $with->physics->currentFault),
        };
        $may = match ($fault) {
            BuildFault::BoardTurned => $only('mountedDeg'),
            BuildFault::BoardCrooked => $only('levelFault'),
            BuildFault::OutputsMixed => $only('wiredPads'),
            BuildFault::VoltageWrong => $only('dividerFault'),
            BuildFault::CurrentWrong => $only('currentFault'),
            default => [],
        };
        self::assertSame($may, $differs);
    }

    /** @return iterable<string, array{BuildFault}> */
    public static function faults(): iterable
    {
        foreach (BuildFault::cases() as $fault) {
            yield $fault->value => [$fault];
        }
    }

    /** Whatever hangs where: an ESC turns its motor as its place wants, but for the two whose wires were swapped. */
    public function testMixedOutputsTurnTheirMotorsAsThePlacesWant(): void
    {
        for ($seed = 1; $seed <= 20; ++$seed) {
            foreach ([[BuildFault::OutputsMixed], [BuildFault::OutputsMixed, BuildFault::DirectionsWrong]] as $wrong => $faults) {
                $physics = FromParts::build('Ruff', self::plan(), $faults, $seed)->physics;
                $against = 0;
                foreach ($physics->wiredPads as $pad => $place) {
                    $against += ($physics->frame->at($place)->spin ?? 0) === $physics->escs[$pad]->turns ? 0 : 1;
                }
                self::assertSame(2 * $wrong, $against, "seed $seed");
            }
        }
    }

    public function testACopyIsAnotherBoardWithTheSameSettings(): void
    {
        $this->bench->put('ruff', 'Ruff', self::plan(), [BuildFault::OutputsMixed], 3);
        $this->rooms->of('ruff')->move(Thing::Cable->value, '1');
        $client = new BoardClient($this->rooms->of('ruff')->link());
        $client->awaitIdentity(3000);
        $client->writeSetting('gain.roll.p', 31.5);
        $client->keepSettings();
        $this->bench->copy('ruff', 'ruff-2');
        $copy = $this->rooms->of('ruff-2');
        self::assertFalse($copy->state()->cable);
        $copy->move(Thing::Cable->value, '1');
        $other = new BoardClient($copy->link());
        self::assertNotSame($client->awaitIdentity(3000)->serial, $other->awaitIdentity(3000)->serial);
        self::assertSame(31.5, $other->readSettings()->number('gain.roll.p'));
        $pads = fn (string $of): ?array => $this->rooms->belongings($of)?->physics->wiredPads;
        self::assertSame($pads('ruff'), $pads('ruff-2'));
        $other->writeSetting('gain.roll.p', 12.0);
        self::assertSame(31.5, $client->readSettings()->number('gain.roll.p'), 'they are two');
    }

    public function testWhereNothingLiesNothingIsCopied(): void
    {
        $this->bench->copy('nobody', 'nobody-2');
        self::assertNull($this->rooms->of('nobody-2')->frame());
    }

    /** Where there is no room for it nothing lies there, rather than half a craft. */
    public function testAFullDiskLeavesNothingHalfMade(): void
    {
        file_put_contents($this->folder, 'no folder can be here');
        try {
            $this->bench->put('ruff', 'Ruff', self::plan(), [], 1);
            self::fail('It cannot have been kept.');
        } catch (CannotKeep $e) {
            self::assertStringContainsString($this->folder, $e->getMessage());
        }
        unlink($this->folder);
        self::assertNull($this->rooms->of('ruff')->frame());
    }

    private static function plan(string $board = 'QUERN-F7'): CraftPlan
    {
        $of = ['frame' => 'rush-216', 'motor' => 'whin-22', 'prop' => 'reed-130-3', 'esc' => 'osier-45', 'pack' => 'sedge-6-130'];

        return CraftPlan::fromArray($of + ['board' => $board, 'extras' => ['rill-c']], PartsCatalogue::shipped())
            ?? self::fail('One of these is not in the catalogue.');
    }

    private static function remove(string $path): void
    {
        foreach (is_dir($path) ? (glob("$path/{,.}[!.]*", \GLOB_BRACE) ?: []) : [] as $file) {
            is_dir($file) ? self::remove($file) : unlink($file);
        }
        if (is_dir($path)) {
            rmdir($path);
        }
    }
}
