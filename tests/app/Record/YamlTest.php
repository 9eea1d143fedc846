<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Record;

use Ortholex\App\Settings\File\YamlText;
use Ortholex\Tests\app\AppCase;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpFoundation\File\UploadedFile;

/** Settings as text: every fault has its line and column, and what comes after a fault is read all the same. */
final class YamlTest extends AppCase
{
    /** @return iterable<string, array{string, array<string, mixed>, list<string>}> text, values, problems */
    public static function texts(): iterable
    {
        yield 'plain' => [
            "gain.roll.p: 30\n\n# a word\nmotors.rpm_feedback: true\n",
            ['gain.roll.p' => 30, 'motors.rpm_feedback' => true],
            [],
        ];
        yield 'from elsewhere' => ["\xEF\xBB\xBFgain.roll.p: 30\r\ngain.roll.d: 2.5\r", ['gain.roll.p' => 30, 'gain.roll.d' => 2.5], []];
        yield 'quoted, listed, a document' => [
            "---\n\"gain.roll.p\": '30'\nnotch.motor.orders: [1, 2]\n...\n",
            ['gain.roll.p' => '30', 'notch.motor.orders' => [1, 2]],
            [],
        ];
        yield 'numbers that are choices' => ["motors.loop_rate_hz: 4000\nuart.1.baud: 100000", [
            'motors.loop_rate_hz' => 4000,
            'uart.1.baud' => 100000,
        ], []];
        yield 'no colon' => ["gain.roll.p 30\ngain.roll.d: 2", ['gain.roll.d' => 2], [
            'Line 1, column 15: the colon after the name of the setting is missing.',
        ]];
        yield 'no space' => ['gain.roll.p:30', [], ['Line 1, column 13: a space is missing after the colon.']];
        yield 'a tab' => ["\tgain.roll.p: 30", [], ['Line 1, column 1: a tab stands before the name; YAML wants spaces, or nothing.']];
        yield 'a list' => ["- gain.roll.p\n", [], [
            'Line 1, column 1: this is an item of a list; each line should be a setting, a colon and a value.',
        ]];
        yield 'an open list' => ["a: 1\nnotch.motor.orders: [1, 2\nb: 2", ['a' => 1, 'b' => 2], [
            'Line 2, column 21: the list is not closed as it should be.',
        ]];
        yield 'an open quote' => ["a: 'x\nb: 2", ['b' => 2], ['Line 1, column 4: the quotation mark is not closed.']];
        yield 'an open mapping' => ['a: {x: 1', [], ['Line 1, column 4: the mapping is not closed as it should be.']];
        yield 'no value' => ["a:\nb: ~", [], ['Line 1, column 3: a has no value.', 'Line 2, column 4: b has no value.']];
        yield 'twice' => ["a: 1\nb: 2\na: 3", ['a' => 1, 'b' => 2], ['Line 3, column 1: a stands in line 1 already.']];
        yield 'a sentence' => ['the gain of roll: 30', [], ['Line 1, column 1: the name of one setting should stand before the colon.']];
        yield 'many at once' => ["a 1\nb: 2\nc:3\nd: [", ['b' => 2], [
            'Line 1, column 4: the colon after the name of the setting is missing.',
            'Line 3, column 3: a space is missing after the colon.',
            'Line 4, column 4: the list is not closed as it should be.',
        ]];
        yield 'nothing' => ["\n# only words\n", [], []];
    }

    /**
     * @param array<string, mixed> $values
     * @param list<string>         $problems
     */
    #[DataProvider('texts')]
    public function testEachLineIsReadByItself(string $text, array $values, array $problems): void
    {
        $read = YamlText::read($text);
        self::assertSame($values, $read->values);
        self::assertSame($problems, $read->problems);
        self::assertSame(array_keys($values), array_keys($read->lines));
    }

    public function testTheHeadNamesTheRelease(): void
    {
        self::assertSame('25.08', YamlText::read("# Curlew, Quern F7, Loam 25.08, revision 3\na: 1")->release?->toString());
        self::assertNull(YamlText::read("# Curlew\na: 1")->release);
        self::assertNull(YamlText::read('a: Loam 25.08')->release);
    }

    public function testAllFaultsAreListedWithTheirLinesAndNothingIsStaged(): void
    {
        $this->link();
        $text = "gain.roll.p: 30\ngain.roll.d: 900\ngain.roll.q: 1\nmotors.rpm_feedback: perhaps\nfoo 3\n";
        $problem = $this->post('/craft/curlew/settings.yaml', ['yaml' => $text], 422);
        $error = \is_string($problem['error'] ?? null) ? $problem['error'] : '';
        self::assertStringStartsWith('Nothing was staged. Line 2: gain.roll.d', $error);
        foreach (['Line 3: gain.roll.q', 'Line 4: motors.rpm_feedback', 'Line 5, column 6: the colon'] as $said) {
            self::assertStringContainsString($said, $error);
        }
        self::assertSame([], $this->staged($this->craft()));
        $many = implode("\n", array_map(static fn (int $i): string => "none.$i: 1", range(1, 13)));
        $problem = $this->post('/craft/curlew/settings.yaml', ['yaml' => $many], 422);
        self::assertStringEndsWith('And 5 more.', \is_string($problem['error'] ?? null) ? $problem['error'] : '');
    }

    public function testNumbersAreTakenWhereChoicesAreNumbers(): void
    {
        $this->link();
        $this->post('/craft/curlew/settings.yaml', ['yaml' => "motors.loop_rate_hz: 4000\nnotch.tracking.band_hz: 100 to 300\n"]);
        self::assertEquals(['motors.loop_rate_hz' => '4000', 'notch.tracking.band_hz' => '100,300'], $this->staged($this->craft()));
    }

    public function testWhatWasWrittenOutComesInAgainWithEscsAndAll(): void
    {
        $this->post('/craft/curlew/bench', ['thing' => 'cable', 'to' => '1']);
        $this->post('/craft/curlew/link');
        $this->post('/craft/curlew/bench', ['thing' => 'pack', 'to' => '1']);
        $this->post('/craft/curlew/escs/read');
        $this->browser->request('GET', '/craft/curlew/settings.yaml');
        $yaml = (string) $this->browser->getResponse()->getContent();
        self::assertStringContainsString('esc.front_left.advance_deg: ', $yaml);
        $this->post('/craft/curlew/settings.yaml', ['yaml' => $yaml]);
        self::assertSame([], $this->staged($this->craft()), 'nothing differs');
        $changed = (string) preg_replace('~^(esc\.front_left\.tone_loudness_pct: ).*$~m', '${1}45', $yaml);
        $this->post('/craft/curlew/settings.yaml', ['yaml' => $changed]);
        self::assertEquals(['esc.front_left.tone_loudness_pct' => 45.0], $this->staged($this->craft()));
        $html = $this->page('/craft/curlew/71?all=1');
        self::assertStringContainsString('esc.front_left.tone_loudness_pct', $html);
        self::assertStringContainsString('esc.front_left.tone_loudness_pct', $this->page('/craft/curlew/find?words=tone'));
    }

    public function testSettingsOfAnotherReleaseAreCarriedWithTheirFates(): void
    {
        $this->link();
        self::assertSame('26.01', $this->craft()->version);
        $said = $this->post('/craft/curlew/settings.yaml', [
            'yaml' => "# Curlew, Quern F7, Loam 25.02, revision 0\nmotors.idle_permille: 62\ngain.roll.p: 30\nlink_loss.tone: true\n",
        ])['said'] ?? '';
        self::assertIsString($said);
        self::assertStringContainsString('3 settings were read and carried from Loam 25.02 to 26.01', $said);
        self::assertStringContainsString('1 converted', $said);
        $staged = $this->staged($this->craft());
        self::assertEquals(6.2, $staged['motors.idle_pct'] ?? null);
        self::assertEquals(30.0, $staged['gain.roll.p'] ?? null);
    }

    public function testAFileIsReadLikePastedText(): void
    {
        $this->link();
        $path = self::data().'/mine.yaml';
        file_put_contents($path, "gain.roll.p: 31\n");
        $this->browser->request(
            'POST',
            '/craft/curlew/settings.yaml',
            ['yaml' => ''],
            ['file' => new UploadedFile($path, 'mine.yaml', 'application/yaml', test: true)],
            ['CONTENT_TYPE' => 'multipart/form-data', 'HTTP_ACCEPT' => 'application/json'],
        );
        self::assertSame(200, $this->browser->getResponse()->getStatusCode(), (string) $this->browser->getResponse()->getContent());
        self::assertEquals(['gain.roll.p' => 31.0], $this->staged($this->craft()));
    }
}
