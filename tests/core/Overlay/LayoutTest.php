<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Overlay;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Overlay\Chip\ChipFit;
use Ortholex\Core\Overlay\Chip\LayoutBytes;
use Ortholex\Core\Overlay\Font\Font;
use Ortholex\Core\Overlay\ItemText;
use Ortholex\Core\Overlay\Layout;
use Ortholex\Core\Overlay\LayoutCheck;
use Ortholex\Core\Overlay\Layouts;
use Ortholex\Core\Overlay\OverlayError;
use Ortholex\Core\Overlay\OverlayFlaw;
use Ortholex\Core\Overlay\OverlayItem;
use Ortholex\Core\Overlay\OverlayMoment;
use Ortholex\Core\Overlay\OverlayReadings;
use Ortholex\Core\Overlay\Raster;
use Ortholex\Core\Overlay\ShownWhen;
use Ortholex\Core\Overlay\Source\SourceCheck;
use Ortholex\Core\Overlay\Source\SourceVerdict;
use PHPUnit\Framework\TestCase;

final class LayoutTest extends TestCase
{
    /** Any sequence of moves, raster changes and copies leaves no overlap, nothing off the grid, and the chip's bytes give it back. */
    public function testAnySequenceLeavesItSound(): void
    {
        mt_srand(2026);
        $items = OverlayItem::cases();
        $set = SettingSet::of(['overlay.raster' => 'lines_625', 'overlay.layouts' => '1:always 2:armed 3:action']);
        for ($case = 0; $case < 150; ++$case) {
            $layouts = Layouts::in($set);
            for ($step = 0; $step < 40; ++$step) {
                $number = mt_rand(1, 3);
                $layout = $layouts->layouts[$number];
                $item = $items[array_rand($items)];
                switch (mt_rand(0, 7)) {
                    case 0:
                        [$layouts] = $layouts->on(Raster::cases()[mt_rand(0, 2)]);
                        break;
                    case 1:
                        $layouts = $layouts->with(mt_rand(1, 3), $layout);
                        break;
                    case 2:
                        $layouts = $layouts->with($number, $layout->without($item));
                        break;
                    default:
                        try {
                            $layouts = $layouts->with($number, $layout->with($item, mt_rand(-2, 48), mt_rand(-2, 21)));
                        } catch (OverlayError) {
                            // Refused: then nothing has changed, which is looked at below as anything is.
                        }
                }
                self::assertSound($layouts);
            }
            $kept = SettingSet::of(
                ['overlay.raster' => $layouts->raster->value, 'overlay.layouts' => '1:always 2:armed 3:action'] + $layouts->settings(),
            );
            self::assertEquals($layouts, Layouts::in($kept), 'settings give it back');
        }
    }

    public function testPlacesAreRefusedInWords(): void
    {
        $layout = Layout::empty(Raster::Lines525)->with(OverlayItem::PackVoltage, 2, 1);
        foreach (
            [
                [OverlayFlaw::Overlap, 7, 1],
                [OverlayFlaw::OffGrid, 23, 3],
                [OverlayFlaw::OffGrid, 0, 12],
                [OverlayFlaw::OffGrid, -1, 3],
            ] as [$flaw, $c, $r]
        ) {
            try {
                $layout->with(OverlayItem::Height, $c, $r);
                self::fail($flaw->value);
            } catch (OverlayError $e) {
                self::assertSame($flaw, $e->flaw->code);
            }
        }
        self::assertSame([3, 1], $layout->with(OverlayItem::PackVoltage, 3, 1)->at['pack_voltage'], 'it may cover where it stood itself');
        self::assertSame(OverlayItem::PackVoltage, $layout->in(7, 1));
        self::assertNull($layout->in(8, 1));
    }

    public function testCornersAreKept(): void
    {
        $layout = Layout::empty(Raster::Lines625)
            ->with(OverlayItem::PackVoltage, 1, 13)
            ->with(OverlayItem::Current, 21, 0)
            ->with(OverlayItem::Horizon, 9, 5)
            ->with(OverlayItem::FlightTime, 21, 13);
        [$digital, $shifted, $away] = $layout->on(Raster::Digital);
        self::assertSame([[], []], [$shifted, $away]);
        self::assertSame([1, 18], $digital->at['pack_voltage'], 'left, and one above the foot');
        self::assertSame([39, 0], $digital->at['current'], 'one from the right');
        self::assertSame([18, 7], $digital->at['horizon'], 'the middle stays the middle');
        [$back] = $digital->on(Raster::Lines625);
        self::assertEquals($layout, $back);
        $full = Layout::empty(Raster::Digital);
        foreach (OverlayItem::cases() as $i => $item) {
            $free = $full->nearestFree($item, 3 * $i, $i % 20);
            self::assertNotNull($free);
            $full = $full->with($item, ...$free);
        }
        [$small, , $away] = $full->on(Raster::Lines525);
        self::assertSame(\count(OverlayItem::cases()), \count($small->at) + \count($away), 'each stands, or is said to be put away');
    }

    public function testWhichLayoutIsShown(): void
    {
        $layouts = Layouts::in(SettingSet::of(['overlay.layouts' => '1:always 2:disarmed 4:pack_low 7:action']));
        self::assertSame(2, $layouts->shown(new OverlayMoment()));
        self::assertSame(1, $layouts->shown(new OverlayMoment(armed: true)));
        self::assertSame(4, $layouts->shown(new OverlayMoment(armed: true, packLow: true)));
        self::assertSame(7, $layouts->shown(new OverlayMoment(packLow: true, action: true)));
        self::assertNull(Layouts::in(SettingSet::of(['overlay.layouts' => '3:armed']))->shown(new OverlayMoment()));
        self::assertSame('1:always 2:disarmed', Layouts::timesText([2 => ShownWhen::Disarmed, 1 => ShownWhen::Always]));
        foreach (['x', '1:2', '0:1,2', '1:1,2 1:3,4', '21:1,1', '1:1,2;'] as $bad) {
            try {
                Layouts::cells($bad);
                self::fail($bad);
            } catch (OverlayError $e) {
                self::assertSame(OverlayFlaw::BadCells, $e->flaw->code);
            }
        }
        $this->expectException(OverlayError::class);
        Layouts::times('1:sometimes');
    }

    public function testWhatIsToBeMinded(): void
    {
        $layout = Layout::empty(Raster::Lines625)
            ->with(OverlayItem::PackVoltage, 0, 1)
            ->with(OverlayItem::Current, 6, 1)
            ->with(OverlayItem::Satellites, 14, 1);
        $said = array_map(static fn ($f): string => (string) $f->code->value, (new LayoutCheck(SettingSet::of([]), ['gyro']))->of($layout));
        self::assertSame(
            [
                OverlayFlaw::AtEdge->value,
                OverlayFlaw::RunTogether->value,
                OverlayFlaw::NoSource->value,
                OverlayFlaw::NoSource->value,
                OverlayFlaw::NoWarnings->value,
            ],
            $said,
        );
        $sound = Layout::empty(Raster::Lines625)->with(OverlayItem::PackVoltage, 2, 1)->with(OverlayItem::Warnings, 7, 10);
        self::assertSame([], (new LayoutCheck(SettingSet::of([]), []))->of($sound));
    }

    public function testEveryTextFillsItsCells(): void
    {
        $lots = new OverlayReadings(
            22.4,
            6,
            123.4,
            12.34,
            100.5,
            4000.0,
            100,
            -120,
            100,
            -1234,
            -12.3,
            33.3,
            12_345,
            359,
            -54.123456,
            -179.654321,
            31,
            359.6,
            -80,
            85,
            -45,
            5800,
            'a name too long for it',
            'angle',
            ['a warning far too long'],
        );
        foreach (OverlayItem::cases() as $item) {
            foreach ([$lots, new OverlayReadings()] as $readings) {
                $rows = ItemText::of($item, $readings);
                [$wide, $high] = $item->size();
                self::assertCount($high, $rows, $item->value);
                foreach ($rows as $row) {
                    self::assertSame($wide, \strlen($row), $item->value);
                }
            }
        }
        self::assertSame(['22.4V '], ItemText::of(OverlayItem::PackVoltage, $lots));
        self::assertSame(['N54.900000  '], ItemText::of(OverlayItem::Latitude, new OverlayReadings(latDeg: 54.9)));
        self::assertSame(['o>'], ItemText::of(OverlayItem::HomeDirection, new OverlayReadings(homeDeg: 80)));
        $level = ItemText::of(OverlayItem::Horizon, new OverlayReadings());
        self::assertSame('----+----', $level[2]);
        self::assertStringContainsString(
            '-',
            ItemText::of(OverlayItem::Horizon, new OverlayReadings(pitchDeg: 25))[4],
            'nose up, the horizon sinks',
        );
    }

    public function testSources(): void
    {
        $falls = array_map(static fn (int $i): float => 25.0 - 0.3 * $i, range(0, 10));
        self::assertSame(SourceVerdict::Follows, SourceCheck::of(array_map(static fn (float $v): array => [$v + 0.1, $v], $falls)));
        self::assertSame(SourceVerdict::Stuck, SourceCheck::of(array_map(static fn (float $v): array => [9.0, $v], $falls)));
        self::assertSame(SourceVerdict::Wrong, SourceCheck::of(array_map(static fn (float $v): array => [$v / 2, $v], $falls)));
        self::assertSame(SourceVerdict::CannotTell, SourceCheck::of([[25.0, 25.0], [25.0, 25.1]]));
        self::assertSame(SourceVerdict::Wrong, SourceCheck::of([[9.0, 25.0], [9.0, 25.1]]));
        self::assertSame(SourceVerdict::CannotTell, SourceCheck::of([]));
    }

    public function testBytesThatAreNoLayout(): void
    {
        $bytes = LayoutBytes::encode(Layout::empty(Raster::Digital)->with(OverlayItem::Height, 3, 4));
        for ($i = 0; $i < \strlen($bytes); ++$i) {
            for ($bit = 0; $bit < 8; ++$bit) {
                $spoilt = $bytes;
                $spoilt[$i] = \chr(\ord($spoilt[$i]) ^ (1 << $bit));
                try {
                    LayoutBytes::decode($spoilt);
                    self::fail("bit $bit of byte $i");
                } catch (OverlayError $e) {
                    self::assertSame(OverlayFlaw::BadBytes, $e->flaw->code);
                }
            }
        }
    }

    public function testLettersAreReadAndWritten(): void
    {
        $font = Font::shipped();
        self::assertEquals($font, Font::read($font->write()));
        $bytes = array_map($font->bytes(...), array_combine(array_keys($font->glyphs), array_keys($font->glyphs)));
        self::assertSame([Font::BYTES], array_values(array_unique(array_map(strlen(...), $bytes))));
        self::assertEquals($font, Font::ofBytes($bytes));
        foreach (str_split('0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZdhimnosvz^<>%.:+-/!') as $letter) {
            self::assertNotSame(['', ''], $font->paths(\ord($letter)), $letter);
        }
        foreach (
            [
                '',
                'x',
                Font::HEAD,
                Font::HEAD."\nglyph 65\n............",
                Font::HEAD."\nglyph 300",
                Font::HEAD."\n....",
                $font->write().'glyph 65',
            ] as $bad
        ) {
            try {
                Font::read($bad);
                self::fail($bad);
            } catch (OverlayError $e) {
                self::assertSame(OverlayFlaw::BadFont, $e->flaw->code);
            }
        }
    }

    public function testPairsOfFirmware(): void
    {
        $suits = static fn (string $board, string $chip): bool => ChipFit::of(Version::parse($board), Version::parse($chip))->suits;
        self::assertTrue($suits('25.08', '1.4.0'));
        self::assertFalse($suits('26.01', '1.4.0'));
        self::assertTrue($suits('26.01', '2.0.1'));
        self::assertFalse($suits('26.06', '2.0.1'));
        self::assertTrue($suits('26.06', '2.1.0'));
        self::assertFalse($suits('26.06', '3.0.0'));
    }

    private static function assertSound(Layouts $layouts): void
    {
        foreach ($layouts->layouts as $layout) {
            $cells = [];
            foreach ($layout->items() as $item) {
                [$c, $r] = $layout->at[$item->value];
                [$wide, $high] = $item->size();
                for ($x = $c; $x < $c + $wide; ++$x) {
                    for ($y = $r; $y < $r + $high; ++$y) {
                        self::assertTrue($x >= 0 && $y >= 0 && $x < $layout->raster->columns() && $y < $layout->raster->rows());
                        self::assertArrayNotHasKey("$x,$y", $cells);
                        $cells["$x,$y"] = true;
                    }
                }
            }
            self::assertEquals($layout, LayoutBytes::decode(LayoutBytes::encode($layout)));
        }
    }
}
