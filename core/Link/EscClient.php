<?php

declare(strict_types=1);

namespace Ortholex\Core\Link;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Firmware\Version;

/**
 * Speaks to one ESC through the board: frames within frames, over its one slow signal wire.
 *
 * Each request is repeated until it is acknowledged, three times at most; how often it took is kept in $tries.
 */
final class EscClient implements PageTarget
{
    public const TRIES = 3;

    /** How often the last request was sent until it was acknowledged. */
    public int $tries = 0;

    public function __construct(private readonly BoardClient $board, private readonly int $pad)
    {
    }

    /** @throws LinkError when it does not answer, or has no power */
    public function identity(): EscIdentity
    {
        $f = Message::unfields($this->ask(Message::ESC_IDENTITY, '', Request::to(Task::WhoAreYou)));
        if (\count($f) < 12) {
            throw LinkError::answerTooShort(Request::to(Task::WhoAreYou));
        }

        return new EscIdentity(
            $this->pad,
            $f[0],
            $f[1],
            (int) $f[2],
            (int) $f[3],
            '1' === $f[4],
            (int) $f[5],
            (int) $f[6],
            (int) $f[7],
            $f[8],
            '' === $f[9] ? null : Version::parse($f[9]),
            (int) $f[10],
            '1' === $f[11],
            $f[12] ?? '',
        );
    }

    /**
     * What it holds, by key.
     *
     * @throws LinkError
     */
    public function readSettings(): SettingSet
    {
        $settings = [];
        $fields = Message::unfields($this->ask(Message::ESC_READ, '', Request::to(Task::ReadSettings)));
        for ($i = 0; $i + 1 < \count($fields); $i += 2) {
            $value = json_decode($fields[$i + 1]);
            $settings[$fields[$i]] = \is_scalar($value) ? $value : '';
        }

        return SettingSet::of($settings);
    }

    /**
     * Writes and keeps values, all or none.
     *
     * @param SettingSet $values by key
     *
     * @throws LinkError refused when it cannot take one of them
     */
    public function writeSettings(SettingSet $values): void
    {
        $fields = [];
        foreach ($values as $key => $value) {
            $fields[] = $key;
            $fields[] = (string) json_encode($value, \JSON_PRESERVE_ZERO_FRACTION);
        }
        $this->ask(Message::ESC_WRITE, Message::fields($fields), Request::to(Task::WriteSettings));
    }

    /** @throws LinkError */
    public function toBootloader(): void
    {
        $this->ask(Message::ESC_TO_BOOTLOADER, '', Request::to(Task::ToBootloader));
    }

    public function writePage(int $address, string $bytes): void
    {
        $this->ask(Message::ESC_WRITE_PAGE, pack('V', $address).$bytes, Request::at(Task::WritePage, $address, 4));
    }

    public function readFlash(int $address, int $length): string
    {
        return $this->ask(Message::ESC_READ_FLASH, pack('Vv', $address, $length), Request::at(Task::ReadFlash, $address, 4));
    }

    /** @throws LinkError */
    public function run(): void
    {
        $this->ask(Message::ESC_RUN, '', Request::to(Task::Run));
    }

    private function ask(int $kind, string $payload, Request $request): string
    {
        for ($this->tries = 1; $this->tries <= self::TRIES; ++$this->tries) {
            $bytes = $this->board->relay($this->pad, (new Message($kind, $payload))->encode());
            $frame = Message::take($bytes);
            if (null !== $frame && Message::REFUSAL === $frame->kind) {
                throw LinkError::escRefused($this->pad, $request, $frame->payload);
            }
            if (null !== $frame && $frame->kind === ($kind | Message::ANSWER)) {
                return $frame->payload;
            }
        }
        throw LinkError::escSilent($this->pad, $request, self::TRIES);
    }
}
