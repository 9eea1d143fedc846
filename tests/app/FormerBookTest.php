<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Schema\Schema;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Snapshot;
use Ortholex\App\Work\JobState;
use Ortholex\Bench\Storage\DurableFile;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Migrations\Version20261125000004;
use PHPUnit\Framework\Attributes\Group;
use Psr\Log\NullLogger;

/** Books and benches from before settings and ESC hardware got their names of now: they open, and fly as before. */
final class FormerBookTest extends AppCase
{
    /** Written down here once more, from what books of those days hold. */
    private const THEN = [
        'notch.tracking.peaks' => 'notch.tracking.count',
        'gain.throttle_fall_older_pct' => 'gain.attenuation',
        'pack.flight_end_cell_v' => 'pack.land_now_cell_v',
        'motors.idle_permille' => 'motors.idle_us',
    ];

    public function testABookOfThenIsCarriedOver(): void
    {
        $this->link();
        $craft = $this->craft();
        $now = self::reachedThen($craft->settings);
        $then = self::then($now);
        self::assertArrayHasKey('notch.tracking.low_hz', $then);
        self::assertArrayNotHasKey('notch.tracking.band_hz', $then);
        $sql = $this->connection();
        $sql->executeStatement('UPDATE craft SET settings = ?, escs = ? WHERE slug = ?', [
            self::jsonOf($then),
            json_encode([1 => ['clock_mhz' => 48, 'switching_khz' => 96, 'maker' => 'Osier 20'], 2 => null]),
            'curlew',
        ]);
        $sql->executeStatement("UPDATE snapshot SET settings = ? WHERE name = 'As found at first link'", [self::jsonOf($then)]);
        $sql->executeStatement('DELETE FROM staged_change');
        foreach (['notch.tracking.low_hz' => 120.0, 'notch.tracking.high_hz' => 480.0, 'pack.land_now_cell_v' => 3.4] as $name => $value) {
            $sql->executeStatement('INSERT INTO staged_change (craft_id, name, value) VALUES (?, ?, ?)', [
                $craft->id,
                $name,
                self::jsonOf($value),
            ]);
        }
        $entry = new ChangeEntry($craft, 9, new \DateTimeImmutable('2026-11-01'), 'Commit', 'of then', [
            ['name' => 'link_loss.hold_ds', 'from' => 5.0, 'to' => 12.0],
        ]);
        $this->entities()->persist($entry);
        $this->entities()->flush();

        self::migrate($sql);
        $this->entities()->clear();

        self::assertSameSettings($now, $this->craft()->settings);
        self::assertSame([64, 80], [$this->craft()->escs[1]['clock_mhz'] ?? 0, $this->craft()->escs[1]['switching_khz'] ?? 0]);
        self::assertEquals(
            ['notch.tracking.band_hz' => '120,480', 'pack.flight_end_cell_v' => 3.4],
            $this->staged($this->craft()),
            'two that became one wait as one',
        );
        $snapshot = $this->entities()
            ->getRepository(Snapshot::class)
            ->findOneBy(['name' => 'As found at first link', 'craft' => $this->craft()]);
        self::assertSame($now->text('notch.tracking.band_hz'), $snapshot?->settings['notch.tracking.band_hz']);
        $kept = $this->entities()
            ->getRepository(ChangeEntry::class)
            ->findOneBy(['reason' => 'of then']);
        self::assertEquals([['name' => 'link_loss.hold_ms', 'from' => 500, 'to' => 1200]], $kept?->items);
        foreach (['11', '13', '14', '15', '16', '61', '62', '71', '72', '73'] as $sheet) {
            $this->page("/craft/curlew/$sheet");
        }
    }

    public function testCarryingOverTwiceIsCarryingOverOnce(): void
    {
        $this->link();
        $sql = $this->connection();
        self::migrate($sql);
        $read = static fn (): mixed => $sql->fetchOne("SELECT settings FROM craft WHERE slug = 'curlew'");
        $once = $read();
        self::migrate($sql);
        self::assertSame($once, $read());
    }

    /** What lay on the bench then is the same hardware under the figures of now; it links, reads and flies. */
    #[Group('slow')]
    public function testABenchOfThenLinksAndFlies(): void
    {
        $this->link();
        $now = self::reachedThen($this->craft()->settings);
        $this->post('/craft/curlew/let-go');
        $file = new DurableFile(self::data().'/bench/curlew/world.json');
        $state = $this->world()->store->peek();
        foreach ([1, 2, 3, 4] as $pad) {
            $esc = $state->esc($pad);
            $esc->switchingKhz = [20 => 24, 40 => 48, 80 => 96][$esc->switchingKhz] ?? $esc->switchingKhz;
            $esc->settings = self::then(SettingSet::of($esc->settings));
            $state->putEsc($pad, $esc);
        }
        $state->kept = self::then(self::reachedThen(SettingSet::of($state->kept)));
        $state->running = self::then(self::reachedThen(SettingSet::of($state->running)));
        $file->write(self::jsonOf(['format' => 0] + $state->toArray()));
        $this->link();
        self::assertSameSettings($now, $this->craft()->settings);
        $this->ready();
        $job = $this->job('fly', ['card' => 'cruise', 'seed' => 5, 'seconds' => 6]);
        self::assertSame(JobState::Done, $job->state, $job->message);
        self::assertStringContainsString('Curlew', $this->page('/craft/curlew/51'));
        self::assertStringContainsString('C-0001', $this->page('/craft/curlew/51'));
    }

    private static function assertSameSettings(SettingSet $now, SettingSet $carried): void
    {
        $known = static fn (string $name): bool => !str_ends_with($name, '.turns');
        [$now, $carried] = [$now->where($known)->toArray(), $carried->where($known)->toArray()];
        ksort($carried);
        ksort($now);
        self::assertSame(array_keys($now), array_keys($carried), 'every setting of now is there, and none of then');
        foreach ($now as $name => $value) {
            // Widths were kept to two digits then: what is narrower than one in five hundred of them is lost.
            \is_float($value)
                ? self::assertEqualsWithDelta($value, $carried[$name], str_contains($name, 'width') ? 0.3 : 1e-9, $name)
                : self::assertSame($value, $carried[$name], $name);
        }
    }

    /**
     * The law of then reached no less than 77 deg/s at a quarter of this yaw: with a slope of nothing at centre.
     */
    private static function reachedThen(SettingSet $now): SettingSet
    {
        return $now->has('feel.yaw.quarter_dps') ? $now->with(['feel.yaw.quarter_dps' => 88.0]) : $now;
    }

    private static function jsonOf(mixed $value): string
    {
        return json_encode($value, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION);
    }

    private function connection(): Connection
    {
        return $this->entities()->getConnection();
    }

    private static function migrate(Connection $sql): void
    {
        $migration = new Version20261125000004($sql, new NullLogger());
        $migration->up(new Schema());
        foreach ($migration->getSql() as $query) {
            // All that it writes is text and numbers.
            $values = array_values(array_filter($query->getParameters(), static fn (mixed $v): bool => \is_scalar($v)));
            $sql->executeStatement($query->getStatement(), $values);
        }
    }

    /**
     * @return array<string, float|int|bool|string> the same under the names and measures of then
     */
    private static function then(SettingSet $now): array
    {
        $then = [];
        foreach ($now as $name => $value) {
            $then += match (true) {
                isset(self::THEN[$name]) => [self::THEN[$name] => $value],
                'notch.tracking.band_hz' === $name => array_combine(
                    ['notch.tracking.low_hz', 'notch.tracking.high_hz'],
                    array_map(floatval(...), explode(',', $now->text($name))),
                ),
                str_ends_with($name, 'width_pct') => [str_replace('_pct', '_q', $name) => round(100 / $now->number($name), 2)],
                'link_loss.hold_ms' === $name => ['link_loss.hold_ds' => $now->number($name) / 100],
                'recorder.writes_to' === $name => [
                    'recorder.kind' => ['nothing' => 'none', 'board_memory' => 'flash', 'wire' => 'serial'][$now->text($name)],
                ],
                // Which way a motor of a custom frame turns came later.
                str_ends_with($name, '.turns') => [],
                str_starts_with($name, 'motor_place.') => ['arm.'.substr($name, 12) => $value],
                str_ends_with($name, '.direction') && 'props.direction' !== $name => [
                    $name => ['as_wired' => 'normal', 'swapped' => 'reversed'][$now->text($name)],
                ],
                str_ends_with($name, 'sync_loss_power_cut_pct') => [
                    str_replace('power_cut_pct', 'response', $name) => [0 => 'off', 25 => 'gentle', 50 => 'strong'][$now->whole($name)],
                ],
                // At a half of the rate at half stick, the slope at centre is what makes the quarter so.
                1 === preg_match('~^feel\.(\w+)\.(quarter|half|full)_dps$~', $name, $m) => self::feel($m[1], $m[2], $now),
                default => [$name => $value],
            };
        }

        return $then;
    }

    /**
     * The law of then: c·x + (full − c)·x^p through half stick; c is found so that a quarter of the stick gives what it gives now.
     *
     * @return array<string, float>
     */
    private static function feel(string $axis, string $part, SettingSet $now): array
    {
        [$quarter, $half, $full] = array_map(
            static fn (string $p): float => $now->number("feel.$axis.{$p}_dps"),
            ['quarter', 'half', 'full'],
        );
        if ('quarter' !== $part) {
            return ["feel.$axis.{$part}_stick_dps" => 'half' === $part ? $half : $full];
        }
        $at = static fn (float $c): float => $c / 4 + ($full - $c) * 0.25 ** log(($full - $c) / ($half - $c / 2), 2);
        [$low, $high] = [0.0, min(2 * $half, $full) - 1e-6];
        for ($i = 0; $i < 60; ++$i) {
            $c = ($low + $high) / 2;
            [$low, $high] = $at($c) < $quarter ? [$c, $high] : [$low, $c];
        }

        return ["feel.$axis.centre_dps" => ($low + $high) / 2];
    }
}
