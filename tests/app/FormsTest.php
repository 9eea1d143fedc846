<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\Shell\Asker;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/** Every action is a form: it goes back to its page, says what was done, and a refusal names its field. */
final class FormsTest extends AppCase
{
    private const HOST = 'http://127.0.0.1:8787';

    /** @return iterable<string, array{string, array<string, mixed>, string}> action, fields, what is said */
    public static function actions(): iterable
    {
        yield 'a fault' => ['bench/faults', ['faults' => ['loose_arm' => 'on']], ''];
        yield 'hands on the motors' => ['bench/swap', ['a' => 'front_left', 'b' => 'rear_left'], 'Swapped on the desk.'];
        yield 'ready to fly' => ['bench/ready', [], ''];
        yield 'a value' => ['stage', ['values' => ['gain.roll.p' => '30']], ''];
        yield 'all taken back' => ['discard', [], ''];
        yield 'a snapshot' => ['snapshots', ['name' => 'as it is'], 'Snapshot “as it is” was taken from the board.'];
        yield 'settings as YAML' => ['settings.yaml', ['yaml' => 'gain.roll.p: 30'], '1 setting was read; what differs is staged.'];
        yield 'a pose' => ['frame/pose', ['pose' => 'level'], ''];
        yield 'level' => ['frame/level', [], 'off level'];
        yield 'a custom frame' => ['frame/layout', ['layout' => 'custom'], ''];
        yield 'a wire' => ['wiring/draw', ['what' => 'wire', 'from' => 'rill-c.tx', 'to' => 'RX2'], ''];
        yield 'a motor that was seen' => ['motors/answer', ['pad' => '1', 'place' => 'front_left', 'direction' => '-1'], ''];
        yield 'all shown again' => ['motors/again', [], ''];
        yield 'motors swapped' => ['motors/swapped', ['weak' => 'front_left', 'with' => 'rear_left'], 'Raise all outputs again'];
        yield 'unlinked' => ['let-go', [], 'Unlinked.'];
    }

    /** @param array<string, mixed> $fields */
    #[DataProvider('actions')]
    public function testItGoesBackToItsPageAndSaysWhatWasDone(string $action, array $fields, string $said): void
    {
        $this->link();
        $response = $this->form("/craft/curlew/$action", $fields, self::HOST.'/craft/curlew/61?log=3');
        self::assertSame(Response::HTTP_SEE_OTHER, $response->getStatusCode(), (string) $response->getContent());
        self::assertSame('/craft/curlew/61?log=3', $response->headers->get('Location'));
        $told = $this->browser->getCookieJar()->get('said')?->getValue() ?? '';
        self::assertStringContainsString($said, $told);
        if ('' !== $said) {
            self::assertStringContainsString($said, html_entity_decode($this->page('/craft/curlew/61'), \ENT_QUOTES), 'the page says it');
            self::assertStringContainsString('data-said=""', $this->page('/craft/curlew/61'), 'once');
        }
    }

    /** @return iterable<string, array{string, array<string, mixed>, string, int}> action, fields, the field that is named, status */
    public static function refusals(): iterable
    {
        yield 'a value out of range' => ['stage', ['values' => ['gain.roll.p' => '900']], 'gain.roll.p', 422];
        yield 'a setting there is not' => ['stage', ['values' => ['gain.roll.q' => '9']], 'gain.roll.q', 422];
        yield 'a snapshot without a name' => ['snapshots', ['name' => ''], 'name', 422];
        yield 'no YAML' => ['settings.yaml', ['yaml' => "a: [b\nc: d"], 'yaml', 422];
        yield 'no such pose' => ['frame/pose', ['pose' => 'sideways'], 'pose', 422];
        yield 'no such place of an arm' => ['frame/arm', ['place' => 'middle'], 'place', 422];
        yield 'a wire to nowhere' => ['wiring/draw', ['what' => 'wire', 'from' => 'rill-c.tx', 'to' => 'moon'], 'to', 422];
        yield 'a thing there is not' => ['bench', ['thing' => 'moon', 'to' => '1'], 'thing', 422];
        yield 'places there are not' => ['bench/swap', ['a' => 'moon', 'b' => 'rear_left'], 'thing', 422];
        yield 'a card there is not' => ['logs/fly', ['card' => 'loops'], 'card', 422];
        yield 'no file' => ['logs/import', ['upload' => ''], 'upload', 422];
        yield 'no HEX' => ['firmware/from-disk', [], 'upload', 422];
        yield 'nothing staged' => ['commit', ['reason' => '', 'seen' => '0'], 'tray', 422];
        yield 'no such motor' => ['motors/answer', ['pad' => '9', 'place' => 'front_left', 'direction' => '1'], 'pad', 422];
        yield 'no row of that name' => ['escs/all', ['key' => 'colour', 'value' => 'red'], 'key', 422];
    }

    /** @param array<string, mixed> $fields */
    #[DataProvider('refusals')]
    public function testARefusalIsShownWhereItBelongsAndChangesNothing(string $action, array $fields, string $field, int $status): void
    {
        $this->link();
        $response = $this->form("/craft/curlew/$action", $fields, self::HOST.'/craft/curlew/61', Asker::STREAM.', text/html');
        self::assertSame($status, $response->getStatusCode(), (string) $response->getContent());
        self::assertStringStartsWith(Asker::STREAM, (string) $response->headers->get('Content-Type'));
        self::assertStringContainsString("action=\"problem\" field=\"$field\"", (string) $response->getContent());
        self::assertSame([], $this->staged($this->craft()));
    }

    /** @param array<string, mixed> $fields */
    #[DataProvider('refusals')]
    public function testWithoutScriptsItIsAPageThatLeadsBack(string $action, array $fields, string $field, int $status): void
    {
        $this->link();
        $response = $this->form("/craft/curlew/$action", $fields, self::HOST.'/craft/curlew/61');
        self::assertSame($status, $response->getStatusCode());
        self::assertStringContainsString('href="/craft/curlew/61"', (string) $response->getContent());
        self::assertStringContainsString('nothing was changed by this', (string) $response->getContent());
        // The same in JSON, for other programs.
        self::assertSame($field, $this->post("/craft/curlew/$action", $fields, $status)['field'] ?? null);
    }

    public function testItNeverLeadsToAForeignPage(): void
    {
        $this->link();
        foreach (['http://elsewhere.example/craft/curlew/61', 'http://127.0.0.1:9999/craft/curlew/61', 'nonsense', ''] as $from) {
            $response = $this->form('/craft/curlew/discard', [], $from);
            self::assertSame('/', $response->headers->get('Location'), $from);
        }
    }

    public function testHowThePagesAreLikedIsKeptInACookie(): void
    {
        self::assertSame(303, $this->form('/prefer/theme', ['choice' => 'dark'], self::HOST.'/')->getStatusCode());
        self::assertStringContainsString('data-theme="dark"', $this->page('/'));
        self::assertSame(303, $this->form('/prefer/strip', ['choice' => 'away'], self::HOST.'/')->getStatusCode());
        self::assertStringContainsString('strip-gone', $this->page('/craft/curlew/11'));
        self::assertSame(422, $this->form('/prefer/theme', ['choice' => 'pink'], self::HOST.'/')->getStatusCode());
        self::assertSame(404, $this->form('/prefer/colour', ['choice' => 'dark'], self::HOST.'/')->getStatusCode());
        self::assertStringContainsString('data-theme="dark"', $this->page('/'), 'nothing was changed by it');
    }

    public function testThePutAwayLogIsNeitherFoundNorCounted(): void
    {
        $log = $this->flown('hover_and_climb', 5, 8);
        self::assertContains("/craft/curlew/52?log=$log->id", array_column($this->json('/craft/curlew/search.json'), 'to'));
        self::assertStringContainsString('1 log', $this->page('/'));
        $response = $this->form("/craft/curlew/logs/$log->id/away", [], self::HOST."/craft/curlew/51/$log->id");
        self::assertSame('/craft/curlew/51', $response->headers->get('Location'), 'its own page is gone with it');
        self::assertNotContains("/craft/curlew/52?log=$log->id", array_column($this->json('/craft/curlew/search.json'), 'to'));
        self::assertStringNotContainsString('1 log', $this->page('/'));
        self::assertStringContainsString('no log yet shows what they do', $this->page('/craft/curlew/61'), 'nothing is tuned from it');
        $this->form("/craft/curlew/logs/$log->id/back", [], self::HOST.'/craft/curlew/51');
        self::assertContains("/craft/curlew/52?log=$log->id", array_column($this->json('/craft/curlew/search.json'), 'to'));
    }

    public function testAStepOfTheRiseIsDoneByAPressWhereNoScriptHoldsIt(): void
    {
        $this->link();
        $this->world()->move('props', '0');
        $this->world()->move('pack', '1');
        $this->world()->move('props_declared_off', '1');
        foreach (['Step 1 of 9 is read.', 'Step 2 of 9 is read.'] as $said) {
            $this->form('/craft/curlew/motors/rise', ['whole' => '1'], self::HOST.'/craft/curlew/15?do=rise');
            self::assertStringContainsString($said, $this->browser->getCookieJar()->get('said')?->getValue() ?? '');
        }
    }

    public function testAFileComesInWithItsFormWhereNoScriptCutsIt(): void
    {
        $this->link();
        $path = $this->written(":00\n");
        $file = new \Symfony\Component\HttpFoundation\File\UploadedFile($path, 'bad.hex', 'text/plain', null, true);
        $server = [
            'HTTP_ACCEPT' => 'text/html',
            'CONTENT_TYPE' => 'multipart/form-data',
            'HTTP_REFERER' => self::HOST.'/craft/curlew/12',
        ];
        $this->browser->request('POST', '/craft/curlew/firmware/from-disk', [], ['upload' => $file], $server);
        self::assertSame(422, $this->browser->getResponse()->getStatusCode());
        self::assertStringContainsString('Line 1', (string) $this->browser->getResponse()->getContent());
    }

    public function testWhoAsksIsToldByWhatTheyCanRead(): void
    {
        $ask = static fn (string $method, array $server): Asker => Asker::of(Request::create('/craft/curlew/61', $method, server: $server));
        self::assertTrue($ask('POST', ['CONTENT_TYPE' => 'application/json'])->wantsJson());
        self::assertTrue($ask('GET', ['HTTP_ACCEPT' => 'application/json'])->wantsJson());
        self::assertFalse($ask('POST', ['CONTENT_TYPE' => 'application/x-www-form-urlencoded', 'HTTP_ACCEPT' => 'text/html'])->wantsJson());
        self::assertTrue($ask('GET', ['HTTP_ACCEPT' => 'text/html'])->visits());
        self::assertFalse($ask('GET', ['HTTP_ACCEPT' => 'text/html', 'HTTP_TURBO_FRAME' => 'sizes'])->visits());
        self::assertTrue($ask('POST', ['HTTP_ACCEPT' => Asker::STREAM.', text/html'])->takesStreams());
    }

    /** @param array<string, mixed> $fields */
    private function form(string $url, array $fields, string $from, string $accept = 'text/html'): Response
    {
        $server = ['CONTENT_TYPE' => 'application/x-www-form-urlencoded', 'HTTP_ACCEPT' => $accept, 'HTTP_REFERER' => $from];
        $this->browser->request('POST', $url, $fields, [], $server);

        return $this->browser->getResponse();
    }
}
