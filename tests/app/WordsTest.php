<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\DriverManager;
use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;
use Ortholex\App\Words\Words;
use Ortholex\Core\Fact\Code;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\FlightLog\BadRowReason;
use Ortholex\Core\FlightLog\BadRows;
use Ortholex\Core\Overlay\OverlayNeed;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Step\Confidence\ConfidenceReason;
use Ortholex\Migrations\Version20261125000001;
use Ortholex\Migrations\Version20261125000002;
use PHPUnit\Framework\Attributes\DataProvider;
use Psr\Log\NullLogger;
use Symfony\Component\Translation\TranslatorBagInterface;

/** Every code that core can give has words, and no words stand there for nothing. */
final class WordsTest extends AppCase
{
    /** @return iterable<string, array{class-string<Code>}> */
    public static function codes(): iterable
    {
        $root = \dirname(__DIR__, 2).'/core';
        /** @var \SplFileInfo $file */
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($root, \FilesystemIterator::SKIP_DOTS)) as $file) {
            $class = 'Ortholex\Core'.str_replace('/', '\\', substr($file->getPathname(), \strlen($root), -4));
            if (enum_exists($class) && is_subclass_of($class, Code::class)) {
                yield $class => [$class];
            }
        }
    }

    /** @param class-string<Code> $codes */
    #[DataProvider('codes')]
    public function testEveryCodeHasWords(string $codes): void
    {
        $catalogue = self::getContainer()->get(TranslatorBagInterface::class)->getCatalogue('en');
        self::assertNotEmpty($codes::cases());
        foreach ($codes::cases() as $case) {
            self::assertTrue($catalogue->has((string) $case->value, 'facts'), "{$case->value} of $codes has no words");
        }
    }

    public function testTheWordsHaveNoCodeThatCoreDoesNotGive(): void
    {
        $given = [];
        foreach (self::codes() as [$class]) {
            foreach ($class::cases() as $case) {
                $given[(string) $case->value] = true;
            }
        }
        $kinds = array_unique(array_map(static fn (string $code): string => explode('.', $code)[0], array_keys($given)));
        $catalogue = self::getContainer()->get(TranslatorBagInterface::class)->getCatalogue('en');
        $idle = [];
        foreach (array_keys($catalogue->all('facts')) as $key) {
            if (\in_array(explode('.', (string) $key)[0], $kinds, true) && !isset($given[$key])) {
                $idle[] = $key;
            }
        }
        self::assertSame([], $idle);
    }

    public function testFiguresAreRoundedAsTheWordsAsk(): void
    {
        $words = self::getContainer()->get(Words::class);
        self::assertStringContainsString('31 %', $words->of(Fact::of(ConfidenceReason::FeedForwardOn, pct: 30.6)));
        self::assertSame('rear left', $words->name('rear_left'));
        self::assertSame('7', $words->name('7'), 'a motor known by its number keeps it');
    }

    public function testEverySettingIsNamedAndExplained(): void
    {
        $words = self::getContainer()->get(Words::class);
        foreach ([...Catalogue::loam()->all(), ...EscTable::rows()] as $name => $setting) {
            self::assertNotSame($name, $words->label($setting), "$name has no label");
            self::assertNotSame($name, $words->help($setting), "$name has no help");
            self::assertNotSame($name, $words->why($setting), "nobody says why $name has its default");
            self::assertStringNotContainsString('{', $words->label($setting).$words->help($setting).$words->why($setting), $name);
        }
        $said = static fn (string $name): string => $words->label(Catalogue::loam()->get($name, Version::parse(Catalogue::CURRENT)));
        self::assertSame('P, roll', $said('gain.roll.p'));
        self::assertSame('Software UART 2, job', $said('uart.software_2.role'));
        self::assertSame('Right motor, to the right', $said('motor_place.right.right_mm'));
        self::assertSame('Rear left ESC, commutation advance', $said('esc.rear_left.advance_deg'));
    }

    public function testLogsKeptWithSentencesAreReadAfterTheMigration(): void
    {
        $db = DriverManager::getConnection(['driver' => 'pdo_sqlite', 'memory' => true]);
        $db->executeStatement('CREATE TABLE log (id INTEGER PRIMARY KEY, bad_rows CLOB NOT NULL, faults CLOB NOT NULL)');
        $places = [
            ['line' => 501, 'count' => 2, 'reason' => 'column 2 is not a number'],
            ['line' => 901, 'count' => 1, 'reason' => '3 cells instead of 5'],
            ['line' => 1201, 'count' => 1, 'reason' => 'column 4 is not finite'],
            ['line' => 1300, 'count' => 1, 'reason' => 'longer than 1 MB, which no row of a log is'],
            ['line' => 3004, 'count' => 1, 'reason' => 'torn at the end of the file'],
        ];
        $db->insert('log', [
            'bad_rows' => json_encode(['count' => 6, 'places' => $places]),
            'faults' => '[{"kind":"left out","at_s":1.5,"length_s":0.01,"row":7},{"kind":"gap","at_s":2.5,"length_s":0.2,"row":9}]',
        ]);
        self::assertSame(1, self::migrated($db, Version20261125000001::class));
        $row = $db->fetchAssociative('SELECT bad_rows, faults FROM log');
        self::assertIsArray($row);
        self::assertIsString($row['bad_rows']);
        $kept = json_decode($row['bad_rows'], true);
        self::assertIsArray($kept);
        $bad = BadRows::fromArray(Stored::of($kept));
        self::assertSame(6, $bad->count);
        self::assertSame([501, 901, 1201, 1300, 3004], array_column($bad->places, 'line'));
        self::assertEquals(
            [
                Fact::of(BadRowReason::NotANumber, column: 2),
                Fact::of(BadRowReason::WrongCells, cells: 3, wanted: 5),
                Fact::of(BadRowReason::NotFinite, column: 4),
                Fact::of(BadRowReason::TooLong, mb: 1),
                Fact::of(BadRowReason::Torn),
            ],
            array_column($bad->places, 'reason'),
        );
        self::assertIsString($row['faults']);
        self::assertSame(['left_out', 'gap'], array_column((array) json_decode($row['faults'], true), 'kind'));
    }

    public function testReleasesAreRenumberedWhereverTheyAreKept(): void
    {
        $db = DriverManager::getConnection(['driver' => 'pdo_sqlite', 'memory' => true]);
        $tables = [
            'craft' => ['version' => '4.2.1', 'notes' => 'flies 4.2.1'],
            'snapshot' => ['version' => '4.1.2', 'name' => 'Before flashing 4.3.0'],
            'change_entry' => ['what' => 'Flash: 4.1.2 to 4.3.0', 'reason' => 'P was 4.1.2 too high'],
            'job' => ['title' => 'Write Loam 4.4.0-pre1', 'work_order' => '{"image":"loam-4.3.0-quern-f7-2","keep":true}'],
            'log' => ['head' => '{"flight.firmware":"Loam 4.2.1"}', 'settings' => '{"flight.firmware":"Loam 4.0.3"}'],
        ];
        foreach ($tables as $table => $row) {
            $db->executeStatement("CREATE TABLE $table (id INTEGER PRIMARY KEY, ".implode(' CLOB, ', array_keys($row)).' CLOB)');
            $db->insert($table, $row);
        }
        self::migrated($db, Version20261125000002::class);
        $now = array_map(static fn (string $t): array => (array) $db->fetchAssociative("SELECT * FROM $t"), array_keys($tables));
        self::assertSame(
            [
                ['id' => 1, 'version' => '26.01', 'notes' => 'flies 4.2.1'],
                ['id' => 1, 'version' => '25.08', 'name' => 'Before flashing 26.06'],
                ['id' => 1, 'what' => 'Flash: 25.08 to 26.06', 'reason' => 'P was 4.1.2 too high'],
                ['id' => 1, 'title' => 'Write Loam 26.10-pre1', 'work_order' => '{"image":"loam-26.06-quern-f7-2","keep":true}'],
                ['id' => 1, 'head' => '{"flight.firmware":"Loam 26.01"}', 'settings' => '{"flight.firmware":"Loam 25.02"}'],
            ],
            $now,
        );
    }

    /**
     * @param class-string<AbstractMigration> $class
     *
     * @return int rows that were written anew
     */
    private static function migrated(Connection $db, string $class): int
    {
        $migration = new $class($db, new NullLogger());
        $migration->up(new Schema());
        $count = 0;
        foreach ($migration->getSql() as $query) {
            $count += (int) $db->executeStatement($query->getStatement(), array_values($query->getParameters()));
        }

        return $count;
    }

    public function testTermsOfOursAreExplainedALineEach(): void
    {
        $terms = self::getContainer()->get(Words::class)->glossary();
        foreach (['Workshop', 'bench', 'staged', 'Commit', 'snapshot', 'odd one out', 'span', 'interlock', 'noise map'] as $term) {
            self::assertArrayHasKey($term, $terms);
        }
        foreach ($terms as $term => $line) {
            self::assertLessThanOrEqual(110, mb_strlen($line), $term);
            self::assertMatchesRegularExpression('~^[^.]+$~', $line, "$term: a line, no sentences");
        }
    }

    /** On no page that a test asks for does a code stand where words should. */
    public function testWhatHasNoWordsIsAnErrorInTests(): void
    {
        $words = self::getContainer()->get(Words::class);
        self::assertSame('the board has no current sensor', $words->name(OverlayNeed::CurrentSensor->value));
        $this->expectExceptionMessage('There are no words for overlay_need.current_sensor.');
        $words->of(OverlayNeed::CurrentSensor);
    }
}
