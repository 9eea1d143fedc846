<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextSteps;
use Symfony\Component\Process\Process;

/** A sheet that stands in one folder of its own is found everywhere, and touches nothing else. */
final class PlugInTest extends AppCase
{
    public function testItStandsAsATabAmongTheOthersOfItsPart(): void
    {
        $page = $this->page('/craft/curlew/21');
        self::assertMatchesRegularExpression('~href="/craft/curlew/24"[^>]*title="Shows that a sheet plugs in by its folder."~', $page);
        self::assertStringContainsString('<i>7</i>', $page, 'the mark of its part');
        self::assertStringContainsString('data-number="24"', $page, 'two digits lead to it');
        self::assertStringContainsString('Curlew has it.', $this->page('/craft/curlew/24'));
    }

    public function testItIsFoundBySearch(): void
    {
        $hits = array_column($this->json('/craft/curlew/search.json'), 'to', 'name');
        self::assertSame('/craft/curlew/24', $hits['24 Toy'] ?? null);
        self::assertSame('/craft/curlew/24', $hits['Play with the toy'] ?? null);
        self::assertStringContainsString('Play with the toy', $this->page('/craft/curlew/find?words=toy'), 'without scripts too');
    }

    public function testItTellsOfTheMoment(): void
    {
        self::assertSame('the toy of Curlew', $this->json('/craft/curlew/live.json')['toy'] ?? null);
    }

    public function testItStandsAmongTheNextSteps(): void
    {
        $steps = self::getContainer()->get(NextSteps::class)->of($this->craft());
        self::assertContains('/craft/curlew/24', array_map(static fn (NextStep $s): string => $s->to, $steps));
        self::assertStringContainsString('The toy wants to be played with.', $this->page('/'));
    }

    public function testItSaysInTheTrayWhatACommitWouldDo(): void
    {
        $this->link();
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 30]]);
        self::assertMatchesRegularExpression('~joy: <span class="fig"> ?1 → 2 grins~', $this->page('/craft/curlew/61'));
    }

    public function testItsScriptIsFoundByTheNameOfItsFolder(): void
    {
        $root = \dirname(__DIR__, 2);
        $code = "import { sheets } from '$root/assets/sheets.mjs'; ".
            "console.log(JSON.stringify(sheets('$root/assets', '$root/tests/app/Toy/assets')))";
        $node = new Process(['node', '--input-type=module', '-e', $code]);
        $node->mustRun();
        $found = json_decode($node->getOutput(), true);
        self::assertIsArray($found);
        self::assertContains("$root/tests/app/Toy/assets/toy/toy.js", $found['scripts']);
        self::assertContains("$root/assets/gains/gains.js", $found['scripts']);
        self::assertNotContains("$root/assets/shell/shell.js", $found['scripts']);
    }
}
