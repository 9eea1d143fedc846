<?php

declare(strict_types=1);

namespace Ortholex\Core\Link\Recorder;

use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\Message;
use Ortholex\Core\Link\Request;
use Ortholex\Core\Link\Task;

/** Asks a board for its recordings. */
final readonly class RecorderClient
{
    /** What is asked of the recorder, the first byte of a request. */
    public const ABOUT = 0;

    public const READ = 1;
    public const SUM = 2;
    public const ERASE = 3;
    private const TIMEOUT_MS = 1500;
    private const ABOUT_BYTES = 14;

    public function __construct(private BoardClient $board)
    {
    }

    /** @throws LinkError */
    public function about(): RecorderState
    {
        $request = Request::to(Task::ReadRecorder);
        $bytes = $this->board->request(Message::RECORDER, \chr(self::ABOUT), $request, self::TIMEOUT_MS);
        /** @var array{bytes: int, free: int, busy: float, count: int}|false $told */
        $told = \strlen($bytes) < self::ABOUT_BYTES ? false : unpack('Vbytes/Vfree/gbusy/vcount', $bytes);
        if (false === $told || \strlen($bytes) !== self::ABOUT_BYTES + 8 * $told['count']) {
            throw LinkError::answerTooShort($request);
        }
        $recordings = [];
        for ($i = 0; $i < $told['count']; ++$i) {
            /** @var array{number: int, bytes: int} $one */
            $one = (array) unpack('Vnumber/Vbytes', $bytes, self::ABOUT_BYTES + 8 * $i);
            $recordings[$one['number']] = $one['bytes'];
        }

        return new RecorderState($told['bytes'], $told['free'], $told['busy'], $recordings);
    }

    /** @throws LinkError also where it gave fewer bytes than there should be */
    public function read(int $number, int $at, int $length): string
    {
        $request = Request::to(Task::ReadRecording, $number);
        $bytes = $this->board->request(Message::RECORDER, pack('CVVV', self::READ, $number, $at, $length), $request, self::TIMEOUT_MS);

        return \strlen($bytes) === $length ? $bytes : throw LinkError::answerTooShort($request);
    }

    /** CRC-32 (as in zlib) of a stretch of it, as the board holds it. @throws LinkError */
    public function sum(int $number, int $at, int $length): int
    {
        $request = Request::to(Task::ReadRecording, $number);
        $bytes = $this->board->request(Message::RECORDER, pack('CVVV', self::SUM, $number, $at, $length), $request, self::TIMEOUT_MS);
        /** @var array{1: int}|false $sum */
        $sum = 4 === \strlen($bytes) ? unpack('V', $bytes) : false;

        return false === $sum ? throw LinkError::answerTooShort($request) : $sum[1];
    }

    /** Begins to forget all recordings; about() tells when it is done. @throws LinkError */
    public function erase(): void
    {
        $this->board->request(Message::RECORDER, \chr(self::ERASE), Request::to(Task::EraseRecorder), self::TIMEOUT_MS);
    }
}
