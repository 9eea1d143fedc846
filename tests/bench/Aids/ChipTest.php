<?php

declare(strict_types=1);

namespace Ortholex\Tests\bench\Aids;

use Ortholex\Bench\Overlay\ScryChip;
use Ortholex\Bench\Shelf\ShelfMaker;
use Ortholex\Core\Link\Aids\ChipClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\PageWriter;
use Ortholex\Core\Overlay\Font\ChipPages;
use Ortholex\Core\Overlay\Font\Font;
use Ortholex\Core\Overlay\OverlayItem;

/** The overlay chip: on the board or on a port, with firmware that suits or does not, and what it draws. */
final class ChipTest extends AidsCase
{
    public function testItsFirmwareIsWrittenThroughTheBoardAndReadBack(): void
    {
        $this->onBench();
        $this->burn('Scry', '1.3');
        $chip = new ChipClient($this->client());
        self::assertSame('1.3.0', $chip->identity()->version?->toString());
        $pages = PageWriter::pages(ShelfMaker::chipImage('Scry', '2.0'), 0, ScryChip::PAGE_BYTES);
        try {
            $chip->writePage(0, $pages[0]);
            self::fail('its firmware ran');
        } catch (LinkError $e) {
            self::assertStringContainsString('bootloader', $e->getMessage());
        }
        $chip->toBootloader();
        self::assertNull($chip->identity()->version);
        $writer = new PageWriter($chip);
        $told = [];
        $writer->write($pages, 0, static function (int $done, int $of) use (&$told): void {
            $told[] = [$done, $of];
        });
        self::assertSame([\count($pages), \count($pages)], $told[\count($told) - 1]);
        $writer->verify($pages, static fn (): null => null);
        $chip->run();
        self::assertSame('2.0.0', $chip->identity()->version?->toString());
    }

    public function testOneThatWasBrokenOffIsGoneOnWith(): void
    {
        $this->onBench();
        $this->burn('Scry', '1.3');
        $chip = new ChipClient($this->client());
        $chip->toBootloader();
        $pages = PageWriter::pages(ShelfMaker::chipImage('Scry', '2.1'), 0, ScryChip::PAGE_BYTES);
        foreach (\array_slice($pages, 0, 5, true) as $address => $page) {
            $chip->writePage($address, $page);
        }
        $this->world->move('cable', '0');
        $this->world->move('cable', '1');
        $this->pace->wait(1.0);
        $chip = new ChipClient($this->client());
        $chip->run();
        self::assertNull($chip->identity()->version, 'half of it does not start');
        self::assertSame(5, (new PageWriter($chip))->alreadyWritten($pages));
    }

    public function testLettersAreWrittenWhileItRuns(): void
    {
        $this->onBench();
        $this->burn('Scry', '2.0');
        $chip = new ChipClient($this->client());
        $is = $chip->identity();
        $pages = ChipPages::of(Font::shipped(), $is->firmwareEnd, $is->pageBytes);
        self::assertSame(ScryChip::FIRMWARE_END, array_key_first($pages));
        (new PageWriter($chip))->write($pages, 0, static fn (): null => null);
        $flat = '';
        foreach (array_keys($pages) as $address) {
            $flat .= $chip->readFlash($address, $is->pageBytes);
        }
        self::assertEquals(Font::shipped()->glyphs, ChipPages::font($flat)->glyphs, 'as they were written');
        self::assertSame('2.0.0', $chip->identity()->version?->toString(), 'it ran all the while');
    }

    public function testWhatItDrawsIsTheLayoutOfTheMoment(): void
    {
        $this->onBench(['overlay.voltage_from' => 'pack']);
        $this->burn('Scry', '2.0');
        $picture = $this->aids()->picture();
        self::assertSame(2, $picture->layout, 'while disarmed');
        self::assertCount(15, $picture->rows);
        self::assertSame([28], array_values(array_unique(array_map(\strlen(...), $picture->rows))));
        self::assertSame(\sprintf('%4.1fV', $picture->packV), trim(substr($picture->rows[1], 1, 6)));
        self::assertSame('NO RADIO', trim(substr($picture->rows[8], 7, 14)));
        self::assertCount(\count(OverlayItem::cases()), $picture->items, 'values of all items, shown or not');
    }

    public function testAWrongSourceStandsStillAndAWrongReleaseIsGarbled(): void
    {
        $this->onBench(['overlay.voltage_from' => 'video_rail']);
        $this->burn('Scry', '2.0');
        $with = $this->aids()->picture();
        $this->world->move('pack_used', '0.9');
        $less = $this->aids()->picture();
        self::assertEqualsWithDelta($with->shownV, $less->shownV, 0.01, 'the rail is held');
        self::assertLessThan($with->packV - 1.0, $less->packV, 'the pack is not');
        $this->burn('Scry', '1.3');
        self::assertNotSame($less->rows, $this->aids()->picture()->rows);
        $this->burn('Scry D', '2.0');
        self::assertSame('', trim(implode('', $this->aids()->picture()->rows)), 'firmware of another kind does not start');
    }

    public function testTheDigitalSisterHangsOnAPort(): void
    {
        $this->slug = 'curlew';
        $this->setUp();
        $this->onBench([], pack: false);
        self::assertSame([], $this->aids()->picture()->rows, 'its rail is dead on the cable alone');
        $this->world->move('pack', '1');
        $this->pace->wait(1.0);
        $this->burn('Scry D', '2.0');
        self::assertSame('Scry D', (new ChipClient($this->client()))->identity()->kind);
        self::assertCount(20, $this->aids()->picture()->rows);
        $this->client()->writeSetting('uart.3.baud', '57600');
        self::assertSame([], $this->aids()->picture()->rows, 'spoken to at another rate');
    }

    private function burn(string $kind, string $version): void
    {
        $this->world->chipFlash()->write(0, ShelfMaker::chipImage($kind, $version)->flat());
    }
}
