<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Settings;

use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Clash;
use Ortholex\Core\Settings\Consistency;
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
    public function testIsSaidAtItsSetting(array $changed, string $setting, string $weight, string $words): void
    {
        foreach ($this->of($changed + self::PADS) as $clash) {
            if ($clash->setting === $setting && str_contains($clash->text, $words)) {
                self::assertSame($weight, $clash->weight);

                return;
            }
        }
        self::fail("Nothing of $setting said “{$words}”.");
    }

    /** @return iterable<string, array{array<string, float|bool|string>, string, string, string}> */
    public static function clashes(): iterable
    {
        yield 'GPS without location' => [['uart.3.role' => 'gps'], 'location.enabled', Clash::REFUSE, 'needs location.enabled to be on'];
        yield 'a recorder that logs to memory' => [['uart.3.role' => 'recorder'], 'recorder.kind', Clash::REFUSE, '“serial”'];
        yield 'on a software UART too' => [['uart.software_1.role' => 'telemetry'], 'telemetry.enabled', Clash::REFUSE, 'telemetry'];
        yield 'two arms only' => [
            ['frame.layout' => 'custom', 'arm.front.forward_mm' => 100.0, 'arm.rear.forward_mm' => -100.0],
            'frame.layout',
            Clash::REFUSE,
            'at least three motors',
        ];
        yield 'all on one line' => [
            [
                'frame.layout' => 'custom',
                'arm.front.forward_mm' => 100.0,
                'arm.rear.forward_mm' => -100.0,
                'arm.front_right.forward_mm' => 200.0,
                'arm.rear_left.forward_mm' => -200.0,
            ],
            'frame.layout',
            Clash::REFUSE,
            'cannot command roll',
        ];
        yield 'a motor without output' => [
            ['pad.4.drives' => 'none'],
            'frame.layout',
            Clash::WARN,
            'No output drives the front left motor',
        ];
    }

    public function testAWholeSetHasNothingAgainstIt(): void
    {
        self::assertSame([], $this->of(self::PADS));
        self::assertSame([], $this->of(self::PADS + ['uart.3.role' => 'gps', 'location.enabled' => true]));
        self::assertSame(
            [],
            $this->of(self::PADS + ['esc.front_left.direction' => 'reversed']),
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

        return Consistency::of($changed + Catalogue::loam()->defaults($version), $version, 4, 'F7');
    }
}
