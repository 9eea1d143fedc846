<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Firmware;

use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Firmware\Version;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class VersionTest extends TestCase
{
    /** @return iterable<string, array{string, string}> as written, as said */
    public static function written(): iterable
    {
        yield 'year and month' => ['26.06', '26.06'];
        yield 'mended later' => ['26.06.2', '26.06.2'];
        yield 'mended not at all' => ['26.06.0', '26.06'];
        yield 'a pre-release' => ['26.06-rc1', '26.06-rc1'];
        yield 'three numbers' => ['1.4.0', '1.4.0'];
        yield 'two numbers' => ['1.2', '1.2.0'];
        yield 'months end at twelve' => ['26.13', '26.13.0'];
        yield 'with space around' => [" 25.08\n", '25.08'];
    }

    #[DataProvider('written')]
    public function testItIsSaidAsItsMakerCounts(string $text, string $said): void
    {
        self::assertSame($said, Version::parse($text)->toString());
        self::assertSame(0, Version::parse($text)->compare(Version::parse($said)), 'and read again as the same');
    }

    /** @return iterable<string, array{string}> */
    public static function none(): iterable
    {
        foreach (['', '26', 'v26.06', '26.06.1.1', '26.06-', '26.06-RC1', '1234.1', '26,06', '26.06 beta', '-1.0', "26.\0006"] as $text) {
            yield "“{$text}”" => [$text];
        }
    }

    #[DataProvider('none')]
    public function testWhatIsNoneIsRefused(string $text): void
    {
        $this->expectException(FirmwareError::class);
        Version::parse($text);
    }

    public function testTheyStandInOneOrder(): void
    {
        $order = ['1.0.0', '1.0.1', '1.2.0-a1', '1.2.0-b2', '1.2.0', '1.10.0', '25.02', '25.08', '26.01-rc1', '26.01', '26.01.1', '26.06'];
        foreach ($order as $i => $a) {
            foreach ($order as $j => $b) {
                self::assertSame($i <=> $j, Version::parse($a)->compare(Version::parse($b)), "$a and $b");
            }
        }
    }

    public function testAPreReleaseHasTheSettingsOfItsRelease(): void
    {
        self::assertTrue(Version::parse('26.06-rc1')->hasReached(Version::parse('26.06')));
        self::assertTrue(Version::parse('26.06-rc1')->hasReachedNumber('26.06'));
        self::assertLessThan(0, Version::parse('26.06-rc1')->compare(Version::parse('26.06')));
        self::assertTrue(Version::parse('26.06-rc1')->isPreRelease());
        self::assertFalse(Version::parse('26.06')->isPreRelease());
        self::assertFalse(Version::parse('26.01.9')->hasReachedNumber('26.06'));
    }

    public function testBothWaysToAskWhetherItIsReachedAgree(): void
    {
        $dice = new Lcg(3);
        for ($round = 0; $round < 500; ++$round) {
            $text = static fn (): string => \sprintf('%02d.%02d.%d', $dice->whole(24, 27), $dice->whole(1, 12), $dice->whole(0, 2));
            [$a, $b] = [$text(), $text()];
            $version = Version::parse($a);
            $other = Version::parse($b);
            self::assertSame($version->hasReached($other), $version->hasReachedNumber($other->toString()), "$a, $b");
            self::assertSame($version->compare($other) >= 0, $version->hasReached($other));
        }
    }
}
