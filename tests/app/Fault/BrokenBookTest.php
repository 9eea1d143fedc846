<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Fault;

use Doctrine\DBAL\Exception\UniqueConstraintViolationException;
use Doctrine\DBAL\Types\StringType;
use Doctrine\DBAL\Types\TextType;
use Ortholex\Tests\app\AppCase;
use Ortholex\Tests\Cases;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;

/** A row, a manifest, a piece of a log or a bench that cannot be read costs only itself, is named, and is left as it is. */
final class BrokenBookTest extends AppCase
{
    private const SHEETS = ['11', '12', '13', '14', '15', '16', '21', '23', '31', '41', '51', '52', '54', '61', '63', '71', '72', '73'];

    /** @return iterable<string, array{string, string, string, string}> table, column, broken value, how it is named */
    public static function rows(): iterable
    {
        yield 'settings of a log' => ['log', 'settings', '{"gain', 'log “C-0001” of Curlew: settings'];
        yield 'segments of a log' => ['log', 'segments', '[[[', 'log “C-0001” of Curlew: segments'];
        yield 'a text for a list' => ['log', 'traces', '"x"', 'log “C-0001” of Curlew: traces'];
        yield 'when it was flown' => ['log', 'flown_at', 'some day', 'log “C-0001” of Curlew: flownAt'];
        yield 'a snapshot' => ['snapshot', 'settings', '', 'snapshot “As found at first link” of Curlew: settings'];
        yield 'a change' => ['change_entry', 'items', '{', 'change entry “Commit” of Curlew: items'];
        yield 'how a change ended' => ['change_entry', 'outcome', 'perhaps', 'change entry “Commit” of Curlew: outcome'];
    }

    #[Group('slow')]
    #[DataProvider('rows')]
    public function testARowCostsOnlyItself(string $table, string $column, string $value, string $named): void
    {
        $this->flown(seconds: 12);
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 31]]);
        $this->post('/craft/curlew/commit', ['reason' => 'for the record']);
        $db = $this->entities()->getConnection();
        self::assertGreaterThan(0, $db->executeStatement("UPDATE $table SET $column = ?", [$value]));
        $this->entities()->clear();
        $told = 0;
        foreach (['/', ...array_map(static fn (string $s): string => "/craft/curlew/$s", self::SHEETS), '/craft/bittern/11'] as $address) {
            $this->browser->request('GET', $address);
            $html = html_entity_decode((string) $this->browser->getResponse()->getContent(), \ENT_QUOTES);
            self::assertLessThan(500, $this->browser->getResponse()->getStatusCode(), "$address: ".substr($html, 0, 600));
            $told += str_contains($html, $named) ? 1 : 0;
            $this->entities()->clear();
        }
        self::assertGreaterThan(0, $told, "somewhere it says: $named");
        self::assertSame($value, $db->fetchOne("SELECT $column FROM $table"), 'it is left as it is');
    }

    /** Every text that any table keeps of a craft: whatever stands there instead, the Workshop and other craft lose nothing by it. */
    #[Group('slow')]
    public function testNoBrokenTextAnywhereCostsWhatItIsNotAbout(): void
    {
        $log = $this->flown(seconds: 12);
        $this->post("/craft/curlew/logs/{$log->id}/passages", ['name' => 'the turn', 'from' => 2.0, 'to' => 4.5]);
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 31]]);
        $this->post('/craft/curlew/commit', ['reason' => 'for the record']);
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 32]]);
        $this->post('/craft/curlew/series', ['vary' => 'roll-ff', 'from' => '0', 'to' => '1.2', 'steps' => '2', 'card' => 'cruise']);
        $db = $this->entities()->getConnection();
        $lost = [];
        $broken = $number = 0;
        foreach ($db->createSchemaManager()->listTables() as $table) {
            if (false === $db->fetchOne("SELECT 1 FROM {$table->getName()}")) {
                continue;
            }
            foreach ($table->getColumns() as $column) {
                $isText = $column->getType() instanceof TextType || $column->getType() instanceof StringType;
                if (!$isText || \in_array($table->getName(), ['doctrine_migration_versions', 'sqlite_sequence'], true)) {
                    continue;
                }
                if (!Cases::takes($number++, 2)) {
                    continue;
                }
                $is = "{$table->getName()}.{$column->getName()}";
                $where = 'craft' === $table->getName() ? " WHERE slug = 'curlew'" : '';
                $db->beginTransaction();
                try {
                    $db->executeStatement("UPDATE {$table->getName()} SET {$column->getName()} = '{\"x'$where");
                } catch (UniqueConstraintViolationException) {
                    $db->rollBack();
                    continue;
                }
                ++$broken;
                $this->entities()->clear();
                foreach (['/', '/craft/bittern/11', '/craft/bittern/71', ...$this->sheetsOfCurlew()] as $address) {
                    $this->browser->request('GET', $address);
                    $status = $this->browser->getResponse()->getStatusCode();
                    $of = str_contains($address, 'curlew') ? 500 : 400;
                    if ($status >= $of && !(str_contains($is, 'craft.slug') && str_contains($address, 'curlew'))) {
                        $lost[] = "$is: $address $status";
                    }
                    $this->entities()->clear();
                }
                $db->rollBack();
            }
        }
        self::assertSame([], $lost);
        self::assertGreaterThan(Cases::many(40, 20), $broken);
    }

    /** @return list<string> */
    private function sheetsOfCurlew(): array
    {
        $all = [...self::SHEETS, '22', '32', '33', '42', '43', '53', '55', '62'];

        return array_map(static fn (string $s): string => "/craft/curlew/$s", $all);
    }

    public function testACraftCostsOnlyItself(): void
    {
        $db = $this->entities()->getConnection();
        $db->executeStatement("UPDATE craft SET packs = '[{' WHERE slug = 'bittern'");
        $this->entities()->clear();
        $html = html_entity_decode($this->page('/'), \ENT_QUOTES);
        self::assertStringContainsString('What the book says of Bittern cannot be read', $html);
        self::assertStringContainsString('href="/craft/curlew/11"', $html);
        $this->page('/craft/curlew/11');
        self::assertStringContainsString('cannot be read', $this->page('/craft/bittern/11', 409));
    }

    public function testAManifestAndABenchCostOnlyThemselves(): void
    {
        $manifest = (glob(self::data().'/shelf/*.json') ?: [])[0] ?? '';
        $kept = (string) file_get_contents($manifest);
        $world = self::data().'/bench/bittern/world.json';
        try {
            file_put_contents($manifest, '{"product": ');
            file_put_contents($world, '{"cable":');
            $this->link();
            self::assertStringContainsString(basename($manifest), $this->page('/craft/curlew/12'));
            self::assertStringContainsString('bench of Bittern cannot be read', $this->page('/'));
            $html = $this->page('/craft/bittern/71');
            self::assertStringContainsString('world.json is broken', $html);
            $said = $this->post('/craft/bittern/bench', ['thing' => 'cable', 'to' => '1'], 507)['error'] ?? '';
            self::assertIsString($said);
            self::assertStringContainsString('world.json is broken', $said);
            self::assertSame('{"cable":', file_get_contents($world), 'it is left as it is');
        } finally {
            file_put_contents($manifest, $kept);
        }
    }

    public function testALogThatIsNotAllThereIsNotGivenAsIfItWere(): void
    {
        $log = $this->flown(seconds: 12);
        $id = (int) $log->id;
        $this->browser->request('GET', "/craft/curlew/logs/$id.csv");
        self::assertResponseIsSuccessful();
        $gone = ['DELETE FROM log_chunk WHERE log_id = ? AND level = 0 AND trace = ?', [$id, 'rate_measured_roll_dps']];
        self::assertGreaterThan(0, $this->entities()->getConnection()->executeStatement(...$gone));
        $html = $this->page("/craft/curlew/logs/$id.csv", 409);
        self::assertStringContainsString('rate_measured_roll_dps cannot be read whole', $html);
        $this->page('/craft/curlew/51');
        $this->page("/craft/curlew/52?log=$id");
    }
}
