<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Snapshot;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingType;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;

/**
 * The one road of settings under many hands: whatever is staged, discarded, committed and taken back in whatever order, what the
 * book says is what the board holds, and the record tells how it came there.
 */
final class RoadTest extends AppCase
{
    private const STEPS = 45;

    /** @return iterable<string, array{string, int}> */
    public static function walks(): iterable
    {
        foreach (['curlew' => [1, 2, 3], 'bittern' => [4, 5], 'dunlin' => [6, 7]] as $slug => $seeds) {
            foreach ($seeds as $seed) {
                yield "$slug, $seed" => [$slug, $seed];
            }
        }
    }

    #[DataProvider('walks')]
    public function testWhateverIsDoneTheBookIsTheBoard(string $slug, int $seed): void
    {
        $dice = new Lcg($seed);
        $this->link($slug);
        $began = $this->craft($slug)->settings->toArray();
        $wanted = [];
        for ($step = 0; $step < self::STEPS; ++$step) {
            $what = $dice->whole(1, 12);
            match (true) {
                $what <= 6 => $this->stageOne($slug, $dice, $wanted),
                7 === $what => $this->discardOne($slug, $dice, $wanted),
                8 === $what => $this->pullAndPlug($slug),
                9 === $what => $this->takeBack($slug, $dice, $wanted),
                10 === $what => $this->post("/craft/$slug/snapshots", ['name' => "step $step"]),
                default => $this->tryToCommit($slug, $wanted),
            };
            self::assertEqualsCanonicalizing(
                array_keys($wanted),
                array_keys($this->staged($this->craft($slug))),
                "step $step: what is staged is what was asked for and differs",
            );
            foreach ($this->staged($this->craft($slug)) as $name => $value) {
                self::assertTrue(Setting::same($wanted[$name], $value), "$name after step $step");
            }
        }
        $this->bookIsBoard($slug);
        $this->recordTellsHow($slug, $began);
    }

    /** @param array<string, float|int|bool|string> $wanted */
    private function stageOne(string $slug, Lcg $dice, array &$wanted): void
    {
        $craft = $this->craft($slug);
        $setting = $this->anyOf($slug, $dice);
        $value = self::another($setting, $craft->version(), $dice);
        $this->post("/craft/$slug/stage", ['values' => [$setting->name => $value]]);
        $kept = $setting->check($value, $craft->version());
        if (Setting::same($kept, $craft->settings[$setting->name])) {
            unset($wanted[$setting->name]);
        } else {
            $wanted[$setting->name] = $kept;
        }
    }

    /** @param array<string, float|int|bool|string> $wanted */
    private function discardOne(string $slug, Lcg $dice, array &$wanted): void
    {
        if ([] === $wanted) {
            return;
        }
        $name = array_keys($wanted)[$dice->whole(0, \count($wanted) - 1)];
        $this->post("/craft/$slug/discard", ['name' => $name]);
        unset($wanted[$name]);
    }

    private function pullAndPlug(string $slug): void
    {
        $this->post("/craft/$slug/bench", ['thing' => 'cable', 'to' => '0']);
        if ([] !== $this->staged($this->craft($slug))) {
            $before = \count($this->entries($slug));
            $this->post("/craft/$slug/commit", [], 409);
            self::assertCount($before, $this->entries($slug), 'nothing was written, and nothing is recorded');
        }
        $this->link($slug);
    }

    /** @param array<string, float|int|bool|string> $wanted */
    private function takeBack(string $slug, Lcg $dice, array &$wanted): void
    {
        $entries = $this->entries($slug);
        if ([] === $entries) {
            return;
        }
        $entry = $entries[$dice->whole(0, \count($entries) - 1)];
        $craft = $this->craft($slug);
        $this->post("/craft/$slug/changes/{$entry->id}/back");
        foreach ($entry->items as $item) {
            self::assertNotNull($item['from']);
            if (Setting::same($item['from'], $craft->settings[$item['name']])) {
                unset($wanted[$item['name']]);
            } else {
                $wanted[$item['name']] = $item['from'];
            }
        }
    }

    /** @param array<string, float|int|bool|string> $wanted */
    private function tryToCommit(string $slug, array &$wanted): void
    {
        if ([] === $wanted) {
            $this->post("/craft/$slug/commit", [], 422);

            return;
        }
        $before = $this->craft($slug)->settings->toArray();
        $revision = $this->craft($slug)->revision;
        $this->browser->request('POST', "/craft/$slug/commit", content: '{"reason": "as it came"}');
        $status = $this->browser->getResponse()->getStatusCode();
        self::assertContains($status, [200, 422], (string) $this->browser->getResponse()->getContent());
        $this->entities()->clear();
        if (422 === $status) {
            // What does not go together is refused whole, named, and stays staged.
            self::assertSame($before, $this->craft($slug)->settings->toArray());
            self::assertSame($revision, $this->craft($slug)->revision);
            self::assertMatchesRegularExpression('~"field":"[a-z]~', (string) $this->browser->getResponse()->getContent());

            return;
        }
        self::assertSame($revision + 1, $this->craft($slug)->revision);
        foreach ($wanted as $name => $value) {
            self::assertTrue(Setting::same($value, $this->craft($slug)->settings[$name]), "$name is on the craft");
        }
        $entry = $this->entries($slug)[\count($this->entries($slug)) - 1];
        self::assertSame('as it came', $entry->reason);
        self::assertEqualsCanonicalizing(array_keys($wanted), array_column($entry->items, 'name'));
        foreach ($entry->items as $item) {
            self::assertNotNull($item['from']);
            self::assertNotNull($item['to']);
            self::assertTrue(Setting::same($before[$item['name']], $item['from']), 'from what it was');
            self::assertFalse(Setting::same($item['from'], $item['to']), 'no entry goes from a value to itself');
        }
        $wanted = [];
        $this->bookIsBoard($slug);
    }

    private function bookIsBoard(string $slug): void
    {
        $kept = $this->world($slug)->store->peek()->kept;
        foreach (EscTable::without($this->craft($slug)->settings) as $name => $value) {
            self::assertArrayHasKey($name, $kept);
            self::assertTrue(Setting::same($kept[$name], $value), "$name: the board holds ".json_encode($kept[$name]));
        }
    }

    /** @param array<string, float|int|bool|string> $began */
    private function recordTellsHow(string $slug, array $began): void
    {
        $now = $began;
        foreach ($this->entries($slug) as $entry) {
            foreach ($entry->items as $item) {
                self::assertNotNull($item['from']);
                self::assertNotNull($item['to']);
                self::assertTrue(Setting::same($now[$item['name']], $item['from']), "revision $entry->revision of {$item['name']}");
                $now[$item['name']] = $item['to'];
            }
        }
        $is = $this->craft($slug)->settings->toArray();
        foreach ($now as $name => $value) {
            self::assertTrue(Setting::same($value, $is[$name]), "$name: told from the beginning it ends as it is");
        }
        foreach ($this->entities()->getRepository(Snapshot::class)->findBy(['craft' => $this->craft($slug)]) as $snapshot) {
            self::assertSame([], array_diff_key($snapshot->settings->toArray(), $is), 'a snapshot holds settings that there are');
        }
    }

    /** @return list<ChangeEntry> oldest first */
    private function entries(string $slug): array
    {
        return $this->entities()
            ->getRepository(ChangeEntry::class)
            ->findBy(['craft' => $this->craft($slug)], ['id' => 'ASC']);
    }

    private function anyOf(string $slug, Lcg $dice): Setting
    {
        $craft = $this->craft($slug);
        $all = array_values(
            array_filter(
                Catalogue::loam()->of($craft->version()),
                // Those of pads move the settings of ESCs, those of frames and UARTs mostly clash: they have tests of their own.
                static fn (Setting $s): bool => 1 === preg_match('~^(gain|feel|rate_path|d_path|notch|motors|pack|channel)\.~', $s->name)
                    && $craft->settings->has($s->name),
            ),
        );

        return $all[$dice->whole(0, \count($all) - 1)];
    }

    private static function another(Setting $setting, Version $version, Lcg $dice): float|bool|string
    {
        if ($setting->type->isNumeric()) {
            [$low, $high] = $setting->range($version);
            // Near what it comes with, as people do.
            $at = (float) $setting->default + ($high - $low) * 0.2 * $dice->next();

            return round(max($low, min($high, $at)) / $setting->step) * $setting->step;
        }
        if (\is_bool($setting->default)) {
            return $dice->next() > 0;
        }

        return match ($setting->type) {
            SettingType::Integers => '1,2',
            SettingType::Band => $dice->whole(60, 200).' to '.$dice->whole(201, 900),
            default => $setting->choices[$dice->whole(0, \count($setting->choices) - 1)],
        };
    }
}
