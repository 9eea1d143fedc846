<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Link;

use Ortholex\Core\Firmware\FirmwareError;
use Ortholex\Core\Firmware\HexImage;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Link\ByteLink;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\Message;
use Ortholex\Core\Link\PageWriter;
use PHPUnit\Framework\TestCase;

/** Our end of the link against a device that misbehaves in every way a wire allows. */
final class BoardClientTest extends TestCase
{
    private const IDENTITY = ['X1', 'Board', 'F4', '4096', '8192', '256', 'S1', 'Loam', '26.01'];

    public function testAnswersInDribsAndRubbishAreUnderstood(): void
    {
        $answer = (new Message(Message::IDENTITY | Message::ANSWER, Message::fields(self::IDENTITY)))->encode();
        $link = self::link(static fn (string $sent): array => ["\x00\xD5noise", ...str_split($answer, 5)]);
        $identity = (new BoardClient($link))->identity();
        self::assertSame(
            ['X1', 4096, 8192, 256, '26.01'],
            [$identity->hardwareId, $identity->flashFrom, $identity->flashEnd, $identity->pageBytes, $identity->version?->toString()],
        );
    }

    public function testASilentDeviceIsAskedTwiceThenGivenUpWithWords(): void
    {
        $asked = 0;
        $link = self::link(static function (string $sent) use (&$asked): array {
            ++$asked;

            return [];
        });
        try {
            (new BoardClient($link))->identity(100);
            self::fail('It heard something.');
        } catch (LinkError $e) {
            self::assertFalse($e->lost);
            self::assertFalse($e->refused);
            self::assertStringContainsString('did not answer “who are you” within 100 ms', $e->getMessage());
        }
        self::assertSame(2, $asked);
        self::assertGreaterThanOrEqual(200, $link->nowMs());
    }

    public function testAGarbledAnswerIsAskedForAgain(): void
    {
        $asked = 0;
        $good = (new Message(Message::IDENTITY | Message::ANSWER, Message::fields(self::IDENTITY)))->encode();
        $link = self::link(static function (string $sent) use (&$asked, $good): array {
            return [1 === ++$asked ? substr_replace($good, 'zz', 12, 2) : $good];
        });
        self::assertSame('X1', (new BoardClient($link))->identity()->hardwareId);
        self::assertSame(2, $asked);
    }

    public function testARefusalKeepsItsWords(): void
    {
        $link = self::link(static fn (string $sent): array => [(new Message(Message::REFUSAL, 'no such setting'))->encode()]);
        try {
            (new BoardClient($link))->writeSetting('gain.roll.p', 3.0);
            self::fail('It was taken.');
        } catch (LinkError $e) {
            self::assertTrue($e->refused);
            self::assertSame('The board refused “write gain.roll.p”: no such setting.', $e->getMessage());
        }
    }

    public function testAnswersThatAreTooShortAreNotGuessedAt(): void
    {
        foreach (
            [
                [Message::IDENTITY, static fn (BoardClient $c) => $c->identity()],
                [Message::STATE, static fn (BoardClient $c) => $c->state()],
                [Message::SENSORS, static fn (BoardClient $c) => $c->accelerometer(1)],
            ] as [$kind, $ask]
        ) {
            $client = new BoardClient(
                self::link(static fn (string $sent): array => [(new Message($kind | Message::ANSWER, 'abc'))->encode()]),
            );
            try {
                $ask($client);
                self::fail("Kind $kind was believed.");
            } catch (LinkError $e) {
                self::assertStringContainsString('too short', $e->getMessage());
            }
        }
    }

    public function testManySettingsComeInPages(): void
    {
        $all = [];
        for ($i = 0; $i < 205; ++$i) {
            $all["s.$i"] = 0 === $i % 3 ? $i * 0.5 : (1 === $i % 3 ? 0 === $i % 2 : "text $i");
        }
        $link = self::link(static function (string $sent) use ($all): array {
            $request = Message::take($sent);
            $from = unpack('v', $request->payload ?? "\0\0")[1] ?? 0;
            $fields = [(string) \count($all)];
            foreach (\array_slice($all, \is_int($from) ? $from : 0, 80) as $name => $value) {
                array_push($fields, $name, (string) json_encode($value, \JSON_PRESERVE_ZERO_FRACTION));
            }

            return [(new Message(Message::READ_SETTINGS | Message::ANSWER, Message::fields($fields)))->encode()];
        });
        self::assertSame($all, (new BoardClient($link))->readSettings()->toArray());
    }

    public function testAPageIsTriedFourTimesAndVerifiedByteByByte(): void
    {
        $image = HexImage::of([4096 + 100 => str_repeat('A', 700)]);
        $pages = PageWriter::pages($image, 4096, 256);
        self::assertSame([4096, 4352, 4608, 4864], array_keys($pages));
        self::assertSame(str_repeat("\xFF", 100).str_repeat('A', 156), $pages[4096]);
        self::assertSame(256, \strlen($pages[4864]));
        $memory = [];
        $refusals = 2;
        $link = self::link(static function (string $sent) use (&$memory, &$refusals): array {
            $request = Message::take($sent) ?? throw new \LogicException('no request');
            $address = unpack('V', $request->payload)[1] ?? 0;
            $address = \is_int($address) ? $address : 0;
            if (Message::WRITE_PAGE === $request->kind) {
                if (4352 === $address && $refusals-- > 0) {
                    return [(new Message(Message::REFUSAL, 'busy'))->encode()];
                }
                $memory[$address] = substr($request->payload, 4);

                return [(new Message($request->kind | Message::ANSWER, ''))->encode()];
            }

            return [(new Message($request->kind | Message::ANSWER, $memory[$address] ?? ''))->encode()];
        });
        $writer = new PageWriter(new BoardClient($link));
        $done = [];
        $writer->write($pages, 0, static function (int $n) use (&$done): void {
            $done[] = $n;
        });
        self::assertSame([1, 2, 3, 4], $done);
        $writer->verify($pages, static fn (int $n) => null);
        self::assertSame(4, $writer->alreadyWritten($pages));
        $memory[4608] = str_repeat('B', 256);
        self::assertSame(2, $writer->alreadyWritten($pages));
        $this->expectException(FirmwareError::class);
        $this->expectExceptionMessage('0x00001200');
        $writer->verify($pages, static fn (int $n) => null);
    }

    /** @param \Closure(string): list<string> $device what arrives, piece by piece, for what was sent */
    private static function link(\Closure $device): ByteLink
    {
        return new class($device) implements ByteLink {
            /** @var list<string> */
            private array $coming = [];

            private int $now = 0;

            /** @param \Closure(string): list<string> $device */
            public function __construct(private readonly \Closure $device)
            {
            }

            public function write(string $bytes): void
            {
                $this->coming = ($this->device)($bytes);
            }

            public function read(int $most, int $timeoutMs): string
            {
                if ([] === $this->coming) {
                    $this->now += $timeoutMs;

                    return '';
                }
                ++$this->now;

                return array_shift($this->coming);
            }

            public function nowMs(): int
            {
                return $this->now;
            }
        };
    }
}
