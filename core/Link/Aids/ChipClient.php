<?php

declare(strict_types=1);

namespace Ortholex\Core\Link\Aids;

use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\Message;
use Ortholex\Core\Link\PageTarget;
use Ortholex\Core\Link\Request;
use Ortholex\Core\Link\Task;

/** Speaks to the overlay chip through the board: frames within frames. */
final readonly class ChipClient implements PageTarget
{
    private const TIMEOUT_MS = 2000;
    private const TRIES = 3;

    public function __construct(private BoardClient $board)
    {
    }

    /** @throws LinkError when nothing answers */
    public function identity(): ChipIdentity
    {
        $f = Message::unfields($this->ask(Message::CHIP_IDENTITY, '', Request::to(Task::WhoAreYou)));
        if (\count($f) < 5) {
            throw LinkError::answerTooShort(Request::to(Task::WhoAreYou));
        }

        return new ChipIdentity($f[0], '' === $f[1] ? null : Version::parse($f[1]), (int) $f[2], (int) $f[3], max(1, (int) $f[4]));
    }

    /** @throws LinkError */
    public function toBootloader(): void
    {
        $this->ask(Message::CHIP_TO_BOOTLOADER, '', Request::to(Task::ToBootloader));
    }

    /** @throws LinkError */
    public function run(): void
    {
        $this->ask(Message::CHIP_RUN, '', Request::to(Task::Run));
    }

    public function writePage(int $address, string $bytes): void
    {
        $this->ask(Message::CHIP_WRITE_PAGE, pack('V', $address).$bytes, Request::at(Task::WritePage, $address, 4));
    }

    public function readFlash(int $address, int $length): string
    {
        return $this->ask(Message::CHIP_READ_FLASH, pack('Vv', $address, $length), Request::at(Task::ReadFlash, $address, 4));
    }

    private function ask(int $kind, string $payload, Request $request): string
    {
        for ($try = 0; $try < self::TRIES; ++$try) {
            $bytes = $this->board->request(Message::CHIP, (new Message($kind, $payload))->encode(), $request, self::TIMEOUT_MS);
            $frame = Message::take($bytes);
            if (null !== $frame && Message::REFUSAL === $frame->kind) {
                throw LinkError::refused($request, $frame->payload);
            }
            if (null !== $frame && $frame->kind === ($kind | Message::ANSWER)) {
                return $frame->payload;
            }
        }
        throw LinkError::silent($request, self::TIMEOUT_MS);
    }
}
