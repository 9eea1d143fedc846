<?php

declare(strict_types=1);

namespace Ortholex\Bench\Board;

use Ortholex\Bench\Recorder\RecorderMemory;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Time\Pace;
use Ortholex\Core\Link\Message;
use Ortholex\Core\Link\Recorder\RecorderClient;

/** What a board tells of its memory for logs. */
final readonly class Recorder
{
    private const ANSWER_S = 0.0005;

    /** Full-speed USB carries so much, bytes/s. */
    private const CARRIES = 1.1e6;

    /** It sums up so fast, and erases a block in, s. */
    private const SUMS = 60.0e6;

    private const BLOCK = 65_536;
    private const ERASES_S = 0.04;

    /** Newest recordings that one answer names. */
    private const MOST_NAMED = 900;

    public function __construct(private RecorderMemory $memory, private WorldState $state, private Pace $pace)
    {
    }

    /** @return array{Message, float} */
    public function answer(Message $frame): array
    {
        if (0 === $this->memory->bytes) {
            return [$this->refuse('this board has no memory for logs'), self::ANSWER_S];
        }
        $what = '' === $frame->payload ? RecorderClient::ABOUT : \ord($frame->payload[0]);
        $busy = max(0.0, $this->state->erasedAt - $this->pace->now());
        if (RecorderClient::ABOUT === $what) {
            return [new Message($frame->kind | Message::ANSWER, $this->about($busy)), self::ANSWER_S];
        }
        if ($busy > 0) {
            return [$this->refuse('it erases its memory; wait until that is done'), self::ANSWER_S];
        }
        if (RecorderClient::ERASE === $what) {
            $blocks = array_sum(array_map(static fn (int $bytes): int => intdiv($bytes, self::BLOCK) + 1, $this->memory->recordings()));
            $this->memory->erase();
            $this->state->erasedAt = $this->pace->now() + $this->pace->of($blocks * self::ERASES_S);

            return [new Message($frame->kind | Message::ANSWER, ''), self::ANSWER_S];
        }
        if (13 !== \strlen($frame->payload)) {
            return [$this->refuse('a read needs number, place and length'), self::ANSWER_S];
        }
        /** @var array{number: int, at: int, length: int} $of */
        $of = (array) unpack('Vnumber/Vat/Vlength', $frame->payload, 1);
        $there = $this->memory->recordings()[$of['number']] ?? null;
        if (null === $there || $of['at'] + $of['length'] > $there) {
            return [$this->refuse('there is no such recording, or it is not that long'), self::ANSWER_S];
        }
        if (RecorderClient::SUM === $what) {
            $sum = crc32($this->memory->read($of['number'], $of['at'], $of['length']));

            return [new Message($frame->kind | Message::ANSWER, pack('V', $sum)), self::ANSWER_S + $of['length'] / self::SUMS];
        }
        $bytes = $this->memory->read($of['number'], $of['at'], min($of['length'], Message::MOST_PAYLOAD));

        return [new Message($frame->kind | Message::ANSWER, $bytes), self::ANSWER_S + \strlen($bytes) / self::CARRIES];
    }

    private function about(float $busyS): string
    {
        $named = \array_slice($this->memory->recordings(), -self::MOST_NAMED, preserve_keys: true);
        $bytes = pack('VVgv', $this->memory->bytes, $this->memory->free(), $busyS, \count($named));
        foreach ($named as $number => $size) {
            $bytes .= pack('VV', $number, $size);
        }

        return $bytes;
    }

    private function refuse(string $why): Message
    {
        return new Message(Message::REFUSAL, $why);
    }
}
