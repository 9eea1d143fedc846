<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Wiring;

use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\PadKind;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Every board that is drawn can be soldered to. */
final class BoardPadsTest extends TestCase
{
    /** @return iterable<string, array{BoardPads}> */
    public static function boards(): iterable
    {
        foreach (['MARL-F4', 'MARL-F4S', 'QUERN-F7', 'QUERN-F7-2', 'TARN-H7'] as $id) {
            yield $id => [BoardPads::of($id) ?? throw new \LogicException($id)];
        }
    }

    #[DataProvider('boards')]
    public function testEachPadIsItsOwn(BoardPads $board): void
    {
        self::assertCount(\count($board->left) + \count($board->right), $board->pads(), 'no two pads share a name');
        foreach ($board->pads() as $id => $pad) {
            self::assertSame($id, $pad->id);
            self::assertNotSame('', $pad->label);
        }
    }

    #[DataProvider('boards')]
    public function testEveryDataPadBelongsToAUartThatThereIs(BoardPads $board): void
    {
        $seen = [];
        foreach ($board->pads() as $pad) {
            if ($pad->isData()) {
                self::assertArrayHasKey($pad->uart, $board->uarts, $pad->id);
                $seen[$pad->uart][] = $pad->kind;
            } else {
                self::assertSame('', $pad->uart, $pad->id);
            }
        }
        self::assertSameSize($board->uarts, $seen, 'and every UART has a pad');
        foreach ($board->uarts as $id => $uart) {
            self::assertSame((string) $id, $uart->id);
            self::assertContains(PadKind::Transmits, $seen[$id], "UART $id can be listened to");
            if (str_starts_with($uart->id, 'software')) {
                self::assertLessThanOrEqual(57_600, $uart->mostBaud, 'timed by the processor, it is slow');
            } else {
                self::assertContains(PadKind::Receives, $seen[$id]);
            }
        }
    }

    #[DataProvider('boards')]
    public function testThereIsPowerAndGroundOnEitherSide(BoardPads $board): void
    {
        foreach ([$board->left, $board->right] as $side) {
            $kinds = array_map(static fn ($pad): PadKind => $pad->kind, $side);
            self::assertContains(PadKind::Ground, $kinds);
            self::assertContains(PadKind::Power, $kinds);
        }
        $alive = array_filter($board->rails(), static fn ($pad): bool => $pad->aliveOnUsb);
        self::assertNotSame([], $alive, 'something can be tried over the cable alone');
        self::assertNotSameSize($board->rails(), $alive, 'and something needs the pack');
        foreach ($board->rails() as $rail) {
            self::assertGreaterThan(3.0, $rail->volts, $rail->id);
            self::assertLessThan(12.0, $rail->volts, $rail->id);
        }
    }

    public function testOfAnUnknownBoardNothingIsClaimed(): void
    {
        foreach (['', 'MARL', 'marl-f4', 'GREBE-H9'] as $id) {
            self::assertNull(BoardPads::of($id), $id);
        }
    }
}
