<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Command;

/** Sheet 22 through its forms. */
final class FeelTest extends CommandCase
{
    public function testTheTestFeelIsRememberedUntilItIsBack(): void
    {
        $this->link();
        $before = $this->craft()->settings->where(static fn (string $n): bool => str_starts_with($n, 'feel.'))->toArray();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.ff' => '1.5']]);
        $this->post('/craft/curlew/commit', ['reason' => 'sharp']);
        $this->post('/craft/curlew/feel/test');
        self::assertSame(330.0, $this->staged($this->craft())['feel.roll.full_dps']);
        $this->post('/craft/curlew/commit', ['reason' => 'for logs']);
        self::assertStringContainsString('The test feel is still on', $this->page('/'));
        // Put on twice, what stood before the first is what comes back.
        $this->post('/craft/curlew/feel/test');
        $this->post('/craft/curlew/feel/back');
        $this->post('/craft/curlew/commit', ['reason' => 'back']);
        $this->entities()->clear();
        foreach ($before as $name => $value) {
            self::assertSame($value, $this->craft()->settings[$name]);
        }
        self::assertSame(1.5, $this->craft()->settings['gain.roll.ff']);
        self::assertStringNotContainsString('test feel is still on', $this->page('/'));
        self::assertSame([], $this->craft()->putBack);
    }

    public function testATestFeelThatWasNeverCommittedIsForgotten(): void
    {
        $this->link();
        $this->post('/craft/curlew/feel/test');
        $this->post('/craft/curlew/discard');
        $this->page('/');
        $this->entities()->clear();
        self::assertSame([], $this->craft()->putBack);
    }

    public function testAFeelIsCopiedFromAnotherCraftAndFromASnapshot(): void
    {
        $this->link('bittern');
        $this->post('/craft/bittern/stage', ['values' => ['feel.roll.full_dps' => '444']]);
        $this->post('/craft/bittern/commit', ['reason' => 'other']);
        $this->link();
        $html = $this->page('/craft/curlew/22?from=craft:bittern');
        self::assertStringContainsString('Bittern, as last read', $html);
        self::assertStringContainsString('&quot;beside&quot;:{', $html);
        $this->post('/craft/curlew/feel/copy', ['from' => 'craft:bittern']);
        self::assertSame(['feel.roll.full_dps' => 444.0], $this->staged($this->craft()));
        self::assertSame('from', $this->post('/craft/curlew/feel/copy', ['from' => 'craft:nobody'], 422)['field']);
    }

    public function testCurvesOfWhatIsDraggedAreGivenAndNothingIsStagedByThem(): void
    {
        $this->link();
        $curves = $this->json('/craft/curlew/feel/curves.json?values[feel.roll.full_dps]=900');
        self::assertIsArray($curves['feel'] ?? null);
        self::assertIsArray($curves['feel']['roll']);
        self::assertEquals([100.0, 900.0], \array_slice($curves['feel']['roll'][50], 0, 2));
        self::assertSame([], $this->staged($this->craft()));
        $low = '/craft/curlew/feel/curves.json?values[feel.roll.full_dps]=200';
        $this->browser->request('GET', $low, server: ['HTTP_ACCEPT' => 'application/json']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('must rise', (string) $this->browser->getResponse()->getContent());
    }

    public function testHoverIsToldFromTheLastLog(): void
    {
        $this->link();
        $this->ready();
        $this->flown('hover_and_climb', 5, 40);
        $html = $this->page('/craft/curlew/22');
        self::assertMatchesRegularExpression('~it hovers at <span class="fig">(29|30|31|32) ± \d %~', $html);
        self::assertStringContainsString('on a standard move', $html, 'in its middle this card hardly moves the roll stick');
    }
}
