<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Esc;

use Ortholex\App\Book\Craft;
use Ortholex\App\Esc\EscPlace;
use Ortholex\App\Esc\EscRow;
use Ortholex\App\Esc\EscView;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Words\Words;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Tests\app\AppCase;
use PHPUnit\Framework\Attributes\DataProvider;

/** Sheet 16: one list for all, and at each place only what departs from it. */
final class EscViewTest extends AppCase
{
    private const PLACES = ['front_right', 'rear_right', 'rear_left', 'front_left'];

    public function testWhereAllAreAlikeThePlacesSayNothing(): void
    {
        $view = $this->view([]);
        self::assertSame([], $view->odd);
        self::assertSame([], $view->split());
        self::assertCount(4, $view->places);
        foreach ($view->places as $place) {
            self::assertSame([], $place->told);
            self::assertSame([], $place->lacks, 'what none of them has, the list says');
            self::assertNotNull($place->direction);
            self::assertGreaterThan(5, \count($place->alone), 'each can be changed alone');
        }
        self::assertSame(13.0, $this->row($view, 'advance_deg')->common());
        self::assertFalse($view->directionsDiffer());
    }

    public function testTheOddOneIsToldAtItsPlaceOnly(): void
    {
        $view = $this->view(['esc.rear_left.advance_deg' => 22.0]);
        self::assertSame(['rear_left' => ['Commutation advance']], $view->odd);
        foreach ($view->places as $place) {
            $told = array_map(static fn (EscRow $r): string => $r->key, $place->told);
            self::assertSame('rear_left' === $place->place() ? ['advance_deg'] : [], $told);
        }
        $row = $this->row($view, 'advance_deg');
        self::assertSame([13.0, ['rear_left']], [$row->common(), $row->differs()->odd]);
        self::assertSame([], $row->alike('rear_left'));
        self::assertSame('rear left: commutation advance', $view->differences());
    }

    public function testTwoAgainstTwoAreGroupsAndNobodyIsOdd(): void
    {
        $view = $this->view(['esc.rear_left.advance_deg' => 17.0, 'esc.rear_right.advance_deg' => 17.0]);
        self::assertSame([], $view->odd);
        self::assertSame(['advance_deg'], array_map(static fn (EscRow $r): string => $r->key, $view->split()));
        $row = $this->row($view, 'advance_deg');
        self::assertNull($row->common());
        self::assertEqualsCanonicalizing(['rear_right'], $row->alike('rear_left'));
        self::assertEqualsCanonicalizing(['front_left'], $row->alike('front_right'));
        foreach ($view->places as $place) {
            self::assertCount(1, $place->told, 'each place says which group it is in');
        }
    }

    /** What is staged for one alone is told there, though it may make it like the others. */
    public function testWhatIsStagedForOneIsToldThere(): void
    {
        $view = $this->view(['esc.rear_left.advance_deg' => 22.0], ['esc.rear_left.advance_deg' => 13.0]);
        self::assertSame([], $view->odd, 'as staged it is like the others');
        $at = $this->at($view, 'rear_left');
        self::assertSame(['advance_deg'], array_map(static fn (EscRow $r): string => $r->key, $at->told));
        $row = $this->row($view, 'advance_deg');
        self::assertSame([13.0, 13.0], [$row->common(), $row->commonNow()]);
        // For all at once, the list tells it, not four places.
        $all = [];
        foreach (self::PLACES as $place) {
            $all["esc.$place.advance_deg"] = 18.0;
        }
        $view = $this->view([], $all);
        foreach ($view->places as $place) {
            self::assertSame([], $place->told);
        }
        $row = $this->row($view, 'advance_deg');
        self::assertSame([18.0, 13.0], [$row->common(), $row->commonNow()]);
    }

    public function testWhatOneEscHasNotIsSaidAtItsPlace(): void
    {
        $view = $this->view([], [], ['front_left' => ['family' => 'Bracken', 'version' => '6.2.0', 'rpm_feedback' => false]]);
        $at = $this->at($view, 'front_left');
        $lacks = array_map(static fn (EscRow $r): string => $r->key, $at->lacks);
        self::assertContains('sync_loss_power_cut_pct', $lacks);
        self::assertNotContains('advance_deg', $lacks);
        foreach ($at->lacks as $row) {
            self::assertStringContainsString('Bracken 6.2.0', $row->unable['front_left']);
            self::assertNotSame([], $row->values, 'what none of them has, the list says');
        }
        self::assertSame(['Firmware'], $view->odd['front_left'] ?? null);
        self::assertSame([], $this->at($view, 'rear_right')->lacks);
    }

    public function testASilentEscIsSilentAndNoOdd(): void
    {
        $view = $this->view([], [], ['rear_right' => null]);
        self::assertSame(['rear_right'], $view->silent());
        $at = $this->at($view, 'rear_right');
        self::assertNull($at->esc);
        self::assertNull($at->direction);
        self::assertSame([], $at->told);
        self::assertArrayNotHasKey('rear_right', $view->odd);
    }

    public function testDirectionIsEachOnesOwn(): void
    {
        $view = $this->view(['esc.rear_left.direction' => 'swapped']);
        self::assertSame([], $view->odd);
        self::assertTrue($view->directionsDiffer());
        $row = $this->row($view, 'direction');
        self::assertTrue($row->isOwn());
        self::assertFalse($row->forAll());
        self::assertSame('swapped', $this->at($view, 'rear_left')->direction?->values['rear_left']);
    }

    /** @return iterable<string, array{Airframe}> */
    public static function frames(): iterable
    {
        yield 'quad' => [Airframe::quadX(0.216)];
        yield 'plus' => [Airframe::quadPlus(0.2)];
        yield 'hexa' => [Airframe::hexaX(0.275)];
    }

    /** Words stand in a column on the side of their motor, none over another, and a line leads to each. */
    #[DataProvider('frames')]
    public function testWordsStandBesideTheirMotors(Airframe $frame): void
    {
        $view = EscView::of(
            new Craft('curlew', 'Curlew', '', '', '', []),
            $frame,
            SettingSet::none(),
            SettingSet::none(),
            true,
            true,
            true,
            '',
            self::getContainer()->get(Words::class),
        );
        self::assertCount(\count($frame->motors), $view->places);
        $sides = [-1 => [], 1 => []];
        foreach ($view->places as $place) {
            $sides[$place->side][] = $place;
            self::assertGreaterThanOrEqual(-EscView::HALF_HEIGHT, $place->top);
            self::assertLessThanOrEqual(EscView::HALF_HEIGHT, $place->top + $place->height);
            if (abs($place->motor->x) > 1) {
                self::assertSame($place->motor->x < 0 ? -1 : 1, $place->side);
            }
            self::assertSame($place->side < 0 ? -285.0 : 285.0 - EscPlace::CARD_WIDTH, $place->left());
            self::assertMatchesRegularExpression('~^M-?[\d.]+ -?[\d.]+L-?107\.0 -?[\d.]+$~', $place->leader());
        }
        foreach ($sides as $column) {
            usort($column, static fn (EscPlace $a, EscPlace $b): int => $a->top <=> $b->top);
            foreach ($column as $i => $place) {
                $next = $column[$i + 1] ?? null;
                if (null !== $next) {
                    self::assertLessThan($next->top, $place->top + $place->height, 'none over another');
                    self::assertLessThanOrEqual($next->motor->y, $place->motor->y, 'in the order of their motors');
                }
            }
        }
        self::assertLessThanOrEqual(1, abs(\count($sides[-1]) - \count($sides[1])));
    }

    /**
     * @param array<string, float|int|bool|string>   $changed from what all have
     * @param array<string, float|int|bool|string>   $staged
     * @param array<string, array<string, mixed>|null> $others identities that differ, by place; null for a silent one
     */
    private function view(array $changed, array $staged = [], array $others = []): EscView
    {
        $this->post('/craft/curlew/bench', ['thing' => 'cable', 'to' => '1']);
        $this->post('/craft/curlew/link');
        $this->post('/craft/curlew/bench', ['thing' => 'pack', 'to' => '1']);
        $this->post('/craft/curlew/escs/read');
        $craft = $this->craft();
        $pads = array_flip(EscTable::pads($craft->settings));
        $settings = $craft->settings->with($changed);
        foreach (self::PLACES as $place) {
            $identity = $craft->escs[$pads[$place]]['identity'] ?? null;
            self::assertIsArray($identity);
            if (\array_key_exists($place, $others)) {
                $craft->escs[$pads[$place]] = null === $others[$place] ? ['silent' => true] : ['identity' => $others[$place] + $identity];
            }
            $settings = $settings->with(["esc.$place.advance_deg" => $changed["esc.$place.advance_deg"] ?? 13.0]);
        }
        $craft->settings = $settings;
        $this->entities()->flush();
        self::getContainer()->get(Staging::class)->stage($craft, $staged);

        return EscView::of(
            $craft,
            Airframe::quadX(0.216),
            $settings,
            self::getContainer()->get(Staging::class)->of($craft),
            true,
            true,
            true,
            'advance_deg',
            self::getContainer()->get(Words::class),
        );
    }

    private function row(EscView $view, string $key): EscRow
    {
        foreach (array_merge(...array_values($view->groups)) as $row) {
            if ($row->key === $key) {
                return $row;
            }
        }
        self::fail("there is no row $key");
    }

    private function at(EscView $view, string $place): EscPlace
    {
        foreach ($view->places as $one) {
            if ($one->place() === $place) {
                return $one;
            }
        }
        self::fail("there is no place $place");
    }
}
