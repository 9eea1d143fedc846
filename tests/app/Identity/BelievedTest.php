<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Identity;

use Ortholex\App\Identity\Believed\Beliefs;
use Ortholex\App\Settings\ChangeEntry;
use Ortholex\App\Settings\Staging;
use Ortholex\Bench\Esc\EscState;
use Ortholex\Bench\State\WorldState;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Difference;
use Ortholex\Core\Settings\Setting;
use Ortholex\Tests\app\AppCase;
use Ortholex\Tests\Cases;
use Ortholex\Tests\core\Lcg;

/** What was changed on a craft elsewhere is found at linking, and asked about: the book's or the craft's. */
final class BelievedTest extends AppCase
{
    /** Gains and rates of any craft, with steps that stay in their ranges. */
    private const NAMES = [
        'gain.roll.p', 'gain.roll.i', 'gain.roll.d', 'gain.pitch.p', 'gain.pitch.i', 'gain.pitch.d', 'gain.yaw.p', 'gain.yaw.i',
        'motors.idle_pct', 'rate_path.stage.1.cutoff_hz', 'notch.motor.width_pct', 'link_loss.hold_s',
    ];

    public function testNothingIsAskedWhereBookAndCraftAgree(): void
    {
        $this->link();
        self::assertSame([], $this->craft()->believed, 'the first link has nothing to compare with');
        $this->again([]);
        self::assertSame([], $this->craft()->believed);
        $page = $this->page('/craft/curlew/11');
        self::assertStringNotContainsString('Changed elsewhere', $page);
        $this->post('/craft/curlew/bench', ['thing' => 'cable', 'to' => '0']);
        self::assertMatchesRegularExpression('~last read <span[^>]*>20\d\d-\d\d-\d\d<~', $this->page('/craft/curlew/61'));
    }

    public function testEachIsAskedOnceAndEndsAsItIsSaid(): void
    {
        $this->link();
        $before = $this->craft()->settings;
        $this->again(['gain.roll.p' => 19.5, 'gain.yaw.p' => 41.0, 'motors.idle_pct' => 6.5]);
        $page = $this->page('/craft/curlew/11');
        self::assertStringContainsString('Book and craft differ in 3 settings', $page);
        self::assertSame(3, substr_count($page, 'data-believed='));
        self::assertStringContainsString('say which stand', html_entity_decode($this->page('/')));
        // Not said, it stays asked, whatever is linked or read meanwhile; and the book's value is not lost by another change.
        $this->again(['gain.roll.p' => 18.5]);
        self::assertSame($before['gain.roll.p'], $this->craft()->believed['gain.roll.p']['value'] ?? null);
        $this->post('/craft/curlew/believed', [], 422);
        $this->post('/craft/curlew/believed', ['stands' => ['gain.roll.p' => 'mine']], 422);
        self::assertCount(3, $this->craft()->believed);
        $said = $this->post('/craft/curlew/believed', ['stands' => ['gain.roll.p' => 'book', 'gain.yaw.p' => 'craft']])['said'] ?? '';
        self::assertSame('1 as on the craft, noted in the change record; 1 as in the book, staged: Commit writes them.', $said);
        self::assertSame(['motors.idle_pct'], array_keys($this->craft()->believed));
        self::assertEquals(['gain.roll.p' => $before['gain.roll.p']], $this->staged($this->craft()));
        $entry = $this->entities()->getRepository(ChangeEntry::class)->findOneBy([], ['id' => 'DESC']);
        self::assertSame(Beliefs::WHAT, $entry?->what);
        self::assertEquals([['name' => 'gain.yaw.p', 'from' => $before['gain.yaw.p'], 'to' => 41.0]], $entry->items);
        self::assertStringContainsString('Changed elsewhere', $this->page('/craft/curlew/73'));
        $this->post('/craft/curlew/commit', ['reason' => 'as it was']);
        self::assertEquals($before['gain.roll.p'], $this->world()->store->peek()->kept['gain.roll.p']);
        // What has come true meanwhile is asked no more.
        $this->post('/craft/curlew/stage', ['values' => ['motors.idle_pct' => $before['motors.idle_pct']]]);
        $this->post('/craft/curlew/commit', ['reason' => 'by hand']);
        self::assertStringNotContainsString('Changed elsewhere', $this->page('/craft/curlew/11'));
        // Without the cable nothing can be said of what the craft holds.
        $this->again(['gain.roll.p' => 20.5]);
        $this->post('/craft/curlew/bench', ['thing' => 'cable', 'to' => '0']);
        $this->post('/craft/curlew/believed', ['all' => 'craft'], 409);
        self::assertCount(1, $this->craft()->believed);
    }

    /** ESCs answer after the link, when the pack comes on: what they hold otherwise is asked about then, but not of another ESC. */
    public function testWhatWasChangedOnAnEscIsAskedWhenItAnswers(): void
    {
        $this->link();
        $this->post('/craft/curlew/bench', ['thing' => 'pack', 'to' => '1']);
        $this->post('/craft/curlew/escs/read');
        self::assertNotSame([], $this->craft()->escs);
        self::assertSame([], $this->craft()->believed, 'the first time there is nothing to compare with');
        $before = $this->craft()->settings;
        $this->post('/craft/curlew/bench', ['thing' => 'pack', 'to' => '0']);
        $this->world()->store->change(static function (WorldState $s): void {
            foreach ($s->escs as $home => $esc) {
                $state = EscState::fromMixed($esc);
                $state->settings['advance_deg'] = 7;
                $s->escs[$home] = $state->toArray();

                return;
            }
        });
        $this->again([]);
        self::assertSame([], $this->craft()->believed, 'they have not answered yet');
        $this->post('/craft/curlew/bench', ['thing' => 'pack', 'to' => '1']);
        $said = $this->post('/craft/curlew/escs/read')['said'] ?? '';
        self::assertSame('4 ESCs answered. One setting is not as the book had it: say on 11 which stands.', $said);
        $names = array_keys($this->craft()->believed);
        self::assertCount(1, $names);
        [$name] = $names;
        self::assertIsString($name);
        self::assertMatchesRegularExpression('~^esc\.\w+\.advance_deg$~', $name);
        self::assertStringContainsString('Book and craft differ in one setting', $this->page('/craft/curlew/11'));
        $this->post('/craft/curlew/believed', ['all' => 'book']);
        self::assertEquals([$name => $before[$name]], $this->staged($this->craft()));
        $this->post('/craft/curlew/commit', ['reason' => 'as it was']);
        foreach ($this->world()->store->peek()->escs as $esc) {
            self::assertNotSame(7, EscState::fromMixed($esc)->settings['advance_deg']);
        }
        self::assertSame([], $this->craft()->believed);
    }

    /** An ESC that was soldered elsewhere is compared with what the book had of it, not of its new place; what is open goes with it. */
    public function testAnEscThatMovedIsComparedWithItself(): void
    {
        $this->link();
        $this->post('/craft/curlew/bench', ['thing' => 'pack', 'to' => '1']);
        $this->post('/craft/curlew/escs/read');
        $this->post('/craft/curlew/stage', ['values' => ['esc.front_right.advance_deg' => 19, 'esc.rear_left.advance_deg' => 9]]);
        $this->post('/craft/curlew/commit', ['reason' => 'two that differ']);
        $this->solder('front_right', 'rear_left', 19.0, 21.0);
        self::assertEquals(['esc.rear_left.advance_deg'], array_keys($this->craft()->believed), 'moving alone changes nothing');
        self::assertEquals(19.0, $this->craft()->believed['esc.rear_left.advance_deg']['value']);
        $page = preg_replace('~\s+~', ' ', $this->page('/craft/curlew/11')) ?? '';
        self::assertStringContainsString('Rear left ESC, commutation advance (this ESC sat at front right then)', $page);
        // On it goes, before anything was said; and no other difference comes up where it sat.
        $this->solder('rear_left', 'front_left', 21.0, 21.0);
        self::assertEquals(['esc.front_left.advance_deg'], array_keys($this->craft()->believed));
        self::assertSame('front_right', $this->craft()->believed['esc.front_left.advance_deg']['at'] ?? '');
        $this->post('/craft/curlew/believed', ['all' => 'book']);
        $this->post('/craft/curlew/commit', ['reason' => 'as it was']);
        $held = [];
        foreach ($this->escs() as $esc) {
            $held[] = EscState::fromMixed($esc)->settings['advance_deg'];
        }
        sort($held);
        self::assertEquals([9, 13, 13, 19], $held);
        self::assertSame([], $this->craft()->believed);
        // Back where it was, it is nobody's news.
        $this->solder('front_left', 'front_right', 19.0, 19.0);
        self::assertSame([], $this->craft()->believed);
    }

    public function testWhatIsStagedWasMeantLater(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 27.5]]);
        $this->again(['gain.roll.p' => 19.5]);
        $this->post('/craft/curlew/believed', ['all' => 'book']);
        self::assertEquals(['gain.roll.p' => 27.5], $this->staged($this->craft()));
    }

    /** Pairs of book and craft from a seed: each setting ends as was said; the other value stands in the record or the tray. */
    public function testManyPairsEndAsWasSaid(): void
    {
        $this->link();
        $dice = new Lcg(77);
        $kept = $back = 0;
        for ($pair = 0, $pairs = Cases::many(100, 30); $pair < $pairs; ++$pair) {
            $book = $this->craft()->settings;
            $found = [];
            foreach (self::NAMES as $name) {
                if ($dice->whole(0, 2) > 0 && $book->has($name)) {
                    $found[$name] = $book->number($name) * (0.9 + 0.01 * $dice->whole(0, 20));
                }
            }
            $this->again($found);
            $open = $this->open();
            $stands = [];
            foreach ($open as $one) {
                self::assertTrue(Setting::same($one->book, $book[$one->name]), "pair $pair: $one->name");
                $stands[$one->name] = ['craft', 'book'][$dice->whole(0, 1)];
            }
            if ([] === $stands) {
                continue;
            }
            $held = $this->craft()->settings;
            $this->post('/craft/curlew/believed', ['stands' => $stands]);
            self::assertSame([], $this->craft()->believed);
            $staged = self::getContainer()->get(Staging::class)->of($this->craft());
            foreach ($stands as $name => $which) {
                if ('book' === $which) {
                    self::assertTrue(Setting::same($book[$name], $staged[$name]), "pair $pair: $name");
                    ++$back;
                } else {
                    self::assertTrue(Setting::same($held[$name], $this->craft()->settings[$name]), "pair $pair: $name");
                    ++$kept;
                }
            }
            if (!$staged->isEmpty()) {
                $this->post('/craft/curlew/commit', ['reason' => "pair $pair"]);
            }
            foreach ($stands as $name => $which) {
                $should = 'book' === $which ? $book[$name] : $held[$name];
                self::assertTrue(Setting::same($should, $this->world()->store->peek()->kept[$name]), "pair $pair: $name");
            }
        }
        self::assertGreaterThan($pairs, $kept);
        self::assertGreaterThan($pairs, $back);
    }

    /** Two ESCs change places, one that holds `from` degrees of advance is given `to` elsewhere, and all are read again. */
    private function solder(string $a, string $b, float $from, float $to): void
    {
        $this->post('/craft/curlew/bench', ['thing' => 'pack', 'to' => '0']);
        $this->post('/craft/curlew/bench/swap', ['what' => 'escs', 'a' => $a, 'b' => $b]);
        $this->world()->store->change(static function (WorldState $s) use ($from, $to): void {
            foreach ($s->escs as $home => $esc) {
                $state = EscState::fromMixed($esc);
                if (Setting::same($from, $state->settings['advance_deg'])) {
                    $state->settings['advance_deg'] = $to;
                    $s->escs[$home] = $state->toArray();
                }
            }
        });
        $this->post('/craft/curlew/bench', ['thing' => 'pack', 'to' => '1']);
        $this->post('/craft/curlew/escs/read');
    }

    /** @return array<mixed> */
    private function escs(): array
    {
        return $this->world()->store->peek()->escs;
    }

    /** @return list<Difference> as the book asks about them */
    private function open(): array
    {
        $craft = $this->craft();

        return Difference::between(
            SettingSet::of(array_map(static fn (array $b): float|int|bool|string => $b['value'], $craft->believed)),
            $craft->settings,
        );
    }

    /**
     * The cable goes, somebody changes the craft elsewhere, and it is linked again.
     *
     * @param array<string, float> $changed
     */
    private function again(array $changed): void
    {
        $this->post('/craft/curlew/bench', ['thing' => 'cable', 'to' => '0']);
        $this->world()->store->change(static function (WorldState $s) use ($changed): void {
            $s->kept = $changed + $s->kept;
        });
        $this->link();
    }
}
