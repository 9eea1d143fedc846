<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Book\Sheet\Sheets;
use PHPUnit\Framework\Attributes\DataProvider;

/** What holds of every sheet of every craft, linked or not, with logs or without. */
final class SheetsTest extends AppCase
{
    private const BUILT = [
        ...['11', '12', '12/escs', '13', '14', '15', '16'],
        ...['21', '22', '23'],
        ...['31', '32', '33'],
        ...['41', '42', '43'],
        ...['51', '52', '53', '54', '55'],
        ...['61', '62', '63', '71', '72', '73'],
    ];

    /** @return iterable<string, array{string, string}> craft and state */
    public static function states(): iterable
    {
        foreach (['curlew', 'bittern', 'dunlin'] as $slug) {
            foreach (['never linked', 'linked', 'let go', 'powered'] as $state) {
                yield "$slug, $state" => [$slug, $state];
            }
        }
    }

    #[DataProvider('states')]
    public function testEverySheetHoldsTogetherInWhateverState(string $slug, string $state): void
    {
        $this->bring($slug, $state);
        $links = $forms = [];
        foreach (self::BUILT as $sheet) {
            $html = $this->page("/craft/$slug/$sheet");
            self::answers($sheet, $html);
            self::namesAndLabelsMeet($sheet, $html);
            $links += array_fill_keys(self::found('~<a\s[^>]*href="(/[^"#]*)~', $html), $sheet);
            $forms += array_fill_keys(self::found('~<form\s[^>]*action="([^"]*)"~', $html), $sheet);
        }
        self::assertGreaterThan(20, \count($links));
        foreach ($links as $to => $sheet) {
            // Followed in the one state that has them nearly all.
            if ('linked' === $state && !str_contains($to, '/build/')) {
                $this->browser->request('GET', $to);
                self::assertContains($this->browser->getResponse()->getStatusCode(), [200, 303], "$to, linked to on $sheet");
            }
        }
        $router = self::getContainer()->get('router');
        foreach ($forms as $to => $sheet) {
            $path = (string) parse_url($to, \PHP_URL_PATH);
            $router->getContext()->setMethod(1 === preg_match('~^/craft/\w+/(find|\d\d(/.*)?)$~', $path) ? 'GET' : 'POST');
            self::assertArrayHasKey('_route', $router->match($path), "$to on $sheet");
        }
    }

    private static function answers(string $sheet, string $html): void
    {
        self::assertSame(1, preg_match_all('~<h1[ >]~', $html), "$sheet has one answer");
        self::assertDoesNotMatchRegularExpression('~<h1[^>]*>\s*</h1>~', $html, "$sheet says something");
        self::assertSame(1, preg_match_all('~<main[ >]~', $html), $sheet);
        self::assertDoesNotMatchRegularExpression('~\{\{|\}\}|\bArray\b|\bNAN\b|\bINF\b|Warning: ~', self::shown($html), $sheet);
    }

    private static function namesAndLabelsMeet(string $sheet, string $html): void
    {
        $ids = self::found('~\sid="([^"]+)"~', $html);
        $twice = array_keys(array_filter(array_count_values($ids), static fn (int $n): bool => $n > 1));
        self::assertSame([], $twice, "$sheet: ids that stand twice");
        self::assertSame([], array_values(array_diff(self::found('~\sfor="([^"]+)"~', $html), $ids)), "$sheet: labels of nothing");
        foreach (self::found('~\s(?:aria-labelledby|aria-describedby|aria-controls)="([^"]+)"~', $html) as $refers) {
            self::assertSame([], array_values(array_diff(explode(' ', $refers), $ids)), "$sheet: referred to, and not there");
        }
    }

    /** @return list<string> what a pattern's bracket takes */
    private static function found(string $pattern, string $html): array
    {
        preg_match_all($pattern, $html, $found);

        return array_map(html_entity_decode(...), $found[1]);
    }

    public function testEveryBuiltSheetIsOfferedAndNoOther(): void
    {
        $sheets = self::getContainer()->get(Sheets::class);
        $built = [];
        foreach ($sheets->all() as $sheet) {
            // 24 is the toy that tests plug in.
            if ($sheet->built && '24' !== $sheet->number) {
                $built[] = $sheet->number;
            }
        }
        self::assertEqualsCanonicalizing(array_values(array_diff(self::BUILT, ['12/escs'])), $built);
    }

    public function testDigitsOfNoSheetSaySo(): void
    {
        self::assertStringContainsString('The book has no sheet 99.', $this->page('/craft/curlew/99', 404));
    }

    private function bring(string $slug, string $state): void
    {
        if ('never linked' === $state) {
            return;
        }
        $this->link($slug);
        if ('let go' === $state) {
            $this->post("/craft/$slug/let-go");
        }
        if ('powered' === $state) {
            foreach (['props' => '0', 'pack' => '1', 'props_declared_off' => '1'] as $thing => $to) {
                $this->world($slug)->move($thing, $to);
            }
        }
    }

    /** What a person reads: without tags and without the data of drawings. */
    private static function shown(string $html): string
    {
        return strip_tags((string) preg_replace('~<(script|style|svg)\b.*?</\1>~s', '', $html));
    }
}
