<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Settings;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\EscSeats;
use PHPUnit\Framework\TestCase;

final class EscSeatsTest extends TestCase
{
    public function testWhatIsOfAnEscGoesWithIt(): void
    {
        $then = EscSeats::of(['front_right' => 'A', 'rear_left' => 'B', 'rear_right' => 'C']);
        $now = EscSeats::of(['front_right' => 'B', 'rear_left' => 'A', 'rear_right' => 'C']);
        self::assertSame('rear_left', $now->placeOf('front_right', $then));
        self::assertSame('rear_right', $now->placeOf('rear_right', $then));
        self::assertSame('esc.front_right.advance_deg', $now->nameOf('esc.rear_left.advance_deg', $then));
        self::assertSame('gain.roll.p', $now->nameOf('gain.roll.p', $then));
        $carried = $now->carry(SettingSet::of(['esc.front_right.advance_deg' => 1, 'esc.rear_left.advance_deg' => 2, 'loop' => 3]), $then);
        self::assertEquals(['esc.rear_left.advance_deg' => 1, 'esc.front_right.advance_deg' => 2, 'loop' => 3], $carried->toArray());
        self::assertSame([], $now->gone(['esc.front_right.advance_deg', 'gain.roll.p'], $then));
    }

    public function testOneThatIsGoneIsNamedAndItsSettingsGoToNoOther(): void
    {
        $then = EscSeats::of(['front_right' => 'A', 'rear_left' => 'B']);
        $now = EscSeats::of(['front_right' => 'X', 'rear_left' => 'B']);
        self::assertNull($now->placeOf('front_right', $then));
        self::assertSame(['front_right' => 'A'], $now->gone(['esc.front_right.direction', 'esc.rear_left.direction'], $then));
        self::assertSame([], $now->carry(SettingSet::of(['esc.front_right.direction' => 'swapped']), $then)->toArray());
    }

    public function testWithoutSerialNumbersThePlaceStands(): void
    {
        $none = EscSeats::of(['front_right' => '', 'rear_left' => null]);
        self::assertSame([], $none->serials);
        $now = EscSeats::of(['front_right' => 'A', 'rear_left' => 'B']);
        self::assertSame('front_right', $now->placeOf('front_right', $none), 'then it told none');
        self::assertSame('front_right', $none->placeOf('front_right', $now), 'now it tells none');
        self::assertSame('rear', $now->placeOf('rear', EscSeats::of(['rear' => 'Q'])), 'nobody sits there who says otherwise');
    }
}
