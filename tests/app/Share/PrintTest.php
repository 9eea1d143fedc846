<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Share;

use Ortholex\App\Book\Sheet\Sheet;
use Ortholex\App\Book\Sheet\Sheets;
use Ortholex\Tests\app\AppCase;

/** The whole book on paper: every sheet once, and only on our own page. */
final class PrintTest extends AppCase
{
    public function testEverySheetIsALeafAndTheSettingsAreAList(): void
    {
        $this->link();
        $page = $this->page('/craft/curlew/book/print');
        preg_match_all('~data-leaf="([^"]+)"~', $page, $leaves);
        $sheets = array_filter(self::getContainer()->get(Sheets::class)->all(), static fn (Sheet $s): bool => $s->built);
        self::assertCount(\count($sheets) - 1, $leaves[1], 'all but the list of settings');
        foreach ($leaves[1] as $leaf) {
            $sheet = $this->page($leaf);
            self::assertStringNotContainsString('data-live="{', $sheet, "$leaf asks for nothing new");
            self::assertMatchesRegularExpression('~<body class="book +leaf"~', $sheet);
            self::assertStringContainsString("frame-ancestors 'self'", $this->policy());
        }
        $craft = $this->craft();
        self::assertGreaterThan(200, \count($craft->settings));
        self::assertSame(\count($craft->settings), substr_count(strstr($page, 'leaf-list') ?: '', '<li>'));
        self::assertStringContainsString('33.0 % per 100 deg/s', $page);
    }

    public function testASheetThatIsNoLeafStandsInNoFrameAndAsksForWhatIsNew(): void
    {
        $sheet = $this->page('/craft/curlew/11');
        self::assertStringContainsString('data-live="{', $sheet);
        self::assertStringContainsString("frame-ancestors 'none'", $this->policy());
        self::assertStringContainsString('/craft/curlew/book/print', $this->page('/craft/curlew/book'));
    }

    public function testACraftThatWasNeverReadHasABookToo(): void
    {
        self::assertStringContainsString('Nothing was read from this craft yet.', $this->page('/craft/dunlin/book/print'));
    }

    private function policy(): string
    {
        return (string) $this->browser->getResponse()->headers->get('Content-Security-Policy');
    }
}
