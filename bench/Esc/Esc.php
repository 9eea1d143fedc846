<?php

declare(strict_types=1);

namespace Ortholex\Bench\Esc;

use Ortholex\Bench\Flash\FlashFile;
use Ortholex\Bench\Power\Mode;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Link\Message;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingError;

/**
 * One simulated ESC: firmware, only a bootloader, or dead because it runs firmware made for other hardware.
 *
 * A dead one answers nothing and turns nothing. It is rescued by being caught in its bootloader as power comes on.
 */
final readonly class Esc
{
    private const ANSWER_S = 0.004;
    private const PAGE_WRITE_S = 0.03;
    private const PAGE_READ_S = 0.012;

    public function __construct(private int $pad, private EscModel $model, private EscState $state, private FlashFile $flash)
    {
    }

    /** Starts as power comes, or as its bootloader lets go. */
    public function start(bool $caught): void
    {
        $s = $this->state;
        $label = EscLabel::read($this->flash);
        $s->family = $s->version = '';
        $s->switchingKhz = 0;
        if ($caught || null === $label) {
            $s->mode = Mode::Bootloader;

            return;
        }
        if (
            $label->layout !== $this->model->layout
            || $label->clockMhz !== $this->model->clockMhz
            || $label->deadTimeNs !== $this->model->deadTimeNs
        ) {
            $s->mode = Mode::Dead;

            return;
        }
        $s->mode = Mode::Firmware;
        $s->family = $label->family;
        $s->version = $label->version;
        $s->switchingKhz = $label->switchingKhz;
        if ($s->keptFamily !== $label->family) {
            // Another family lays its settings out otherwise: what was kept means nothing to it.
            $s->settings = EscTable::defaults($this->identity())->toArray();
            $s->keptFamily = $label->family;
        }
        // A newer release of the same family adds what it has more.
        $s->settings += EscTable::defaults($this->identity())->toArray();
    }

    /** @return array{string, float} what it sends back, '' when it stays silent; and the seconds it took */
    public function receive(string $bytes): array
    {
        $frame = Message::take($bytes);
        if (null === $frame || !\in_array($this->state->mode, [Mode::Firmware, Mode::Bootloader], true)) {
            return ['', 0.05];
        }
        $took = match ($frame->kind) {
            Message::ESC_WRITE_PAGE => self::PAGE_WRITE_S,
            Message::ESC_READ_FLASH => self::PAGE_READ_S,
            default => self::ANSWER_S,
        };
        $answer = Mode::Bootloader === $this->state->mode ? $this->bootloader($frame) : $this->firmware($frame);

        return [$answer->encode(), $took];
    }

    private function identity(): EscIdentity
    {
        $m = $this->model;
        $s = $this->state;
        $version = '' === $s->version ? null : Version::parse($s->version);

        return new EscIdentity(
            $this->pad,
            $m->maker,
            $m->layout,
            $m->clockMhz,
            $m->deadTimeNs,
            $m->measuresHeat,
            EscModel::FLASH_FROM,
            EscModel::FLASH_END,
            EscModel::PAGE_BYTES,
            $s->family,
            $version,
            $s->switchingKhz,
            'Withy' === $s->family && true === $version?->hasReachedNumber('1.2'),
            $m->serial,
        );
    }

    private function firmware(Message $frame): Message
    {
        switch ($frame->kind) {
            case Message::ESC_IDENTITY:
                return $this->who($frame);
            case Message::ESC_READ:
                $fields = [];
                foreach ($this->state->settings as $key => $value) {
                    $fields[] = $key;
                    $fields[] = (string) json_encode($value, \JSON_PRESERVE_ZERO_FRACTION);
                }

                return self::ok($frame, Message::fields($fields));
            case Message::ESC_WRITE:
                return $this->write($frame);
            case Message::ESC_TO_BOOTLOADER:
                $this->start(true);

                return self::ok($frame);
            default:
                return new Message(Message::REFUSAL, 'its firmware does not know this request');
        }
    }

    private function write(Message $frame): Message
    {
        $fields = Message::unfields($frame->payload);
        $taken = $this->state->settings;
        $version = Version::parse(Setting::FIRST);
        for ($i = 0; $i + 1 < \count($fields); $i += 2) {
            $row = EscTable::rows()[$fields[$i]] ?? null;
            if (null === $row || !isset($taken[$fields[$i]])) {
                return new Message(Message::REFUSAL, "it knows no “{$fields[$i]}”");
            }
            try {
                $taken[$fields[$i]] = $row->check(json_decode($fields[$i + 1]), $version);
            } catch (SettingError $e) {
                return new Message(Message::REFUSAL, $e->reason);
            }
        }
        $this->state->settings = $taken;

        return self::ok($frame);
    }

    private function bootloader(Message $frame): Message
    {
        switch ($frame->kind) {
            case Message::ESC_IDENTITY:
                return $this->who($frame);
            case Message::ESC_WRITE_PAGE:
                if (\strlen($frame->payload) !== 4 + EscModel::PAGE_BYTES) {
                    return new Message(Message::REFUSAL, 'a page is '.EscModel::PAGE_BYTES.' bytes');
                }
                /** @var array{at: int} $v */
                $v = unpack('Vat', $frame->payload);
                $offset = $v['at'] - EscModel::FLASH_FROM;
                if (
                    $offset < 0
                    || $offset + EscModel::PAGE_BYTES > EscModel::FLASH_END - EscModel::FLASH_FROM
                    || 0 !== $offset % EscModel::PAGE_BYTES
                ) {
                    return new Message(Message::REFUSAL, 'that address is no page of its flash');
                }
                $this->flash->write($offset, substr($frame->payload, 4));

                return self::ok($frame);
            case Message::ESC_READ_FLASH:
                /** @var array{at: int, length: int}|false $v */
                $v = 6 === \strlen($frame->payload) ? unpack('Vat/vlength', $frame->payload) : false;

                return false === $v
                    ? new Message(Message::REFUSAL, 'a read needs address and length')
                    : self::ok($frame, $this->flash->read($v['at'] - EscModel::FLASH_FROM, min($v['length'], 1024)));
            case Message::ESC_RUN:
                $this->start(false);

                return self::ok($frame);
            default:
                return new Message(Message::REFUSAL, 'only its bootloader runs');
        }
    }

    private function who(Message $frame): Message
    {
        $i = $this->identity();

        return self::ok(
            $frame,
            Message::fields([
                $i->maker,
                $i->layout,
                (string) $i->clockMhz,
                (string) $i->deadTimeNs,
                $i->measuresHeat ? '1' : '0',
                (string) $i->flashFrom,
                (string) $i->flashEnd,
                (string) $i->pageBytes,
                $i->family,
                $i->version?->toString() ?? '',
                (string) $i->switchingKhz,
                $i->rpmFeedback ? '1' : '0',
                $i->serial,
            ]),
        );
    }

    private static function ok(Message $frame, string $payload = ''): Message
    {
        return new Message($frame->kind | Message::ANSWER, $payload);
    }
}
