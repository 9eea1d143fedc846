<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Firmware;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Firmware\BoardIdentity;
use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Firmware\Fit;
use Ortholex\Core\Firmware\FitReason;
use Ortholex\Core\Firmware\FitVerdict;
use Ortholex\Core\Firmware\HexImage;
use Ortholex\Core\Firmware\Manifest;
use Ortholex\Core\Firmware\Version;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class FitTest extends TestCase
{
    /**
     * Manifest changes, where the image lies, verdict, reason.
     *
     * @return iterable<string, array{array<string, mixed>, int, FitVerdict, Fact}>
     */
    public static function cases(): iterable
    {
        yield 'made for it' => [[], 0x0800_8000, FitVerdict::Fits, Fact::of(FitReason::MadeForIt, id: 'QUERN-F7', processor: 'F7')];
        yield 'a near-identical name' => [
            ['hardware' => ['QUERN-F7-2'], 'board' => 'Quern F7-2'],
            0x0800_8000,
            FitVerdict::DoesNotFit,
            Fact::of(FitReason::OtherBoard, wanted: 'Quern F7-2', wanted_ids: ['QUERN-F7-2'], board: 'Quern F7', id: 'QUERN-F7'),
        ];
        yield 'another processor' => [
            ['processor' => 'F4'],
            0x0800_8000,
            FitVerdict::DoesNotFit,
            Fact::of(FitReason::OtherProcessor, wanted: 'F4', processor: 'F7'),
        ];
        yield 'below the flash' => [[], 0x0800_0000, FitVerdict::DoesNotFit, self::outside(0x0800_0000)];
        yield 'past the flash' => [[], 0x080F_FF00, FitVerdict::DoesNotFit, self::outside(0x080F_FF00)];
        yield 'other bytes' => [['sha256' => str_repeat('0', 64)], 0x0800_8000, FitVerdict::DoesNotFit, Fact::of(FitReason::OtherBytes)];
        yield 'leaves out what is used' => [
            ['left_out' => ['gps', 'overlay']],
            0x0800_8000,
            FitVerdict::FitsBut,
            Fact::of(FitReason::LeavesOut, option: 'gps'),
        ];
        yield 'leaves out what is not used' => [
            ['left_out' => ['overlay']],
            0x0800_8000,
            FitVerdict::Fits,
            Fact::of(FitReason::MadeForIt, id: 'QUERN-F7', processor: 'F7'),
        ];
        yield 'pre-release' => [['version' => '26.10-pre1'], 0x0800_8000, FitVerdict::FitsBut, Fact::of(FitReason::PreRelease)];
        yield 'older' => [['version' => '25.02'], 0x0800_8000, FitVerdict::FitsBut, Fact::of(FitReason::Older, version: '26.01')];
    }

    private static function outside(int $at): Fact
    {
        return Fact::of(
            FitReason::OutsideFlash,
            from: $at,
            to: $at + 599,
            board: 'Quern F7',
            flash_from: 0x0800_8000,
            flash_to: 0x080F_FFFF,
        );
    }

    /** @param array<string, mixed> $changes */
    #[DataProvider('cases')]
    public function testIsJudgedByIdentity(array $changes, int $at, FitVerdict $verdict, Fact $reason): void
    {
        $image = HexImage::of([$at => random_bytes(600)]);
        $manifest = Manifest::fromArray(
            $changes + [
                'product' => 'Loam',
                'version' => '26.06',
                'hardware' => ['QUERN-F7'],
                'board' => 'Quern F7',
                'processor' => 'F7',
                'flash_from' => 0x0800_8000,
                'flash_end' => 0x0810_0000,
                'left_out' => [],
                'sha256' => $image->sha256(),
                'date' => '2026-10-20',
                'notes' => '',
            ],
        );
        $fit = Fit::judge($image, $manifest, self::board(), ['gps']);
        self::assertSame($verdict, $fit->verdict);
        self::assertContainsEquals($reason, $fit->reasons);
        self::assertSame(FitVerdict::DoesNotFit !== $verdict, $fit->mayBeWritten());
        self::assertFalse($fit->needsTypedName());
        self::assertEquals($manifest, Manifest::fromArray($manifest->toArray()));
    }

    public function testWithoutManifestItCannotTellButStillKnowsTheRange(): void
    {
        $fit = Fit::judge(HexImage::of([0x0800_8000 => 'abc']), null, self::board(), []);
        self::assertSame(FitVerdict::CannotTell, $fit->verdict);
        self::assertTrue($fit->needsTypedName());
        self::assertSame(FitVerdict::DoesNotFit, Fit::judge(HexImage::of([0 => 'abc']), null, self::board(), [])->verdict);
        self::assertSame(FitVerdict::CannotTell, Fit::judge(HexImage::of([0 => 'abc']), null, null, [])->verdict);
    }

    public function testAManifestSaysWhatItLacks(): void
    {
        $this->expectException(FirmwareError::class);
        $this->expectExceptionMessage('“hardware”');
        Manifest::fromArray(['product' => 'Loam', 'version' => '26.06']);
    }

    public function testVersionsAreOrdered(): void
    {
        $ordered = [
            '4.0',
            '4.0.1',
            '4.2.0-pre1',
            '4.2.0-pre2',
            '4.2.0',
            '4.10.0',
            '25.02',
            '25.08',
            '26.01',
            '26.10-pre1',
            '26.10',
            '26.10.1',
        ];
        foreach ($ordered as $i => $a) {
            foreach ($ordered as $j => $b) {
                self::assertSame($i <=> $j, Version::parse($a)->compare(Version::parse($b)), "$a against $b");
            }
        }
        self::assertTrue(Version::parse('26.06-pre1')->hasReached(Version::parse('26.06')));
        self::assertSame('4.2.0-pre1', Version::parse(' 4.2-pre1 ')->toString());
        foreach (['25.02', '26.10-pre1', '26.06.2'] as $byMonth) {
            self::assertSame($byMonth, Version::parse($byMonth)->toString());
        }
        self::assertSame('26.13.0', Version::parse('26.13')->toString(), 'there is no thirteenth month');
        self::assertTrue(Version::parse('26.10-pre1')->hasReachedNumber('26.06'));
        self::assertFalse(Version::parse('26.01')->hasReachedNumber('26.06'));
        $this->expectException(FirmwareError::class);
        Version::parse('four');
    }

    private static function board(): BoardIdentity
    {
        return new BoardIdentity(
            'QUERN-F7',
            'Quern F7',
            'F7',
            0x0800_8000,
            0x0810_0000,
            2048,
            'Q7-1',
            'Loam',
            Version::parse('26.01'),
            false,
        );
    }
}
