<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use PHPUnit\Framework\Attributes\DataProvider;

final class SafetyTest extends AppCase
{
    /** @return iterable<string, array{string, int}> */
    public static function hosts(): iterable
    {
        yield 'loopback' => ['127.0.0.1:8787', 200];
        yield 'its name' => ['localhost:9000', 200];
        yield 'its sixth version' => ['[::1]:8787', 200];
        yield 'another loopback' => ['127.0.0.53', 200];
        yield 'a strange name' => ['evil.example', 421];
        yield 'a name that begins like ours' => ['127.0.0.1.evil.example', 421];
        yield 'a name that ends like ours' => ['evil-localhost', 421];
        yield 'another machine' => ['192.168.1.5:8787', 421];
    }

    #[DataProvider('hosts')]
    public function testOnlyThisMachineIsAnswered(string $host, int $status): void
    {
        $this->browser->request('GET', '/', server: ['HTTP_HOST' => $host]);
        self::assertSame($status, $this->browser->getResponse()->getStatusCode());
    }

    /** @return iterable<string, array{array<string, ?string>, bool}> */
    public static function writes(): iterable
    {
        yield 'our page' => [['HTTP_ORIGIN' => 'http://127.0.0.1:8787', 'HTTP_SEC_FETCH_SITE' => 'same-origin'], true];
        yield 'a program that says so' => [['HTTP_ORIGIN' => null, 'HTTP_X_ORTHOLEX' => '1'], true];
        yield 'another site' => [['HTTP_ORIGIN' => 'https://evil.example'], false];
        yield 'another port here' => [['HTTP_ORIGIN' => 'http://127.0.0.1:3000'], false];
        yield 'no origin' => [['HTTP_ORIGIN' => 'null'], false];
        yield 'another site, without origin' => [
            ['HTTP_ORIGIN' => null, 'HTTP_SEC_FETCH_SITE' => 'cross-site', 'HTTP_X_ORTHOLEX' => '1'],
            false,
        ];
        yield 'nothing said' => [['HTTP_ORIGIN' => null], false];
    }

    /** @param array<string, ?string> $server */
    #[DataProvider('writes')]
    public function testOnlyOurOwnPagesWrite(array $server, bool $taken): void
    {
        $this->browser->setServerParameters(
            ['HTTP_HOST' => '127.0.0.1:8787', 'CONTENT_TYPE' => 'application/json'] +
                array_filter($server, static fn (?string $v): bool => null !== $v),
        );
        $this->browser->request('POST', '/craft/curlew/bench', content: '{"thing":"cable","to":"1"}');
        self::assertSame($taken ? 200 : 403, $this->browser->getResponse()->getStatusCode());
        self::assertSame($taken, $this->world()->store->peek()->cable);
    }

    public function testThePolicyAllowsNothingInline(): void
    {
        $html = $this->page('/craft/curlew/61');
        $policy = (string) $this->browser->getResponse()->headers->get('Content-Security-Policy');
        self::assertStringContainsString("default-src 'self'", $policy);
        self::assertStringNotContainsString('unsafe', $policy);
        self::assertDoesNotMatchRegularExpression('~<script(?![^>]+src=)~', $html);
        self::assertDoesNotMatchRegularExpression('~\son\w+="|\sstyle="~', $html);
    }

    public function testProblemsAreToldInWordsWithoutInnards(): void
    {
        self::assertStringContainsString('no craft “heron”', $this->page('/craft/heron/11', 404));
        self::assertStringContainsString('no such page', $this->page('/nowhere', 404));
        self::assertStringContainsString('no log with this number', $this->page('/craft/curlew/54?log=99', 404));
        self::assertStringContainsString('no sheet 99', $this->page('/craft/curlew/99', 404));
        $problem = $this->post('/craft/curlew/logs/fly', ['card' => ['x']], 422);
        self::assertSame('card', $problem['field']);
    }

    public function testUploadsAreBoundedPieceByPiece(): void
    {
        self::assertStringContainsString('at most 512 MB', self::text($this->post('/uploads', ['bytes' => 600_000_000], 422)['error']));
        self::assertSame('file', $this->post('/uploads', ['bytes' => 0], 422)['field']);
        self::assertSame('bytes', $this->post('/uploads', ['bytes' => 'many'], 422)['field']);
        $id = self::text($this->post('/uploads', ['bytes' => 100])['upload']);
        $this->browser->request('PUT', "/uploads/$id?offset=50", content: 'xyz');
        self::assertSame(422, $this->browser->getResponse()->getStatusCode());
        $this->browser->request('PUT', "/uploads/$id?offset=0", content: str_repeat('a', 4_194_305));
        self::assertSame(422, $this->browser->getResponse()->getStatusCode());
        $this->browser->request('PUT', '/uploads/'.str_repeat('0', 32).'?offset=0', content: 'a');
        self::assertSame(422, $this->browser->getResponse()->getStatusCode());
    }

    private static function text(mixed $value): string
    {
        self::assertIsString($value);

        return $value;
    }
}
