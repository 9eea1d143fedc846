<?php

declare(strict_types=1);

namespace Ortholex\Core\Link\Aids;

use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Link\Message;
use Ortholex\Core\Link\Request;
use Ortholex\Core\Link\Task;

/** Asks a board for what helps a pilot: what hangs on its ports, its compass, the picture, the camera's servo. */
final readonly class AidsClient
{
    private const TIMEOUT_MS = 2000;

    public function __construct(private BoardClient $board)
    {
    }

    /**
     * Says bytes at a port, at a rate, and gives what came back within a third of a second.
     *
     * @throws LinkError
     */
    public function say(string $uart, int $baud, string $bytes): string
    {
        return $this->board->request(
            Message::SERIAL,
            Message::fields([$uart, (string) $baud, $bytes]),
            Request::to(Task::SpeakAtUart, $uart),
            self::TIMEOUT_MS,
        );
    }

    /**
     * @param int $count of readings, 20 ms apart, the first now
     *
     * @return list<CompassReading>
     *
     * @throws LinkError refused without a compass, or while it is off
     */
    public function compass(int $count): array
    {
        $bytes = $this->board->request(Message::COMPASS, \chr($count), Request::to(Task::ReadCompass), self::TIMEOUT_MS);
        $readings = [];
        foreach (str_split($bytes, 28) as $one) {
            /** @var array<int, float>|false $v */
            $v = 28 === \strlen($one) ? unpack('g7', $one) : false;
            if (false === $v) {
                throw LinkError::answerTooShort(Request::to(Task::ReadCompass));
            }
            $readings[] = new CompassReading([$v[1], $v[2], $v[3]], [$v[4], $v[5], $v[6]], $v[7]);
        }

        return $readings;
    }

    /** @throws LinkError refused for an output that drives no camera */
    public function servo(int $pad, float $us): void
    {
        $this->board->request(Message::SERVO, pack('Cg', $pad, $us), Request::to(Task::DriveServo, (string) $pad), self::TIMEOUT_MS);
    }

    /** @throws LinkError */
    public function picture(): DrawnPicture
    {
        $f = Message::unfields($this->board->request(Message::PICTURE, '', Request::to(Task::ReadPicture), self::TIMEOUT_MS));
        if (\count($f) < 5) {
            throw LinkError::answerTooShort(Request::to(Task::ReadPicture));
        }

        $items = [];
        foreach (\array_slice($f, 5 + (int) $f[4]) as $code => $text) {
            $items[$code] = explode("\n", $text);
        }

        return new DrawnPicture(
            '' === $f[0] ? null : (int) $f[0],
            $f[1],
            (float) $f[2],
            (float) $f[3],
            \array_slice($f, 5, (int) $f[4]),
            $items,
        );
    }
}
