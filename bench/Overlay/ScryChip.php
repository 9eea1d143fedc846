<?php

declare(strict_types=1);

namespace Ortholex\Bench\Overlay;

use Ortholex\Bench\Flash\FlashFile;
use Ortholex\Core\Link\Message;

/**
 * An overlay chip, spoken to by bytes: who it is, and pages of its flash. Its firmware lies below FIRMWARE_END, its letters above; letters
 * can be written while it runs.
 */
final readonly class ScryChip
{
    public const FIRMWARE_END = 0x4000;
    public const FLASH_END = 0x8000;
    public const PAGE_BYTES = 512;
    private const ANSWER_S = 0.002;
    private const PAGE_S = 0.02;

    /** @param string $kind as it is printed on it */
    public function __construct(private string $kind, private bool $held, private FlashFile $flash)
    {
    }

    /** The version that runs; null in its bootloader. */
    public function version(): ?string
    {
        $label = $this->held ? null : ChipLabel::read($this->flash);

        return $label?->kind === $this->kind ? $label->version : null;
    }

    /**
     * @return array{string, float, bool|null} what it sends back, how long it took, and whether it is held in its bootloader from now on
     */
    public function receive(string $bytes): array
    {
        $frame = Message::take($bytes);
        if (null === $frame) {
            return ['', 0.02, null];
        }
        $ok = static fn (string $payload = ''): string => (new Message($frame->kind | Message::ANSWER, $payload))->encode();
        $no = static fn (string $why): string => (new Message(Message::REFUSAL, $why))->encode();
        switch ($frame->kind) {
            case Message::CHIP_IDENTITY:
                $who = [
                    $this->kind,
                    $this->version() ?? '',
                    (string) self::FIRMWARE_END,
                    (string) self::FLASH_END,
                    (string) self::PAGE_BYTES,
                ];

                return [$ok(Message::fields($who)), self::ANSWER_S, null];
            case Message::CHIP_TO_BOOTLOADER:
                return [$ok(), self::ANSWER_S, true];
            case Message::CHIP_RUN:
                return [$ok(), self::ANSWER_S, false];
            case Message::CHIP_WRITE_PAGE:
                /** @var array{1: int}|false $at */
                $at = \strlen($frame->payload) === 4 + self::PAGE_BYTES ? unpack('V', $frame->payload) : false;
                if (false === $at || 0 !== $at[1] % self::PAGE_BYTES || $at[1] + self::PAGE_BYTES > self::FLASH_END) {
                    return [$no('that is no page of its flash'), self::ANSWER_S, null];
                }
                if ($at[1] < self::FIRMWARE_END && null !== $this->version()) {
                    return [$no('its firmware runs: only its bootloader writes there'), self::ANSWER_S, null];
                }
                $this->flash->write($at[1], substr($frame->payload, 4));

                return [$ok(), self::PAGE_S, null];
            case Message::CHIP_READ_FLASH:
                /** @var array{at: int, length: int}|false $v */
                $v = 6 === \strlen($frame->payload) ? unpack('Vat/vlength', $frame->payload) : false;

                return false === $v
                    ? [$no('a read needs address and length'), self::ANSWER_S, null]
                    : [$ok($this->flash->read($v['at'], min($v['length'], 1024))), self::PAGE_S / 4, null];
            default:
                return [$no('it does not know this request'), self::ANSWER_S, null];
        }
    }
}
