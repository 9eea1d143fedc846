<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Fact;

use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Drive\Struggle;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Fact\StoredDataUnreadable;
use Ortholex\Core\Guard\Interlock;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class FactTest extends TestCase
{
    public function testFiguresAreKeptPlainAndWhatIsUnknownIsLeftOut(): void
    {
        $fact = Fact::of(Struggle::SteadyLate, axis: Axis::Roll, axes: [Axis::Roll, Axis::Yaw], pct: 4.5, none: null);
        self::assertSame(['axis' => 'roll', 'axes' => ['roll', 'yaw'], 'pct' => 4.5], $fact->figures);
        self::assertTrue($fact->is(Struggle::SteadyLate));
        self::assertFalse($fact->is(Struggle::Stalls));
    }

    /** Kept as JSON and read again, facts within facts included, it is the same. */
    #[DataProvider('facts')]
    public function testItComesBackFromJsonAsItWas(Fact $fact): void
    {
        $kept = json_decode(json_encode($fact->toArray(), \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION), true);
        self::assertIsArray($kept);
        self::assertEquals($fact, Fact::fromArray(Stored::of($kept), Struggle::class, Interlock::class));
    }

    /** @return iterable<string, array{Fact}> */
    public static function facts(): iterable
    {
        $plain = Fact::of(Struggle::NeverSteady);
        yield 'bare' => [$plain];
        yield 'numbers and flags' => [Fact::of(Struggle::SteadyLate, pct: 3.0, of: 4, is: false, name: '')];
        yield 'names' => [Fact::of(Struggle::BothNow, places: ['rear_left', 'front_left'])];
        yield 'a fact within' => [Fact::of(Struggle::Gone, why: Fact::of(Interlock::TakePropsOff, place: 'rear_left'))];
        yield 'several within, one with its own' => [Fact::of(Struggle::Gone, why: [$plain, Fact::of(Struggle::Stalls, by: $plain)])];
    }

    public function testACodeOfAnotherKindIsRefusedWithItsName(): void
    {
        $this->expectException(StoredDataUnreadable::class);
        $this->expectExceptionMessage(Struggle::Gone->value);
        Fact::fromArray(Stored::of(Fact::of(Struggle::Gone)->toArray()), Interlock::class);
    }

    /**
     * @param array<mixed>     $data
     * @param \Closure(Stored): mixed $read
     */
    #[DataProvider('spoilt')]
    public function testSpoiltDataAreRefusedWithTheirPath(array $data, \Closure $read, string $path): void
    {
        $this->expectException(StoredDataUnreadable::class);
        $this->expectExceptionMessage("“{$path}”");
        $read(Stored::of($data));
    }

    /** @return iterable<string, array{array<mixed>, \Closure, string}> */
    public static function spoilt(): iterable
    {
        yield 'no number' => [['a' => '1'], static fn (Stored $s) => $s->number('a'), 'a'];
        yield 'missing' => [[], static fn (Stored $s) => $s->number('a'), 'a'];
        yield 'not optional' => [['a' => true], static fn (Stored $s) => $s->optional('a'), 'a'];
        yield 'no text' => [['a' => 1], static fn (Stored $s) => $s->text('a'), 'a'];
        yield 'no such case' => [['a' => 'up'], static fn (Stored $s) => $s->choice('a', Axis::class), 'a'];
        yield 'deep' => [['a' => ['b' => ['c' => 'x']]], static fn (Stored $s) => $s->part('a')->part('b')->number('c'), 'a.b.c'];
        yield 'in a row' => [['a' => [[], 3]], static fn (Stored $s) => $s->rows('a'), 'a.1'];
        yield 'in a list' => [['a' => [1, 2, null]], static fn (Stored $s) => $s->numbers('a'), 'a.2'];
        yield 'three are no pair' => [['a' => [1, 2, 3]], static fn (Stored $s) => $s->pair('a'), 'a'];
        yield 'among texts' => [['a' => ['x', 1]], static fn (Stored $s) => $s->texts('a'), 'a.1'];
        yield 'no map' => [['a' => 'x'], static fn (Stored $s) => $s->part('a'), 'a'];
    }

    public function testWhatMayBeMissingIsNull(): void
    {
        $s = Stored::of(['n' => null, 'p' => [1, 2]]);
        self::assertNull($s->optional('n'));
        self::assertNull($s->optionalText('n'));
        self::assertNull($s->flag('n'));
        self::assertNull($s->pair('x'));
        self::assertNull($s->optionalPart('x'));
        self::assertSame([1.0, 2.0], $s->pair('p'));
        self::assertFalse($s->has('n'));
    }

    public function testTimesAreReadAsTheyAreKept(): void
    {
        $kept = Stored::of(['at' => '2026-11-30T19:24:13+00:00', 'never' => null, 'odd' => 'yesterday', 'number' => 7]);
        self::assertSame(1796066653, $kept->time('at')->getTimestamp());
        self::assertNull($kept->optionalTime('never'));
        self::assertNull($kept->optionalTime('missing'));
        foreach (['odd', 'never', 'missing', 'number'] as $key) {
            try {
                $kept->time($key);
                self::fail("$key is no time");
            } catch (StoredDataUnreadable $e) {
                self::assertStringContainsString($key, $e->getMessage());
            }
        }
    }
}
