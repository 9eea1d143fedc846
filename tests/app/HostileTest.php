<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Routing\RouterInterface;

/** Whatever is sent to whatever address, the application answers in words; what it refuses has changed nothing. */
final class HostileTest extends AppCase
{
    /** Every field that any action reads. */
    private const FIELDS = [
        'a', 'at', 'axis', 'b', 'bytes', 'card', 'choice', 'columns', 'direction', 'drop', 'every', 'faults', 'first', 'forward_mm',
        'from', 'image', 'key', 'layout', 'map', 'name', 'note', 'out', 'pad', 'part', 'place', 'places', 'pose', 'read', 'reason',
        'resume', 'right_mm', 'step', 'stop', 'swapped', 'tags', 'thing', 'to', 'traces', 'typed', 'units', 'upload', 'value', 'values',
        'weak', 'what', 'whole', 'wipe', 'with', 'yaml',
    ];

    /** Every word that any address asks by. */
    private const ASKED = [
        'against', 'all', 'axis', 'do', 'from', 'image', 'log', 'medium', 'n', 'name', 'offset', 'others', 'passage', 'pre', 'setting',
        'small', 'snapshot', 'to', 'traces', 'with', 'without', 'words',
    ];

    /** @return array<string, mixed> by what it is */
    private static function values(): array
    {
        return [
            'nothing' => null,
            'empty' => '',
            'a list' => ['x'],
            'a map' => ['roll' => 'x', 'gain.roll.p' => ['y']],
            'lists in lists' => ['a' => ['b' => ['c' => []]]],
            'minus one' => '-1',
            'too large' => '99999999999999999999',
            'beyond numbers' => '1e999',
            'no number' => 'NaN',
            'a comma' => '3,5',
            'broken UTF-8' => "\xff\xfe\xc3(",
            'a null byte' => "a\0b",
            'marks' => '"><b>&amp;\'`${x}{{ 7*7 }}',
            'a quote for the database' => "x'; DROP TABLE craft; --",
            'a path' => '../../../../etc/passwd',
            'another script' => "\u{202E}\u{0000}\u{FEFF}ώ🛩",
            'very long' => str_repeat('ab ', 30_000),
        ];
    }

    /** @return iterable<string, array{string}> */
    public static function kinds(): iterable
    {
        foreach (array_keys(self::values()) as $what) {
            yield $what => [$what];
        }
    }

    #[DataProvider('kinds')]
    public function testNoActionBreaksWhateverItIsGiven(string $what): void
    {
        $this->link();
        $value = self::values()[$what];
        $before = $this->book();
        $broken = [];
        // Level is measured by an action without fields, and staged: a Commit would rightly write it.
        $commit = '/craft/curlew/commit';
        foreach ([...array_diff($this->addresses('POST'), [$commit]), '/craft/curlew/discard', $commit] as $address) {
            foreach (['form', 'json'] as $as) {
                $status = $this->send($address, str_ends_with($address, 'discard') ? [] : array_fill_keys(self::FIELDS, $value), $as);
                if ($status >= 500 || $status < 200) {
                    $broken[] = "$address as $as: $status";
                }
            }
        }
        self::assertSame([], $broken);
        self::assertSame($before, $this->book(), 'no setting of any craft and no log came of it');
        foreach (['/', '/craft/curlew/11', '/craft/curlew/51', '/craft/curlew/71', '/craft/curlew/73'] as $page) {
            self::assertStringContainsString('<main', $this->page($page), $page);
        }
    }

    #[DataProvider('kinds')]
    public function testNoPageBreaksWhateverItIsAsked(string $what): void
    {
        $this->link();
        $value = self::values()[$what];
        $broken = [];
        foreach ($this->addresses('GET') as $address) {
            $asked = http_build_query(array_fill_keys(self::ASKED, $value ?? ''));
            $this->browser->request('GET', "$address?$asked", server: ['HTTP_ACCEPT' => 'text/html']);
            $status = $this->browser->getResponse()->getStatusCode();
            if ($status >= 500 || $status < 200) {
                $broken[] = "$address: $status";
            }
        }
        self::assertSame([], $broken);
    }

    /** Numbers that no whole number holds, in every place of every address. */
    public function testNoAddressBreaksByANumberInIt(): void
    {
        $broken = [];
        $asked = 0;
        foreach (['GET', 'POST'] as $method) {
            foreach ($this->addresses($method) as $address) {
                foreach (['99999999999999999999', '9223372036854775808', '00000000000000000077', '9223372036854775807', '0'] as $number) {
                    $huge = (string) preg_replace('~(?<=/)7[789]|80(?=/|\.|$)~', $number, $address);
                    if ($huge === $address) {
                        continue;
                    }
                    ++$asked;
                    $this->browser->request($method, $huge, server: ['HTTP_ACCEPT' => 'text/html'], content: '{}');
                    $status = $this->browser->getResponse()->getStatusCode();
                    if ($status >= 500 || $status < 200) {
                        $broken[] = "$method $huge: $status";
                    }
                }
            }
        }
        self::assertSame([], $broken);
        self::assertGreaterThan(60, $asked);
    }

    /** What cannot be read as text is refused where it stands, in values within values too. */
    public function testUnreadableTextIsRefusedAtItsField(): void
    {
        foreach (["\xff\xfe", "a\0b"] as $value) {
            foreach ([['stage', ['values' => ['gain.roll.p' => $value]]], ['commit', ['reason' => $value]]] as [$action, $fields]) {
                $server = ['CONTENT_TYPE' => 'application/x-www-form-urlencoded', 'HTTP_ACCEPT' => 'application/json'];
                $this->browser->request('POST', "/craft/curlew/$action", $fields, [], $server);
                self::assertSame(422, $this->browser->getResponse()->getStatusCode(), $action);
                $said = (string) $this->browser->getResponse()->getContent();
                self::assertMatchesRegularExpression('~UTF-8|null character~', $said);
            }
        }
        self::assertSame([], $this->staged($this->craft()));
    }

    public function testABodyThatIsNoObjectIsRefusedInWords(): void
    {
        foreach (['', '[', '"text"', '12', 'null', "{\"a\": \xff}", str_repeat('[', 2000)] as $body) {
            foreach (['stage', 'commit', 'bench', 'motors/spin', 'logs/fly'] as $action) {
                $this->browser->request('POST', "/craft/curlew/$action", content: $body);
                self::assertSame(422, $this->browser->getResponse()->getStatusCode(), "$action: $body");
                self::assertStringContainsString('not a JSON object', (string) $this->browser->getResponse()->getContent());
            }
        }
    }

    public function testAnActionIsNotDoneByALink(): void
    {
        foreach ($this->addresses('POST') as $address) {
            $this->browser->request('GET', $address);
            $status = $this->browser->getResponse()->getStatusCode();
            self::assertContains($status, [200, 404, 405], $address);
        }
        self::assertSame([], $this->staged($this->craft()));
        self::assertFalse($this->world()->store->peek()->cable);
    }

    /** @return list<string> every address of a method, for a craft and for numbers that are not there */
    private function addresses(string $method): array
    {
        $router = self::getContainer()->get(RouterInterface::class);
        $addresses = [];
        foreach ($router->getRouteCollection() as $name => $route) {
            if (!\in_array($method, $route->getMethods(), true)) {
                continue;
            }
            $given = ['slug' => 'curlew', 'id' => '77', 'other' => '78', 'log' => '79', 'passage' => '80'];
            $given += ['axis' => 'roll', 'number' => '3'];
            $given += ['upload' => str_repeat('0', 32), 'action' => 'cancel', 'what' => 'theme', 'sheet' => '21', 'format' => 'gpx'];
            $wants = $route->compile()->getPathVariables();
            $addresses[] = $router->generate(
                $name,
                array_filter($given, static fn (string $v): bool => \in_array($v, $wants, true), \ARRAY_FILTER_USE_KEY),
            );
        }
        self::assertGreaterThan(25, \count($addresses));

        return $addresses;
    }

    /** @param array<string, mixed> $fields */
    private function send(string $address, array $fields, string $as): int
    {
        if ('json' === $as) {
            $body = json_encode($fields, \JSON_INVALID_UTF8_SUBSTITUTE | \JSON_THROW_ON_ERROR);
            $this->browser->request('POST', $address, content: $body);
        } else {
            $server = ['CONTENT_TYPE' => 'application/x-www-form-urlencoded', 'HTTP_REFERER' => 'http://127.0.0.1:8787/craft/curlew/61'];
            $this->browser->request('POST', $address, array_filter($fields, static fn (mixed $v): bool => null !== $v), [], $server);
        }

        return $this->browser->getResponse()->getStatusCode();
    }

    /** @return array<string, mixed> what must not change by what is refused */
    private function book(): array
    {
        $of = $this->entities()->getConnection();
        $settings = array_map(
            // The settings of ESCs come to be known as soon as the pack is on: the bench was made ready.
            static fn (mixed $json): array => array_filter(
                (array) json_decode(\is_string($json) ? $json : '', true),
                static fn (int|string $name): bool => !str_starts_with((string) $name, 'esc.'),
                \ARRAY_FILTER_USE_KEY,
            ),
            $of->fetchAllKeyValue('SELECT slug, settings FROM craft ORDER BY slug'),
        );

        return [
            'settings' => $settings,
            'changes' => $of->fetchOne('SELECT COUNT(*) FROM change_entry'),
            'logs' => $of->fetchOne('SELECT COUNT(*) FROM log'),
        ];
    }
}
