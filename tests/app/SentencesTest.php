<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\Noise\NoiseFindings;
use Ortholex\App\Report\ResponseFinding;
use Ortholex\App\Response\ResponseFindings;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Report\Finding\Certainty;
use Ortholex\Core\Report\Finding\Finding;
use Ortholex\Core\Report\Finding\FindingCode;
use Ortholex\Core\Report\Finding\FindingKind;
use Ortholex\Core\Report\Finding\FindingUnit;
use Ortholex\Core\Report\Finding\Remedy;
use Ortholex\Core\Report\Finding\Weight;
use Ortholex\Core\Step\Confidence\ConfidenceReason;
use Ortholex\Core\Step\Confidence\Grade;
use Ortholex\Core\Step\StepRanking;
use PHPUnit\Framework\Attributes\DataProvider;

/** What the sheets say in one sentence, and what the store gives back. */
final class SentencesTest extends AppCase
{
    /**
     * Louder by dB above 100 Hz, by code and axis, and the sentence.
     *
     * @return iterable<string, array{array<string, array<string, float>>, string}>
     */
    public static function mounts(): iterable
    {
        yield 'two alike' => [
            ['A' => ['roll' => 0.0], 'B' => ['roll' => 0.4]],
            'A and B shake alike: no band differs by more than two flights of one craft do.',
        ];
        yield 'the second louder' => [
            ['A' => ['roll' => 0.0], 'B' => ['roll' => 5.0]],
            'A is quieter than B by 5.0 dB from 200 to 450 Hz on roll.',
        ];
        yield 'the first louder' => [
            ['A' => ['pitch' => 6.5], 'B' => ['pitch' => 0.0]],
            'B is quieter than A by 6.5 dB from 200 to 450 Hz on pitch.',
        ];
        yield 'the axis that differs most' => [
            ['A' => ['roll' => 2.0, 'pitch' => 0.0, 'yaw' => 0.0], 'B' => ['roll' => 0.0, 'pitch' => 0.0, 'yaw' => 9.0]],
            'A is quieter than B by 9.0 dB from 200 to 450 Hz on yaw.',
        ];
        yield 'three, one hardly different' => [
            ['A' => ['roll' => 0.0], 'B' => ['roll' => 4.0], 'C' => ['roll' => 0.3]],
            'A is the quietest: quieter than B by 4.0 dB from 200 to 450 Hz on roll; hardly different from C.',
        ];
        yield 'three, the last the quietest' => [
            ['A' => ['roll' => 8.0], 'B' => ['roll' => 4.0], 'C' => ['roll' => 0.0]],
            'C is the quietest: quieter than A by 8.0 dB from 200 to 450 Hz on roll; quieter than B by 4.0 dB from 200 to 450 Hz on roll.',
        ];
    }

    /** @param array<string, array<string, float>> $logs */
    #[DataProvider('mounts')]
    public function testTheQuietestMountIsNamedWithWhereAndByHowMuch(array $logs, string $sentence): void
    {
        $charts = $reports = $spectra = [];
        foreach ($logs as $code => $axes) {
            foreach ($axes as $axis => $db) {
                $spectra[$code][$axis] = [
                    'step_hz' => 2.0,
                    'measured_db' => array_map(static fn (int $k): float => -20.0 + ($k >= 100 && $k < 225 ? $db : 0.0), range(0, 250)),
                    'filtered_db' => [],
                ];
            }
            $charts[$code] = Kept::charts($spectra[$code] ?? []);
            $reports[$code] = Kept::report(motion: array_map(static fn (): float => 50.0, $axes));
        }
        [$said, $tables] = NoiseFindings::among($charts, $reports);
        self::assertSame($sentence, $said);
        self::assertSame(\array_slice(array_keys($logs), 1), array_keys($tables), 'the first against each other');
        $first = reset($logs);
        foreach ($tables as $other => ['alike' => $alike, 'bands' => $bands]) {
            self::assertTrue($alike);
            foreach ($bands as $band) {
                foreach ($band['axes'] as $axis => $db) {
                    self::assertEqualsWithDelta(200.0 === $band['from_hz'] ? $first[$axis] - $logs[$other][$axis] : 0.0, $db, 1e-9);
                }
            }
        }
    }

    public function testLogsWithoutRatesShakeAlikeAsFarAsAnybodyKnows(): void
    {
        $charts = Kept::charts();
        $report = Kept::report();
        [$said, $tables] = NoiseFindings::among(['A' => $charts, 'B' => $charts], ['A' => $report, 'B' => $report]);
        self::assertStringContainsString('shake alike', $said);
        self::assertSame([], $tables);
    }

    public function testAWrongMagnetCountStandsFirstOnTheNoiseSheet(): void
    {
        $magnets = new Finding(
            FindingKind::Magnets,
            Weight::Wrong,
            Fact::of(FindingCode::WrongMagnets, order: 1.17, set: 14, is: 12),
            1.17,
            FindingUnit::PerRevolution,
            Fact::of(Certainty::Firm),
            Fact::of(Remedy::SetMagnets, magnets: 12),
        );
        $report = Kept::report(steps: ['roll' => Kept::untold(Axis::Roll)], findings: [$magnets], measured: ['roll' => 3.0]);
        [, $findings] = self::getContainer()->get(NoiseFindings::class)->of($report, Kept::charts());
        self::assertSame(['Wrong magnet count', '15'], [$findings[0]->title, $findings[0]->sheet]);
    }

    /** @return iterable<string, array{array<string, list<array{string, float|null}>>, string}> */
    public static function rankings(): iterable
    {
        yield 'one follows best' => [['roll' => [['A', 12.0], ['B', 30.0]]], 'A follows best on roll.'];
        yield 'two share the place' => [['roll' => [['A', 12.0], ['B', 12.2], ['C', 30.0]]], 'A and B follow best on roll.'];
        yield 'alike on two axes' => [
            ['roll' => [['A', 12.0], ['B', 30.0]], 'pitch' => [['A', 12.0], ['B', 12.1]], 'yaw' => [['A', 40.0], ['B', 40.2]]],
            'A follows best on roll; on pitch and yaw all are alike.',
        ];
        yield 'nobody tells' => [['roll' => [['A', null], ['B', null]]], 'None of these flights shows how the craft responds.'];
        yield 'one tells alone' => [['roll' => [['A', null], ['B', 20.0]]], 'B follows best on roll.'];
    }

    /** @param array<string, list<array{string, float|null}>> $axes */
    #[DataProvider('rankings')]
    public function testTheRankingIsSaidInOneSentence(array $axes, string $sentence): void
    {
        $ranked = array_map(static function (array $flights): array {
            $by = [];
            foreach ($flights as [$name, $error]) {
                $by[$name] = [
                    'error_ms' => $error,
                    'interval' => null === $error ? null : [$error - 0.5, $error + 0.5],
                    'grade' => null === $error ? Grade::None : Grade::Firm,
                ];
            }

            return StepRanking::of($by);
        }, $axes);
        self::assertSame($sentence, ResponseFindings::ranking($ranked));
    }

    public function testWhyAnAxisCannotBeToldAndWhatChangedAreSaid(): void
    {
        $steps = [
            'roll' => Kept::step(1.3, 12.0, Grade::Firm, [Fact::of(ConfidenceReason::FeedForwardOn, pct: 30.0)], ['peak' => [1.28, 1.33]]),
            'pitch' => Kept::untold(Axis::Pitch),
            'yaw' => Kept::step(0.6, 40.0, Grade::Fair),
        ];
        $other = Kept::report(steps: ['roll' => Kept::step(1.05, 12.0, Grade::Firm)]);
        [$answer, $findings] = self::getContainer()->get(ResponseFindings::class)->of(Kept::report(steps: $steps), $other, 'B-0001');
        self::assertSame('Roll peaks at 1.30 instead of 1.05 in B-0001.', $answer);
        $by = array_combine(
            array_map(static fn (ResponseFinding $f): string => $f->title, $findings),
            array_map(static fn (ResponseFinding $f): string => $f->text, $findings),
        );
        self::assertStringContainsString('(1.28 to 1.33)', $by['Roll overshoots']);
        self::assertStringContainsString('But feed-forward was on', $by['Roll overshoots']);
        self::assertSame('The log has no setpoint of pitch.', $by['Pitch: the log does not tell']);
        self::assertArrayHasKey('Yaw falls short', $by);
    }

    public function testSamplesAreTheOnesAskedForAcrossChunks(): void
    {
        $this->link();
        $rows = 40000;
        $path = $this->written(
            "time_s,rate_measured_roll_dps,throttle_pct\n".
                implode(
                    '',
                    array_map(
                        static fn (int $i): string => \sprintf("%.4F,%d,%.2F\n", $i / 2000, ($i % 1000) - 500, 30 + 20 * sin($i / 900)),
                        range(0, $rows - 1),
                    ),
                ),
        );
        $job = $this->job('import', ['path' => $path, 'name' => 'ramp.csv']);
        self::assertIsInt($job->result['log'], $job->message);
        $store = self::getContainer()->get(LogStore::class);
        foreach ([[0, 10], [16380, 10], [16384, 16384], [32760, 4000], [39990, 500]] as [$first, $count]) {
            $values = $store->samples($job->result['log'], 'rate_measured_roll_dps', $first, $count);
            self::assertCount(min($count, $rows - $first), $values);
            self::assertSame((float) (($first % 1000) - 500), $values[0]);
            self::assertSame((float) ((($first + \count($values) - 1) % 1000) - 500), $values[\count($values) - 1]);
        }
        self::assertSame([], $store->samples($job->result['log'], 'rate_measured_roll_dps', $rows + 5, 10));
        self::assertSame([], $store->samples($job->result['log'], 'nothing', 0, 10));
        // Turned about twice, every level is as it was.
        $before = $store->view($job->result['log'], ['rate_measured_roll_dps'], 0, $rows);
        $store->turn($job->result['log'], ['rate_measured_roll_dps']);
        self::assertSame(500.0, $store->samples($job->result['log'], 'rate_measured_roll_dps', 0, 1)[0]);
        $store->turn($job->result['log'], ['rate_measured_roll_dps']);
        self::assertSame($before, $store->view($job->result['log'], ['rate_measured_roll_dps'], 0, $rows));
    }

    /** Twig's own filter makes all other letters small: “500 Hz” would read “500 hz”. */
    public function testASentenceBeginsLargeAndKeepsItsUnits(): void
    {
        $twig = self::getContainer()->get('twig');
        self::assertSame('What shook above 500 Hz', $twig->createTemplate('{{ "what shook above 500 Hz" | capital }}')->render());
        $templates = new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(\dirname(__DIR__, 2).'/templates'));
        foreach ($templates as $file) {
            self::assertInstanceOf(\SplFileInfo::class, $file);
            if ('twig' === $file->getExtension()) {
                self::assertStringNotContainsString('| capitalize', (string) file_get_contents($file->getPathname()), $file->getPathname());
            }
        }
    }
}
