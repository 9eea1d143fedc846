<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Settings;

use Ortholex\Core\Airframe\AirframeFlaw;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Clash;
use Ortholex\Core\Settings\Consistency\ClashCode;
use Ortholex\Core\Settings\Consistency\ClashWeight;
use Ortholex\Core\Settings\Consistency\Consistency;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What only a whole set of settings can get wrong: jobs without their feature, frames without outputs. */
final class ConsistencyOfPartsTest extends TestCase
{
    private const PADS = [
        'pad.1.drives' => 'front_right',
        'pad.2.drives' => 'rear_right',
        'pad.3.drives' => 'rear_left',
        'pad.4.drives' => 'front_left',
    ];

    /** @param array<string, float|bool|string> $changed */
    #[DataProvider('clashes')]
    public function testIsSaidAtItsSetting(array $changed, string $setting, ClashWeight $weight, Fact $what): void
    {
        foreach ($this->of($changed + self::PADS) as $clash) {
            if ($clash->setting === $setting && $clash->what->is($what->code)) {
                self::assertEquals([$weight, $what], [$clash->weight, $clash->what]);

                return;
            }
        }
        self::fail("Nothing was said of $setting.");
    }

    /** @return iterable<string, array{array<string, float|bool|string>, string, ClashWeight, Fact}> */
    public static function clashes(): iterable
    {
        yield 'GPS without location' => [
            ['uart.3.role' => 'gps'],
            'location.enabled',
            ClashWeight::Refuse,
            Fact::of(ClashCode::RoleNeedsFlag, role: 'gps', needs: 'location.enabled'),
        ];
        yield 'a recorder that logs to memory' => [
            ['uart.3.role' => 'recorder'],
            'recorder.writes_to',
            ClashWeight::Refuse,
            Fact::of(ClashCode::RoleNeedsChoice, role: 'recorder', needs: 'recorder.writes_to', choice: 'wire'),
        ];
        yield 'on a software UART too' => [
            ['uart.software_1.role' => 'telemetry'],
            'telemetry.enabled',
            ClashWeight::Refuse,
            Fact::of(ClashCode::RoleNeedsFlag, role: 'telemetry', needs: 'telemetry.enabled'),
        ];
        yield 'two arms only' => [
            ['frame.layout' => 'custom', 'motor_place.front.forward_mm' => 100.0, 'motor_place.rear.forward_mm' => -100.0],
            'frame.layout',
            ClashWeight::Refuse,
            Fact::of(AirframeFlaw::TooFewMotors, motors: 2),
        ];
        yield 'all on one line' => [
            [
                'frame.layout' => 'custom',
                'motor_place.front.forward_mm' => 100.0,
                'motor_place.rear.forward_mm' => -100.0,
                'motor_place.front_right.forward_mm' => 200.0,
                'motor_place.rear_left.forward_mm' => -200.0,
            ],
            'frame.layout',
            ClashWeight::Refuse,
            Fact::of(AirframeFlaw::CannotCommand, command: 'roll'),
        ];
        yield 'a motor without output' => [
            ['pad.4.drives' => 'none'],
            'frame.layout',
            ClashWeight::Warn,
            Fact::of(ClashCode::MotorsNotDriven, places: ['front_left']),
        ];
    }

    public function testAWholeSetHasNothingAgainstIt(): void
    {
        self::assertSame([], $this->of(self::PADS));
        self::assertSame([], $this->of(self::PADS + ['uart.3.role' => 'gps', 'location.enabled' => true]));
        self::assertSame(
            [],
            $this->of(self::PADS + ['esc.front_left.direction' => 'swapped']),
            'what ESCs hold is no matter of the board',
        );
    }

    /**
     * @param array<string, float|bool|string> $changed
     *
     * @return list<Clash>
     */
    private function of(array $changed): array
    {
        $version = Version::parse(Catalogue::CURRENT);

        return Consistency::of(Catalogue::loam()->defaults($version)->with($changed), $version, new Circumstances(4, 'F7'));
    }
}
