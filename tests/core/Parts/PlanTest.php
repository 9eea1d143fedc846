<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Parts;

use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\Layout;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Parts\BoardPart;
use Ortholex\Core\Parts\Frame;
use Ortholex\Core\Parts\Motor;
use Ortholex\Core\Parts\PartsCatalogue;
use Ortholex\Core\Parts\Plan\BuildFault;
use Ortholex\Core\Parts\Plan\CraftFigures;
use Ortholex\Core\Parts\Plan\CraftPlan;
use Ortholex\Core\Parts\Plan\PlanCode;
use Ortholex\Core\Parts\Plan\Propulsion;
use Ortholex\Core\Parts\Plan\Soldering;
use Ortholex\Core\Parts\Plan\StartSettings;
use Ortholex\Core\Parts\Prop;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Consistency;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Part;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;

/** What follows from the parts of a craft. */
final class PlanTest extends TestCase
{
    /** One that anybody can reckon after: 100 mm arms, all else round. */
    private static function plan(string ...$other): CraftPlan
    {
        $parts = PartsCatalogue::shipped();
        $of = $other + [
            'frame' => 'rush-216',
            'motor' => 'whin-22',
            'prop' => 'reed-130-3',
            'esc' => 'osier-45',
            'pack' => 'sedge-6-130',
            'board' => 'QUERN-F7',
        ];
        $plan = CraftPlan::fromArray($of + ['extras' => ['rill-c']], $parts);

        return $plan ?? self::fail('One of these is not in the catalogue.');
    }

    public function testAMotorWithoutLoadTurnsAsItsSheetSays(): void
    {
        $motor = new Motor('m', 'M', [20.0, 5.0], 1000.0, 0.1, 0.0, 30.0, 14, 30.0);
        $nothing = new Prop('p', 'P', 1.0, 0.1, 2, 0.1);
        self::assertEqualsWithDelta(10_000, Propulsion::at($motor, $nothing, 0.0, 10.0)->rpm, 1);
    }

    public function testAtFullTheMotorGivesJustTheTorqueThatThePropTakes(): void
    {
        $parts = PartsCatalogue::shipped();
        foreach ($parts->motors as $motor) {
            foreach ($parts->props as $prop) {
                $at = Propulsion::at($motor, $prop, 0.003, 14.0);
                $kt = 60 / (2 * \M_PI * $motor->rpmPerV);
                $volts = ($at->rpm / 60) * 2 * \M_PI * $kt + $at->amps * ($motor->ohm + 0.003);
                self::assertEqualsWithDelta(14.0, $volts, 1e-6, 'voltage over coil and winding');
                self::assertEqualsWithDelta(
                    $prop->torqueNm($at->rpm / 60),
                    $kt * ($at->amps - $motor->idleA),
                    1e-9,
                    "{$motor->name} with {$prop->name}",
                );
            }
        }
    }

    /** Momentum theory: no prop lifts with less than T^1.5 / √(2 ρ A). */
    public function testNoPropIsBetterThanTheIdealOne(): void
    {
        foreach (PartsCatalogue::shipped()->props as $prop) {
            foreach ([50.0, 200.0, 500.0] as $turns) {
                $area = \M_PI * ($prop->diameterMm / 2000) ** 2;
                $ideal = $prop->thrustN($turns) ** 1.5 / sqrt(2 * Prop::AIR_KG_M3 * $area);
                $takes = 2 * \M_PI * $turns * $prop->torqueNm($turns);
                self::assertGreaterThan($ideal, $takes);
                self::assertLessThan(3 * $ideal, $takes);
            }
        }
    }

    /** An independent sum in figures: four points of 41.2 g at 76.37 mm, four rods, and a box. */
    public function testInertiaIsThatOfPointsRodsAndABox(): void
    {
        $plan = self::plan();
        $figures = CraftFigures::of($plan);
        $a = 0.216 / 2 / sqrt(2);
        $arm = 0.55 * 0.112 / 4;
        $each = 0.0412 + $arm / 3;
        $middle = $figures->massKg - 4 * (0.0412 + $arm);
        $k = ($middle / 2100 / (2.2 * 0.9)) ** (1 / 3);
        self::assertEqualsWithDelta(4 * $each * $a ** 2 + $middle * ((1.0 * $k) ** 2 + (0.9 * $k) ** 2) / 12, $figures->inertia[0], 1e-9);
        self::assertEqualsWithDelta(4 * $each * $a ** 2 + $middle * ((2.2 * $k) ** 2 + (0.9 * $k) ** 2) / 12, $figures->inertia[1], 1e-9);
        self::assertEqualsWithDelta(8 * $each * $a ** 2 + $middle * ((2.2 * $k) ** 2 + (1.0 * $k) ** 2) / 12, $figures->inertia[2], 1e-9);
    }

    /** Known sizes of craft come out as such craft are: mass, thrust over weight, hover, amperes. */
    public function testUsualCraftComeOutAsUsualCraftAre(): void
    {
        $five = CraftFigures::of(self::plan());
        self::assertEqualsWithDelta(0.55, $five->massKg, 0.1);
        self::assertEqualsWithDelta(10, $five->thrustToWeight(4), 3);
        self::assertEqualsWithDelta(0.3, $five->hover, 0.05);
        self::assertEqualsWithDelta(31_000, $five->maxRpm, 4000);
        self::assertEqualsWithDelta(0.018, $five->lagS, 0.006);
        $hexa = CraftFigures::of(
            self::plan(frame: 'reach-580', motor: 'whin-31', prop: 'reed-203-2', pack: 'bulrush-6-800', board: 'TARN-H7'),
        );
        self::assertEqualsWithDelta(2.1, $hexa->massKg, 0.2, 'as Bittern');
        self::assertEqualsWithDelta(17, $hexa->thrustN, 3, 'as Bittern');
        self::assertGreaterThan(15, $hexa->hoverMin);
    }

    public function testWeightOnTheScalesCountsOverTheSumOfParts(): void
    {
        $light = self::plan();
        $heavy = new CraftPlan($light->frame, $light->motor, $light->prop, $light->esc, $light->pack, $light->board, ['rill-c'], 900.0);
        $figures = CraftFigures::of($heavy);
        self::assertSame(0.9, $figures->massKg);
        self::assertEqualsWithDelta(sqrt(0.9 * 9.81 / (4 * $figures->thrustN)), $figures->hover, 1e-9, 'thrust is as the square');
        self::assertGreaterThan(CraftFigures::of($light)->inertia[1], $figures->inertia[1]);
    }

    /** @return iterable<string, array{PlanCode, array<string, string>}> */
    public static function wrongParts(): iterable
    {
        yield 'props that meet' => [PlanCode::PropsMeet, ['prop' => 'reed-203-2']];
        yield 'props too large for the arms' => [PlanCode::PropTooLarge, ['diagonal_mm' => '256', 'prop' => 'reed-178-2']];
        yield 'more motors than outputs' => [PlanCode::TooManyMotors, ['frame' => 'reach-580', 'board' => 'MARL-F4']];
        yield 'a motor over its volts' => [PlanCode::MotorOverVolts, ['motor' => 'whin-20']];
        yield 'an ESC over its cells' => [PlanCode::EscOverVolts, ['esc' => 'osier-20']];
        yield 'an ESC over its amperes' => [
            PlanCode::EscOverAmps,
            ['esc' => 'osier-20', 'pack' => 'sedge-4-150', 'motor' => 'whin-20', 'prop' => 'reed-130-2'],
        ];
        yield 'one that stays down' => [
            PlanCode::StaysDown,
            ['frame' => 'reach-580', 'motor' => 'whin-14', 'prop' => 'reed-76-3', 'weighs_g' => '4900', 'board' => 'TARN-H7'],
        ];
        yield 'no memory for logs' => [PlanCode::NoRecorder, ['board' => 'MARL-F4']];
    }

    /** @param array<string, string> $parts */
    #[DataProvider('wrongParts')]
    public function testWhatSpeaksAgainstPartsIsSaid(PlanCode $code, array $parts): void
    {
        $figures = CraftFigures::of(self::plan(...$parts));
        self::assertContains($code, array_column($figures->minded, 'code'));
        if ($code->refuses()) {
            self::assertFalse($figures->works());
        }
    }

    public function testNothingSpeaksAgainstTheFirstChoice(): void
    {
        self::assertSame([], CraftFigures::of(self::plan())->minded);
    }

    public function testOtherArmsWeighByTheirLengthAndRingByItsSquare(): void
    {
        $frame = new Frame('f', 'F', Layout::QuadX, 200.0, 100.0, 120.0, [200.0], 0.05);
        $long = $frame->withDiagonal(400.0);
        self::assertSame([400.0, 200.0, 240.0, [50.0]], [$long->diagonalMm, $long->massG, $long->largestPropMm, $long->ringsHz]);
    }

    /** Every board with every set of parts: each has a UART of its own, nothing refuses, and what found no place is named. */
    public function testPartsAreSolderedWhereTheyWork(): void
    {
        $settings = Catalogue::loam()->defaults(Version::parse(Catalogue::CURRENT));
        foreach (PartsCatalogue::shipped()->boards as $board) {
            foreach ([['rill-c'], ['rill-s', 'heron-400'], ['rill-c', 'plumb-g2', 'heron-400', 'scry-d', 'ledger-m']] as $extras) {
                $soldering = Soldering::of($board->id, $extras);
                $names = array_map(static fn (string $id): string => Part::all()[$id]->name, $extras);
                $placed = array_map(static fn (string $id): string => Part::all()[$id]->name, $soldering->parts);
                self::assertEqualsCanonicalizing($names, [...$placed, ...$soldering->left]);
                self::assertNotNull($soldering->wiring);
                self::assertSame([], $soldering->wiring->refusals());
                self::assertCount(\count($soldering->parts), array_unique($soldering->wiring->uarts));
                foreach ($soldering->wires as [, $pad]) {
                    self::assertArrayHasKey($pad, BoardPads::of($board->id)?->pads() ?? []);
                }
                foreach ($soldering->parts as $id) {
                    self::assertContains(Part::all()[$id]->role->value, $soldering->wiring->settings($settings)->toArray());
                }
            }
        }
    }

    public function testAPartThatIsUnknownFindsNoPlace(): void
    {
        self::assertSame(['nothing-7'], Soldering::of('QUERN-F7', ['nothing-7'])->left);
        self::assertSame(['Rill C'], Soldering::of('NO-SUCH-BOARD', ['rill-c'])->left);
    }

    /** Any craft that the catalogue makes begins with settings that its firmware takes and that do not contradict one another. */
    public function testOneBeginsWithSettingsThatHold(): void
    {
        $catalogue = Catalogue::loam();
        $now = Version::parse(Catalogue::CURRENT);
        for ($seed = 1; $seed <= 40; ++$seed) {
            $plan = self::drawn($seed);
            $figures = CraftFigures::of($plan);
            $set = $catalogue->defaults($now);
            foreach (StartSettings::of($plan, $figures) as $name => $value) {
                self::assertSame($value, $catalogue->get($name, $now)->check($value, $now), $name);
                $set = $set->with([$name => $value]);
            }
            self::assertEquals($plan->frame->airframe()->places(), Airframe::of($set)->places());
            foreach (Consistency::of($set, $now, new Circumstances($plan->motors(), $plan->board->processor, [])) as $clash) {
                self::assertFalse($clash->refuses(), $clash->setting);
            }
        }
    }

    /** The same loop: what a degree a second of error turns the craft with is alike for all, where no limit of the settings is met. */
    public function testGainsGoByWhatAnOutputTurnsTheCraftWith(): void
    {
        $turns = [];
        for ($seed = 1; $seed <= 20; ++$seed) {
            $plan = self::drawn($seed);
            $figures = CraftFigures::of($plan);
            $p = StartSettings::of($plan, $figures)['gain.roll.p'];
            self::assertIsFloat($p);
            if ($p > 4 && $p < 66) {
                $turns[] = ($p * StartSettings::authority($plan, $figures)['roll']) / 1e6;
            }
        }
        self::assertGreaterThan(5, \count($turns));
        self::assertLessThan(1.15, max($turns) / min($turns));
    }

    public function testFaultsAreDrawnBySeedAndNeverTwice(): void
    {
        self::assertSame(BuildFault::draw(7, 5), BuildFault::draw(7, 5));
        self::assertNotSame(BuildFault::draw(7, 5), BuildFault::draw(8, 5));
        self::assertSame([], BuildFault::draw(1, 0));
        self::assertCount(\count(BuildFault::cases()), BuildFault::draw(1, 99));
        $often = [];
        for ($seed = 0; $seed < 400; ++$seed) {
            $drawn = array_map(static fn (BuildFault $f): string => $f->value, BuildFault::draw($seed, 4));
            self::assertCount(4, array_unique($drawn));
            foreach ($drawn as $one) {
                $often[$one] = 1 + ($often[$one] ?? 0);
            }
        }
        // 400 × 4 / 14 = 114 each, standard deviation 9.
        self::assertGreaterThan(80, min($often));
        self::assertLessThan(150, max($often));
    }

    public function testAPlanComesBackAsItWasKept(): void
    {
        for ($seed = 1; $seed <= 20; ++$seed) {
            $plan = self::drawn($seed);
            self::assertEquals($plan, CraftPlan::fromArray($plan->toArray(), PartsCatalogue::shipped()));
        }
        self::assertNull(CraftPlan::fromArray(['motor' => 'of yesterday'] + self::plan()->toArray(), PartsCatalogue::shipped()));
        self::assertNull(CraftPlan::fromArray([], PartsCatalogue::shipped()));
        self::assertNull(CraftPlan::fromArray(['frame' => ['x']], PartsCatalogue::shipped()));
    }

    public function testEveryBoardOfTheCatalogueHasItsDrawing(): void
    {
        foreach (PartsCatalogue::shipped()->boards as $id => $board) {
            self::assertInstanceOf(BoardPart::class, $board);
            self::assertNotNull(BoardPads::of($id));
            self::assertGreaterThan($board->flashFrom, $board->flashEnd);
        }
    }

    /** One of those that the catalogue makes, by seed. */
    private static function drawn(int $seed): CraftPlan
    {
        $dice = new Randomizer(new Xoshiro256StarStar($seed));
        $parts = PartsCatalogue::shipped();
        $one = static fn (array $of): string => (string) array_keys($of)[$dice->getInt(0, \count($of) - 1)];
        do {
            $frame = $parts->frames[$one($parts->frames)];
            $plan = new CraftPlan(
                $frame->withDiagonal(round($frame->diagonalMm * $dice->getInt(90, 115) / 100)),
                $parts->motors[$one($parts->motors)],
                $parts->props[$one($parts->props)],
                $parts->escs[$one($parts->escs)],
                $parts->packs[$one($parts->packs)],
                $parts->boards[$one($parts->boards)],
                ['rill-c'],
            );
        } while (!CraftFigures::of($plan)->works());

        return $plan;
    }
}
