<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Settings;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Difference;
use PHPUnit\Framework\TestCase;

final class DifferenceTest extends TestCase
{
    public function testIsToldOfWhatBothHaveAndBothWaysAlike(): void
    {
        $book = SettingSet::of(
            ['gain.roll.p' => 33.0, 'gain.roll.i' => 70, 'motors.rpm_feedback' => true, 'only.book' => 1, 'word' => 'cut'],
        );
        $craft = SettingSet::of([
            'only.craft' => 2,
            'word' => 'descend',
            'gain.roll.i' => 70.0,
            'motors.rpm_feedback' => false,
            'gain.roll.p' => 33.5,
        ]);
        $found = array_map(static fn (Difference $d): array => [$d->name, $d->book, $d->craft], Difference::between($book, $craft));
        self::assertSame(
            [['gain.roll.p', 33.0, 33.5], ['motors.rpm_feedback', true, false], ['word', 'cut', 'descend']],
            $found,
            'a whole number is the same as its float, and what only one has is no difference',
        );
        $turned = array_map(static fn (Difference $d): array => [$d->name, $d->craft, $d->book], Difference::between($craft, $book));
        self::assertEqualsCanonicalizing($found, $turned);
        self::assertSame([], Difference::between($book, $book));
        self::assertSame([], Difference::between(SettingSet::none(), $craft));
    }
}
