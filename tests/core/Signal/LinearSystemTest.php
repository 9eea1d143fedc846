<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Signal;

use Ortholex\Core\Signal\LinearSystem;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class LinearSystemTest extends TestCase
{
    /** The inverse of a Hilbert matrix is of whole numbers (Choi 1983): of order 4 its corner is 16 and its largest entry 6480. */
    private const HILBERT_4_INVERSE = [
        [16, -120, 240, -140],
        [-120, 1200, -2700, 1680],
        [240, -2700, 6480, -4200],
        [-140, 1680, -4200, 2800],
    ];

    public function testTwoEquationsAsByHand(): void
    {
        // 2x + 3y = 8, 4x − y = 2: x = 1, y = 2.
        self::near([1.0, 2.0], LinearSystem::solve([[2.0, 3.0], [4.0, -1.0]], [8.0, 2.0]), 1e-12);
    }

    public function testRowsAreSwappedWhereAPivotIsNought(): void
    {
        self::near([3.0, 5.0], LinearSystem::solve([[0.0, 1.0], [1.0, 0.0]], [5.0, 3.0]), 1e-12);
        self::near(
            [1.0, -2.0, 3.0],
            LinearSystem::solve([[0.0, 0.0, 2.0], [0.0, 3.0, 0.0], [4.0, 0.0, 0.0]], [6.0, -6.0, 4.0]),
            1e-12,
        );
    }

    public function testAHilbertMatrixHasItsInverseOfWholeNumbers(): void
    {
        $hilbert = array_map(
            static fn (int $i): array => array_map(static fn (int $j): float => 1.0 / ($i + $j + 1), range(0, 3)),
            range(0, 3),
        );
        $inverse = LinearSystem::inverse($hilbert);
        self::assertNotNull($inverse);
        foreach (self::HILBERT_4_INVERSE as $i => $row) {
            self::near($row, $inverse[$i], 1e-8);
        }
    }

    /** @return iterable<string, array{list<list<float>>}> */
    public static function singular(): iterable
    {
        yield 'two rows alike' => [[[1.0, 2.0], [1.0, 2.0]]];
        yield 'a row twice another' => [[[1.0, 2.0], [2.0, 4.0]]];
        yield 'nothing in it' => [[[0.0, 0.0], [0.0, 0.0]]];
        yield 'a row that is the sum of others' => [[[1.0, 0.0, 1.0], [0.0, 1.0, 1.0], [1.0, 1.0, 2.0]]];
    }

    /** @param list<list<float>> $matrix */
    #[DataProvider('singular')]
    public function testWhatIsNotDeterminedIsSaidToBe(array $matrix): void
    {
        self::assertNull(LinearSystem::inverse($matrix));
        self::assertNull(LinearSystem::solve($matrix, array_fill(0, \count($matrix), 1.0)));
    }

    public function testAPivotMayBeAskedToBeLarger(): void
    {
        $nearly = [[1.0, 1.0], [1.0, 1.0 + 1e-6]];
        self::assertNotNull(LinearSystem::solve($nearly, [1.0, 1.0]));
        self::assertNull(LinearSystem::solve($nearly, [1.0, 1.0], 1e-3));
    }

    public function testWhatIsSolvedFulfilsItsEquations(): void
    {
        $dice = new Lcg(8);
        foreach ([1, 2, 3, 5, 9] as $n) {
            for ($round = 0; $round < 40; ++$round) {
                [$a, $b] = self::random($dice, $n);
                $x = LinearSystem::solve($a, $b);
                self::assertNotNull($x);
                self::near($b, self::times($a, $x), 1e-8);
                $inverse = LinearSystem::inverse($a);
                self::assertNotNull($inverse);
                self::near($x, self::times($inverse, $b), 1e-7, 'the inverse says the same');
            }
        }
    }

    public function testWithoutPivotingAPositiveMatrixGivesTheSame(): void
    {
        $dice = new Lcg(9);
        foreach ([1, 2, 4, 6] as $n) {
            for ($round = 0; $round < 40; ++$round) {
                [$m, $b] = self::random($dice, $n);
                // M·Mᵀ + I is symmetric and positive definite.
                $a = [];
                for ($i = 0; $i < $n; ++$i) {
                    for ($j = 0; $j < $n; ++$j) {
                        $a[$i][$j] = ($i === $j ? 1.0 : 0.0) + self::dot($m[$i], $m[$j]);
                    }
                }
                $general = LinearSystem::solve($a, $b);
                self::assertNotNull($general);
                self::near($general, array_values(LinearSystem::solvePositive($a, $b)), 1e-9);
            }
        }
    }

    /** @return array{list<list<float>>, list<float>} */
    private static function random(Lcg $dice, int $n): array
    {
        $a = $b = [];
        for ($i = 0; $i < $n; ++$i) {
            $row = [];
            for ($j = 0; $j < $n; ++$j) {
                $row[] = 4 * $dice->next() + ($i === $j ? 3.0 : 0.0);
            }
            $a[] = $row;
            $b[] = 10 * $dice->next();
        }

        return [$a, $b];
    }

    /**
     * @param list<list<float>> $a
     * @param list<float>       $x
     *
     * @return list<float>
     */
    private static function times(array $a, array $x): array
    {
        return array_map(static fn (array $row): float => self::dot($row, $x), $a);
    }

    /**
     * @param list<float> $a
     * @param list<float> $b
     */
    private static function dot(array $a, array $b): float
    {
        return array_sum(array_map(static fn (float $p, float $q): float => $p * $q, $a, $b));
    }

    /**
     * @param list<float|int>  $wanted
     * @param list<float>|null $got
     */
    private static function near(array $wanted, ?array $got, float $within, string $why = ''): void
    {
        self::assertNotNull($got);
        self::assertCount(\count($wanted), $got);
        foreach ($wanted as $i => $v) {
            self::assertEqualsWithDelta($v, $got[$i], $within * max(1.0, abs($v)), $why);
        }
    }
}
