<?php

declare(strict_types=1);

namespace Ortholex\Tests\core;

use Ortholex\Tests\House\House;
use PHPUnit\Framework\TestCase;

/** The measures of the house find what they are there to find: a small house with every fault in it. */
final class HouseTest extends TestCase
{
    private string $root;

    protected function setUp(): void
    {
        $this->root = sys_get_temp_dir().'/house-'.bin2hex(random_bytes(6));
        $uses = 'use Ortholex\Core\High\Whole; class Part { function of(): Whole {} }';
        $this->put('core/Low/Part.php', "namespace Ortholex\\Core\\Low; $uses");
        $this->put('core/High/Whole.php', 'namespace Ortholex\Core\High; class Whole { public \Ortholex\Core\Low\Part $part; }');
    }

    protected function tearDown(): void
    {
        exec('rm -rf '.escapeshellarg($this->root));
    }

    public function testARingOfFoldersIsFoundWithItsFiles(): void
    {
        $rings = House::at($this->root)->cycles('core');
        self::assertCount(2, $rings);
        self::assertStringContainsString('Part.php', implode(' ', $rings));
        $this->put('core/High/Whole.php', 'namespace Ortholex\Core\High; class Whole {}');
        self::assertSame([], House::at($this->root)->cycles('core'), 'one way is no ring');
    }

    public function testARoomMayBeCalledOtherwiseInNamespaces(): void
    {
        $this->put('src/One/A.php', 'namespace Ortholex\App\One; use Ortholex\App\Two\B; class A { public B $b; }');
        $this->put('src/Two/B.php', 'namespace Ortholex\App\Two; class B { public \Ortholex\App\One\A $a; }');
        self::assertSame([], House::at($this->root)->cycles('src'));
        self::assertCount(2, House::at($this->root)->cycles('src', 'App'));
    }

    public function testAFamilyThatKnowsAnotherIsFoundAndOneThatUsesWhatIsSharedIsNot(): void
    {
        $this->put('src/Gains/A.php', 'namespace Ortholex\App\Gains; class A { public \Ortholex\App\Book\Craft $c; }');
        self::assertSame([], House::at($this->root)->familiesThatKnowEachOther('src', 'Ortholex\App', ['Book']));
        $this->put('src/Noise/B.php', 'namespace Ortholex\App\Noise; class B { public \Ortholex\App\Gains\A $a; }');
        $this->put('src/Book/C.php', 'namespace Ortholex\App\Book; class C { public \Ortholex\App\Gains\A $a; }');
        $this->put('src/SetUp/D.php', 'namespace Ortholex\App\SetUp; class D { public \Ortholex\App\Gains\A $a; }');
        self::assertSame(
            ['src/Book/C.php uses Gains', 'src/Noise/B.php uses Gains'],
            House::at($this->root)->familiesThatKnowEachOther('src', 'Ortholex\App', ['Book'], ['SetUp']),
        );
    }

    public function testCrowdedFoldersAndLongLinesAreCounted(): void
    {
        for ($i = 0; $i < House::MOST_FILES; ++$i) {
            $this->put("core/Low/File$i.php", 'namespace Ortholex\Core\Low;');
        }
        self::assertSame(['core/Low has 15 files'], House::at($this->root)->crowded('core'));
        self::assertSame([], House::at($this->root)->longLines('core'));
        $this->put('core/High/Long.php', '// '.str_repeat('µ', 138));
        self::assertSame(['core/High/Long.php:2 has 141 characters'], House::at($this->root)->longLines('core'));
    }

    public function testALongFunctionWantsAReason(): void
    {
        $body = str_repeat("\n++\$i;", 60);
        $a = "/** Long because it counts. */ function a(\$i) {{$body}}";
        $this->put('core/Low/Long.php', "class A { $a function b(\$i) {{$body}} function c() {} }");
        self::assertSame(
            ['core/Low/Long.php::a, 61 lines' => 'it counts', 'core/Low/Long.php::b, 61 lines' => ''],
            House::at($this->root)->longFunctions('core'),
        );
    }

    public function testStringsForKindsAreFoundAndLoneNamesAreNot(): void
    {
        $this->put('core/Low/Kinds.php', "class A { const RED = 'red'; const GREEN = 'green'; }");
        $this->put('core/Low/Name.php', "class B { const COLUMN = 'column'; const FORMAT = '%d'; }");
        $union = "/** @param 'in'|'out' \$way */";
        $this->put('core/Low/Union.php', "class C { $union function c(\$way) { return 'in' === \$way || \$way !== '%'; } }");
        $this->put('core/Low/Match.php', "class D { function d(\$x) { return match (\$x) { 'one' => 1, '2' => 2 }; } }");
        $kinds = implode("\n", House::at($this->root)->stringKinds('core'));
        foreach (['A::RED', 'A::GREEN', "'in'|'out'", 'compares with “in”', 'matches “one”'] as $found) {
            self::assertStringContainsString($found, $kinds);
        }
        self::assertCount(5, House::at($this->root)->stringKinds('core'), $kinds);
    }

    public function testSentencesAndSheetsAreFoundButInExceptions(): void
    {
        $said = "['The pack is off.', 'two words', 'see sheet 12', '53', '80']";
        $this->put('core/Low/Says.php', "class A { function a() { return $said; } }");
        $this->put('core/Low/AError.php', "class AError extends \\RuntimeException { function a() { return 'The pack is off.'; } }");
        self::assertSame(['core/Low/Says.php:2 “The pack is off.”'], House::at($this->root)->sentences('core'));
        self::assertCount(2, House::at($this->root)->sheets('core'));
    }

    private function put(string $path, string $code): void
    {
        @mkdir(\dirname("$this->root/$path"), 0o775, true);
        file_put_contents("$this->root/$path", "<?php\n$code\n");
    }
}
