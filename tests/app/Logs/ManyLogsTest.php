<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Logs;

use Ortholex\Tests\app\AppCase;

/** A craft flown for years: the newest logs are listed, all of them when asked. */
final class ManyLogsTest extends AppCase
{
    public function testTheNewestAreListedAndAllWhenAsked(): void
    {
        $path = self::data().'/first.csv';
        $csv = "time_s,setpoint_roll_dps,rate_filtered_roll_dps\n";
        for ($i = 0; $i < 3000; ++$i) {
            $csv .= \sprintf("%.3F,%.1F,%.1F\n", $i / 1000, 100 * sin($i / 80), 98 * sin($i / 80 - 0.1));
        }
        file_put_contents($path, $csv);
        $this->link();
        $this->job('import', ['path' => $path, 'name' => 'first.csv']);
        self::assertCount(1, self::listed($this->page('/craft/curlew/51')));
        self::assertStringNotContainsString('Show all', $this->page('/craft/curlew/51'));
        $this->again(129);
        $page = $this->page('/craft/curlew/51');
        $listed = self::listed($page);
        self::assertCount(60, $listed);
        self::assertSame('X-130', $listed[0], 'the newest first');
        self::assertStringContainsString('130 logs; the newest is X-130', self::plain($page));
        self::assertStringContainsString('The newest 60 of 130.', self::plain($page));
        self::assertSame(1, preg_match('~href="(/craft/curlew/51\?all=1)"~', $page, $m));
        $all = $this->page($m[1]);
        self::assertCount(130, self::listed($all));
        self::assertStringNotContainsString('Show all', $all);
    }

    /** The one log so often again, under other numbers. */
    private function again(int $times): void
    {
        $db = $this->entities()->getConnection();
        $columns = array_filter(array_column($db->fetchAllAssociative('PRAGMA table_info(log)'), 'name'), is_string(...));
        $names = implode(', ', array_diff($columns, ['id', 'code', 'flown_at']));
        for ($n = 2; $n <= $times + 1; ++$n) {
            $flown = \sprintf('2027-01-%02d %02d:00:00', 1 + intdiv($n, 24), $n % 24);
            $sql = "INSERT INTO log (code, flown_at, $names) SELECT ?, ?, $names FROM log ORDER BY id LIMIT 1";
            $db->executeStatement($sql, [\sprintf('X-%03d', $n), $flown]);
        }
        $this->entities()->clear();
    }

    /** @return list<string> codes */
    private static function listed(string $page): array
    {
        preg_match_all('~<tr data-log="\d+">\s*<td class="fig">([^<]+)</td>~', $page, $m);

        return array_map(trim(...), $m[1]);
    }

    private static function plain(string $page): string
    {
        return trim((string) preg_replace('~\s+~', ' ', strip_tags($page)));
    }
}
