<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Link;

use Ortholex\Core\Link\Message;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

final class FrameTest extends TestCase
{
    public function testWhatIsSentIsTakenWholeInAnyPieces(): void
    {
        $frames = [];
        for ($i = 0; $i < 40; ++$i) {
            $frames[] = new Message($i, random_bytes($i * 13 + 1));
        }
        $wire = implode('', array_map(static fn (Message $f): string => $f->encode(), $frames));
        foreach ([1, 2, 7, 64, 100000] as $piece) {
            $buffer = '';
            $got = [];
            foreach (str_split($wire, $piece) as $bytes) {
                $buffer .= $bytes;
                while (null !== ($frame = Message::take($buffer))) {
                    $got[] = $frame;
                }
            }
            self::assertEquals($frames, $got);
            self::assertSame('', $buffer);
        }
    }

    public function testRubbishIsSkippedAndAGarbledFrameIsNeverTaken(): void
    {
        $good = (new Message(5, 'hello'))->encode();
        $dice = new Lcg(2);
        for ($i = 0; $i < \strlen($good); ++$i) {
            for ($bit = 0; $bit < 8; ++$bit) {
                $bad = $good;
                $bad[$i] = \chr(\ord($bad[$i]) ^ (1 << $bit));
                $buffer = \chr($dice->whole(0, 255)).$bad.str_repeat("\0", 9000).$good;
                $got = [];
                while (null !== ($frame = Message::take($buffer))) {
                    $got[] = $frame->payload;
                }
                self::assertSame(['hello'], $got, "bit $bit of byte $i");
            }
        }
    }

    public function testFieldsSurvive(): void
    {
        $fields = ['', 'a', 'ü', str_repeat('x', 255), "\0\1"];
        self::assertSame($fields, Message::unfields(Message::fields($fields)));
        self::assertSame(255, \strlen(Message::unfields(Message::fields([str_repeat('y', 400)]))[0]));
    }
}
