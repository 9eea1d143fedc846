<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Settings\StagedChange;
use Ortholex\App\Settings\Staging;
use Ortholex\Core\Settings\SettingError;
use PHPUnit\Framework\Attributes\DataProvider;

/** What is staged is what was last asked, whoever asked it, in the type its setting has. */
final class StagingTest extends AppCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->link();
    }

    /** @return iterable<string, array{string, mixed, float|int|bool|string}> name, what is given, what is staged */
    public static function values(): iterable
    {
        yield 'a number as text' => ['gain.roll.p', '29.5', 29.5];
        yield 'a number with a comma' => ['gain.roll.p', '29,5', 29.5];
        yield 'a whole number for a number' => ['gain.roll.p', 30, 30.0];
        yield 'nought stays a number' => ['gain.roll.d', '0', 0.0];
        yield 'rounded to its step' => ['gain.roll.p', 29.4999, 29.5];
        yield 'a whole number' => ['notch.tracking.peaks', '2', 2];
        yield 'a switch by a form' => ['motors.still_when_armed', '1', true];
        yield 'a switch in words' => ['motors.still_when_armed', 'on', true];
        yield 'a choice' => ['d_path.stage.1.kind', 'first_order', 'first_order'];
        yield 'a list' => ['notch.motor.orders', '3, 1,2', '1,2,3'];
    }

    #[DataProvider('values')]
    public function testItKeepsTheTypeOfItsSetting(string $name, mixed $given, float|int|bool|string $kept): void
    {
        $this->staging()->stage($this->craft(), [$name => $given]);
        self::assertSame([$name => $kept], $this->staged($this->craft()));
        $this->entities()->clear();
        self::assertSame([$name => $kept], $this->staged($this->craft()), 'read again it is the same');
        self::assertSame($kept, $this->staging()->preview($this->craft())[$name]);
    }

    public function testTheLaterOfTwoStands(): void
    {
        $this->staging()->stage($this->craft(), ['gain.roll.p' => 30, 'gain.roll.d' => 2]);
        $this->staging()->stage($this->craft(), ['gain.roll.p' => 31]);
        $staged = $this->staged($this->craft());
        self::assertSame(['gain.roll.p' => 31.0, 'gain.roll.d' => 2.0], $staged, 'in the order they were first staged');
    }

    public function testAnotherPageThatStagedTheSameDoesNotBreakIt(): void
    {
        // As the other request wrote it, unseen by this one.
        $row = ['craft_id' => $this->craft()->id, 'name' => 'gain.roll.p', 'value' => '28.0'];
        $this->entities()->getConnection()->insert('staged_change', $row);
        $this->staging()->stage($this->craft(), ['gain.roll.p' => 30]);
        self::assertSame(['gain.roll.p' => 30.0], $this->staged($this->craft()));
        self::assertCount(1, $this->entities()->getRepository(StagedChange::class)->findAll());
    }

    public function testTheCraftsOwnValueTakesAChangeBack(): void
    {
        $own = $this->craft()->settings->number('gain.roll.p');
        $this->staging()->stage($this->craft(), ['gain.roll.p' => $own + 1, 'gain.roll.d' => 2]);
        $this->staging()->stage($this->craft(), ['gain.roll.p' => $own]);
        self::assertSame(['gain.roll.d' => 2.0], $this->staged($this->craft()));
    }

    public function testAllOrNone(): void
    {
        $this->staging()->stage($this->craft(), ['gain.roll.p' => 30]);
        foreach ([['gain.roll.d' => 2, 'gain.roll.p' => 900], ['gain.roll.d' => 2, 'gain.roll.q' => 1]] as $values) {
            try {
                $this->staging()->stage($this->craft(), $values);
                self::fail('it was staged');
            } catch (SettingError $e) {
                self::assertStringStartsWith('gain.roll.', $e->setting);
            }
            self::assertSame(['gain.roll.p' => 30.0], $this->staged($this->craft()));
        }
    }

    public function testOneIsDiscardedOrAll(): void
    {
        $this->staging()->stage($this->craft(), ['gain.roll.p' => 30, 'gain.roll.d' => 2, 'gain.yaw.p' => 41]);
        $this->staging()->discard($this->craft(), ['gain.roll.d']);
        self::assertSame(['gain.roll.p', 'gain.yaw.p'], array_keys($this->staged($this->craft())));
        $this->staging()->discard($this->craft(), ['gain.roll.d']);
        $this->staging()->discard($this->craft());
        self::assertSame([], $this->staged($this->craft()));
        $this->staging()->discard($this->craft());
    }

    public function testEachCraftHasItsOwnTray(): void
    {
        $this->link('dunlin');
        $this->staging()->stage($this->craft(), ['gain.roll.p' => 30]);
        $this->staging()->stage($this->craft('dunlin'), ['gain.roll.p' => 31]);
        $this->staging()->discard($this->craft());
        self::assertSame(['gain.roll.p' => 31.0], $this->staged($this->craft('dunlin')));
    }

    private function staging(): Staging
    {
        return self::getContainer()->get(Staging::class);
    }
}
