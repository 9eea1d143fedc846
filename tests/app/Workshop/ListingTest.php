<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Workshop;

use Ortholex\App\Book\Mark\Mark;
use Ortholex\App\Book\Mark\Point;
use Ortholex\App\Book\Mark\PointState;
use Ortholex\App\Workshop\Listing\Cards;
use Ortholex\Tests\app\AppCase;

/** The Workshop shows all craft, and what it keeps of them is never older than they are. */
final class ListingTest extends AppCase
{
    public function testSearchedSortedAndInGroups(): void
    {
        self::assertSame(['dunlin', 'curlew', 'bittern'], $this->shown('/?order=next'));
        self::assertSame(['bittern', 'curlew', 'dunlin'], $this->shown('/?order=name'));
        self::assertSame(['bittern', 'curlew', 'dunlin'], $this->shown('/?order=newest'));
        self::assertSame(['curlew'], $this->shown('/?q=5-inch+CREEKS'));
        self::assertSame([], $this->shown('/?q=submarine'));
        self::assertStringContainsString('No craft has “submarine”', $this->page('/?q=submarine'));
        self::assertStringContainsString('No craft has “&lt;b&gt;”', $this->page('/?q='.urlencode('<b>')));
        $page = $this->page('/?group=kind');
        self::assertMatchesRegularExpression('~3-inch, 4-cell <small>1</small>.*5-inch, 6-cell <small>1</small>~', $page);
        self::assertStringContainsString('Never read <small>', $this->page('/?group=next'));
        // What there is not is taken as nothing asked.
        self::assertCount(3, $this->shown('/?order=sideways&group=7'));
        $this->page('/?q[]=x', 422);
    }

    /** Every table that holds something of a craft counts it up: what is kept of a craft is forgotten with anything written about it. */
    public function testEveryTableOfACraftCountsWhatIsWritten(): void
    {
        $db = $this->entities()->getConnection();
        $named = $db->fetchFirstColumn("SELECT name FROM sqlite_master WHERE type = 'table' AND sql LIKE '%craft_id%'");
        $tables = array_filter($named, \is_string(...));
        $triggers = $db->fetchFirstColumn("SELECT name FROM sqlite_master WHERE type = 'trigger'");
        // Pieces of a capture come with their capture, four times a second; the counter itself is none.
        foreach (array_diff($tables, ['craft_touch', 'stick_piece']) as $table) {
            foreach (['insert', 'update', 'delete'] as $when) {
                self::assertContains("touch_{$table}_$when", $triggers);
            }
        }
        foreach (['touch_analysis_insert', 'touch_passage_insert', 'touch_craft_update', 'touch_craft_insert'] as $trigger) {
            self::assertContains($trigger, $triggers);
        }
    }

    public function testWhatIsKeptFollowsEveryChange(): void
    {
        $card = function (string $slug): string {
            preg_match('~aria-labelledby="craft-'.$slug.'"(.*?)</article>~s', $this->page('/'), $m);

            return $m[1] ?? '';
        };
        self::assertStringContainsString('board not read yet', $card('dunlin'));
        $this->link('dunlin');
        self::assertStringContainsString('<b class="good">linked</b>', $card('dunlin'));
        $this->post('/craft/dunlin/bench', ['thing' => 'cable', 'to' => '0']);
        self::assertStringContainsString('not linked', $card('dunlin'));
        $before = $card('dunlin');
        $this->post('/craft/dunlin/stage', ['values' => ['gain.roll.p' => '30']]);
        self::assertNotSame($before, $card('dunlin'));
        self::assertStringContainsString('Tune<i>1</i>', $card('dunlin'));
        $this->post('/craft/dunlin/discard', []);
        self::assertSame($before, $card('dunlin'));
        $this->post('/craft/dunlin/bench', ['thing' => 'pack', 'to' => '1']);
        self::assertStringContainsString('pack on', $card('dunlin'));
    }

    /** What has not changed is not reckoned again: the second time asks the database no more than once. */
    public function testWhatStandsStillIsNotReckonedAgain(): void
    {
        $cards = self::getContainer()->get(Cards::class);
        $first = $cards->all();
        $second = $cards->all();
        self::assertEquals($first, $second);
        $db = $this->entities()->getConnection();
        $db->executeStatement('UPDATE craft SET purpose = ? WHERE slug = ?', ['counts geese', 'bittern']);
        $this->entities()->clear();
        $third = $cards->all();
        self::assertSame('counts geese', $third[2]->craft->purpose);
        self::assertSame($second[0]->craft->purpose, $third[0]->craft->purpose);
    }

    public function testAMarkSaysHowFarAPartIs(): void
    {
        $of = static fn (?int $count, PointState ...$states): string => (new Mark(
            array_map(static fn (PointState $s): Point => new Point('a point', $s, '/', $count), array_values($states)),
        ))->sign();
        [$done, $open, $blocked] = [PointState::Done, PointState::Open, PointState::Blocked];
        self::assertSame('', $of(null));
        self::assertSame('✓', $of(null, $done, $done));
        self::assertSame('○', $of(null, $open, $open));
        self::assertSame('1/3', $of(null, $open, $done, $open));
        self::assertSame('!', $of(null, $done, $blocked, $open));
        self::assertSame('12', $of(12, $done));
        $mark = new Mark([new Point('spun', $open, '/'), new Point('levelled', $done, '/')]);
        self::assertSame('open: spun', $mark->words());
    }

    public function testTheMarkOfAPartIsAListThatLeadsOn(): void
    {
        $this->link('dunlin');
        $page = $this->page('/craft/dunlin/11');
        preg_match('~<details class="points" id="points-1".*?</details>~s', $page, $m);
        $labels = ['wires drawn', 'board mounting shown', 'levelled', 'each motor shown', 'directions shown', 'ESCs read and alike'];
        foreach ($labels as $label) {
            self::assertStringContainsString($label, $m[0] ?? '');
        }
        self::assertStringContainsString('<i>1/7</i>', $m[0] ?? '');
        self::assertStringContainsString('href="/craft/dunlin/15"', $m[0] ?? '');
    }

    /** @return list<string> */
    private function shown(string $url): array
    {
        preg_match_all('~id="craft-([a-z0-9-]+)"~', $this->page($url), $found);

        return $found[1];
    }
}
