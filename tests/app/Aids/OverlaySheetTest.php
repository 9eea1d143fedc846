<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Aids;

use Ortholex\App\Work\JobState;
use Ortholex\Core\Overlay\Font\Font;
use Ortholex\Core\Overlay\OverlayItem;
use Ortholex\Core\Overlay\Source\SourceVerdict;
use Ortholex\Tests\app\Command\CommandCase;
use Symfony\Component\HttpFoundation\File\UploadedFile;

/** Sheet 42 through its forms and jobs. */
final class OverlaySheetTest extends CommandCase
{
    private const SHEET = '/craft/bittern/42';

    public function testItemsArePutMovedAndTakenAway(): void
    {
        $this->link('bittern');
        $this->post('/craft/bittern/overlay/put', ['layout' => '1', 'item' => 'link_quality', 'column' => '2', 'row' => '7']);
        self::assertSame('1:2,7', $this->cells('link_quality'));
        $refused = $this->post('/craft/bittern/overlay/put', ['layout' => '1', 'item' => 'throttle', 'column' => '3', 'row' => '7'], 422);
        self::assertSame('item', $refused['field']);
        self::assertStringContainsString('link quality', (string) json_encode($refused), 'what it would cover is named');
        $this->post('/craft/bittern/overlay/put', ['layout' => '1', 'item' => 'throttle', 'column' => '27', 'row' => '14']);
        self::assertSame('1:23,14', $this->cells('throttle'), 'as near to the edge as it goes');
        $this->post('/craft/bittern/overlay/put', ['layout' => '1', 'item' => 'link_quality', 'away' => '1']);
        self::assertSame('', $this->cells('link_quality'));
        $this->post('/craft/bittern/overlay/put', ['layout' => '1', 'item' => 'the moon', 'column' => '1', 'row' => '1'], 422);
        self::assertStringContainsString('data-item="throttle"', $this->page(self::SHEET));
    }

    public function testWhatLacksItsSourceSaysWhatItNeeds(): void
    {
        $this->link('bittern');
        $this->post('/craft/bittern/overlay/put', ['layout' => '1', 'item' => 'link_quality', 'column' => '2', 'row' => '7']);
        // Bittern's receiver sends channels only.
        self::assertMatchesRegularExpression('~id="remarks">.{0,200}[Ll]ink quality~', $this->page(self::SHEET.'?layout=1'));
        self::assertMatchesRegularExpression('~class="item lacks[^"]*" id="item-link_quality"~', $this->page(self::SHEET.'?layout=1'));
    }

    public function testAnotherRasterSaysWhatMoves(): void
    {
        $this->link('bittern');
        $this->post('/craft/bittern/overlay/put', ['layout' => '1', 'item' => 'throttle', 'column' => '10', 'row' => '13']);
        $said = $this->post('/craft/bittern/overlay/raster', ['raster' => 'lines_525']);
        self::assertStringContainsString('Staged', (string) json_encode($said));
        self::assertStringContainsString('data-rows="12"', $this->page(self::SHEET));
        self::assertSame('1:10,10', $this->cells('throttle'), 'as far from the lower edge');
        $this->post('/craft/bittern/overlay/raster', ['raster' => 'round'], 422);
        $this->post('/craft/bittern/overlay/raster', ['raster' => 'digital']);
        self::assertStringContainsString('data-columns="46"', $this->page(self::SHEET));
    }

    public function testLayoutsAreAddedShownAndTakenAway(): void
    {
        $this->link('bittern');
        $this->post('/craft/bittern/overlay/layout', ['layout' => '1', 'add' => '1']);
        self::assertSame('1:always 2:disarmed 3:armed', $this->set('overlay.layouts'));
        self::assertStringContainsString('3:1,1', $this->cells('pack_voltage'), 'it begins as the one that was looked at');
        $this->post('/craft/bittern/overlay/layout', ['layout' => '3', 'when' => 'pack_low']);
        self::assertSame('1:always 2:disarmed 3:pack_low', $this->set('overlay.layouts'));
        $this->post('/craft/bittern/overlay/layout', ['layout' => '3', 'away' => '1']);
        self::assertSame('1:always 2:disarmed', $this->set('overlay.layouts'));
        self::assertStringNotContainsString('3:', $this->cells('pack_voltage'));
        self::assertSame('layout', $this->post('/craft/bittern/overlay/layout', ['layout' => '1', 'away' => '1'], 422)['field']);
    }

    public function testAnotherCraftsLayoutIsCopiedOntoThisRaster(): void
    {
        $this->link();
        $this->link('bittern');
        $this->post('/craft/bittern/overlay/copy', ['from' => 'curlew']);
        self::assertSame('1:always', $this->set('overlay.layouts'));
        self::assertSame('1:21,1', $this->cells('flight_time'), 'as far from the right edge of 28 columns as it was on 46');
        self::assertSame('', $this->cells('horizon'), 'what the other has not is gone');
        $this->post('/craft/bittern/overlay/copy', ['from' => 'nobody'], 404);
    }

    public function testAWrongSourceIsFoundAndMended(): void
    {
        $this->link('bittern');
        $this->move('bittern', 'pack', '1');
        usleep(30_000);
        $this->json('/craft/bittern/overlay/now.json?layout=2');
        $this->json('/craft/bittern/overlay/now.json?layout=2');
        $page = $this->page(self::SHEET);
        self::assertSays(SourceVerdict::Wrong, $page);
        self::assertStringContainsString('is not the pack’s', $page);
        $this->move('bittern', 'pack_used', '0.85');
        $this->json('/craft/bittern/overlay/now.json?layout=2');
        self::assertStringContainsString('stands still', $this->page(self::SHEET));
        $this->post('/craft/bittern/overlay/source', ['from' => 'pack']);
        $this->post('/craft/bittern/commit', ['reason' => 'the true source']);
        usleep(30_000);
        $this->json('/craft/bittern/overlay/now.json?layout=2');
        $this->move('bittern', 'pack_used', '0.1');
        $this->json('/craft/bittern/overlay/now.json?layout=2');
        self::assertSays(SourceVerdict::Follows, $this->page(self::SHEET));
    }

    public function testFirmwareThatSuitsIsWrittenAndOtherRefused(): void
    {
        $this->link('bittern');
        self::assertStringContainsString('does not suit the board’s', $this->page(self::SHEET));
        foreach (['scry-1.3' => 'does not suit', 'scry-d-2.0' => 'It is for a Scry D', 'scry-9' => 'no image'] as $image => $why) {
            $job = $this->job('write_chip', ['image' => $image], 'bittern');
            self::assertSame(JobState::Failed, $job->state);
            self::assertStringContainsString($why, $job->message);
        }
        $job = $this->job('write_chip', ['image' => 'scry-2.0'], 'bittern');
        self::assertSame(JobState::Done, $job->state, $job->message);
        self::assertSame('2.0.0', $job->result['version'] ?? '');
        self::assertStringContainsString('it suits Loam 26.01', $this->page(self::SHEET));
        $now = $this->json('/craft/bittern/overlay/now.json?layout=2');
        self::assertTrue($now['live'] ?? false);
        self::assertSame('NO RADIO', trim($now['rows']['warnings'][0] ?? ''));
    }

    public function testLettersAreWrittenReadAndPutIntoTheChip(): void
    {
        $this->link('bittern');
        $this->browser->request('GET', '/craft/bittern/overlay/letters.txt');
        $text = (string) $this->browser->getResponse()->getContent();
        self::assertEquals(Font::shipped(), Font::read($text));
        $path = (string) tempnam(sys_get_temp_dir(), 'font');
        file_put_contents($path, str_replace('glyph 65', 'glyph 200', $text));
        $this->browser->request(
            'POST',
            '/craft/bittern/overlay/letters',
            files: ['letters' => new UploadedFile($path, 'mine.txt', test: true)],
        );
        self::assertLessThan(400, $this->browser->getResponse()->getStatusCode());
        self::assertStringContainsString('A set of your own', $this->page(self::SHEET));
        $bad = $this->post('/craft/bittern/overlay/letters', ['text' => "nonsense\nglyph 1"], 422);
        self::assertSame('letters', $bad['field']);
        self::assertStringContainsString('A set of your own', $this->page(self::SHEET), 'nothing was changed by it');
        $job = $this->job('write_chip', ['image' => ''], 'bittern');
        self::assertSame(JobState::Done, $job->state, $job->message);
        $this->post('/craft/bittern/overlay/letters', ['text' => '']);
        self::assertStringContainsString('The shipped set', $this->page(self::SHEET));
    }

    private function set(string $name): string
    {
        return self::getContainer()->get(\Ortholex\App\Settings\Staging::class)->preview($this->craft('bittern'))->text($name);
    }

    private function cells(string $item): string
    {
        return $this->set(OverlayItem::from($item)->setting());
    }
}
