<?php

declare(strict_types=1);

namespace Ortholex\Core\Link;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\TeachStep;
use Ortholex\Core\Firmware\BoardIdentity;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Radio\Wire\Edges;

/** Our end of the link: asks, waits, repeats once when an answer was garbled, and turns bytes into values. */
final class BoardClient implements PageTarget
{
    private const TIMEOUT_MS = 400;

    private string $buffer = '';

    public function __construct(private readonly ByteLink $link)
    {
    }

    /** @throws LinkError */
    public function identity(int $timeoutMs = self::TIMEOUT_MS): BoardIdentity
    {
        $f = Message::unfields($this->ask(Message::IDENTITY, '', Request::to(Task::WhoAreYou), $timeoutMs));
        if (\count($f) < 9) {
            throw LinkError::answerTooShort(Request::to(Task::WhoAreYou));
        }

        return new BoardIdentity(
            $f[0],
            $f[1],
            $f[2],
            (int) $f[3],
            (int) $f[4],
            (int) $f[5],
            $f[6],
            $f[7],
            '' === $f[8] ? null : Version::parse($f[8]),
            '' === $f[7],
            self::words($f[9] ?? ''),
            self::words($f[10] ?? ''),
        );
    }

    /** @throws LinkError */
    public function state(): BoardState
    {
        $bytes = $this->ask(Message::STATE, '', Request::to(Task::HowAreYou));
        /** @var array<string, float|int>|false $v */
        $v = \strlen($bytes) < 25 ? false : unpack('gup/groll/gpitch/gyaw/gbattery/gload/Cpack', $bytes);
        if (false === $v) {
            throw LinkError::answerTooShort(Request::to(Task::HowAreYou));
        }

        return new BoardState(
            (float) $v['up'],
            (float) $v['roll'],
            (float) $v['pitch'],
            (float) $v['yaw'],
            (float) $v['battery'],
            (float) $v['load'],
            1 === $v['pack'],
        );
    }

    /**
     * Specific force as the accelerometer reads it, in the board's own axes, averaged over some readings.
     *
     * @return array{float, float, float} g
     *
     * @throws LinkError
     */
    public function accelerometer(int $readings = 8): array
    {
        $sum = [0.0, 0.0, 0.0];
        for ($i = 0; $i < $readings; ++$i) {
            $bytes = $this->ask(Message::SENSORS, '', Request::to(Task::ReadSensors));
            /** @var array{x: float, y: float, z: float}|false $v */
            $v = \strlen($bytes) < 12 ? false : unpack('gx/gy/gz', $bytes);
            if (false === $v) {
                throw LinkError::answerTooShort(Request::to(Task::ReadSensors));
            }
            $sum = [$sum[0] + $v['x'], $sum[1] + $v['y'], $sum[2] + $v['z']];
        }

        return [$sum[0] / $readings, $sum[1] / $readings, $sum[2] / $readings];
    }

    /** @throws LinkError */
    public function readSettings(): SettingSet
    {
        $settings = [];
        $from = 0;
        do {
            $fields = Message::unfields($this->ask(Message::READ_SETTINGS, pack('v', $from), Request::to(Task::ReadSettings)));
            $total = (int) array_shift($fields);
            for ($i = 0; $i + 1 < \count($fields); $i += 2) {
                $value = json_decode($fields[$i + 1]);
                $settings[$fields[$i]] = \is_scalar($value) ? $value : '';
                ++$from;
            }
        } while ($from < $total && [] !== $fields);

        return SettingSet::of($settings);
    }

    /** @throws LinkError refused when the board knows no such setting or value */
    public function writeSetting(string $name, float|int|bool|string $value): void
    {
        $fields = Message::fields([$name, (string) json_encode($value, \JSON_PRESERVE_ZERO_FRACTION)]);
        $this->ask(Message::WRITE_SETTING, $fields, Request::to(Task::Write, $name));
    }

    /** @throws LinkError */
    public function keepSettings(): void
    {
        $this->ask(Message::KEEP_SETTINGS, '', Request::to(Task::KeepSettings), 1500);
    }

    /**
     * Drives one output pad gently; the board stops by itself when this is not said again within half a second.
     *
     * @param int   $pad     0 drives all motors alike
     * @param float $percent 0 stops at once
     * @param bool  $bare    who holds the craft says that the props are off: then up to 60 %, else 15
     *
     * @throws LinkError refused when the motors have no power
     */
    public function spin(int $pad, float $percent, bool $bare = false): void
    {
        $this->ask(Message::SPIN, pack('Cg', $pad, $percent).($bare ? "\1" : ''), Request::to(Task::SpinOutput, $pad));
    }

    /**
     * Hands bytes to the ESC on an output pad and gives back what it sent; '' when it stayed silent.
     *
     * @throws LinkError refused when the ESCs have no power or were powered before the link
     */
    public function relay(int $pad, string $bytes): string
    {
        return $this->ask(Message::RELAY, \chr($pad).$bytes, Request::to(Task::SpeakToEsc, $pad), 900);
    }

    /** Has the ESC on a pad held in its bootloader when it is powered next. @throws LinkError */
    public function catchEsc(int $pad): void
    {
        $this->ask(Message::CATCH_ESC, \chr($pad), Request::to(Task::CatchEsc, $pad));
    }

    /**
     * One step of teaching analogue ESCs their end points.
     *
     * @throws LinkError refused when the step would spin the motors
     */
    public function teach(TeachStep $step): void
    {
        $this->ask(Message::TEACH, $step->value, Request::to(Task::HoldOutputs, $step->value));
    }

    /**
     * What the ESC on a pad answered on the signal wire since the outputs last changed.
     *
     * @return array{erpm: list<int>, errors_pct: float} electrical revolutions per minute, newest last; 0 where the rotor stood
     *
     * @throws LinkError refused when rpm feedback is off or the ESC cannot
     */
    public function rpm(int $pad): array
    {
        $bytes = $this->ask(Message::RPM, \chr($pad), Request::to(Task::ReadRpm, $pad));
        /** @var array{errors: float}|false $head */
        $head = \strlen($bytes) < 4 ? false : unpack('gerrors', $bytes);
        if (false === $head) {
            throw LinkError::answerTooShort(Request::to(Task::ReadRpm, $pad));
        }
        /** @var array<int, int>|false $erpm */
        $erpm = \strlen($bytes) >= 8 ? unpack('V*', $bytes, 4) : [];

        return ['erpm' => array_values(false === $erpm ? [] : $erpm), 'errors_pct' => $head['errors']];
    }

    /**
     * A burst of raw gyro samples of one axis.
     *
     * @param int $axis 0 roll, 1 pitch, 2 yaw
     *
     * @return array{list<float>, float} deg/s, and samples per second
     *
     * @throws LinkError
     */
    public function gyroBurst(int $axis): array
    {
        $bytes = $this->ask(Message::GYRO_BURST, \chr($axis), Request::to(Task::RecordGyro), 2500);
        /** @var array{hz: float}|false $head */
        $head = \strlen($bytes) < 4 ? false : unpack('ghz', $bytes);
        /** @var array<int, int>|false $raw */
        $raw = \strlen($bytes) >= 6 ? unpack('v*', $bytes, 4) : false;
        if (false === $head || false === $raw) {
            throw LinkError::answerTooShort(Request::to(Task::RecordGyro));
        }

        return [array_map(static fn (int $v): float => ($v > 32767 ? $v - 65536 : $v) / 16.4, array_values($raw)), $head['hz']];
    }

    /**
     * Bytes that arrive at a UART within a time, listened to at any rate; its settings stay as they are.
     *
     * @param float $seconds a quarter at least, 1.2 at most
     *
     * @throws LinkError refused when the board has no such UART
     */
    public function listen(string $uart, int $baud, bool $inverted, float $seconds = 0.25): string
    {
        return $this->ask(
            Message::LISTEN,
            Message::fields([$uart, (string) $baud, $inverted ? '1' : '0', \sprintf('%.2f', $seconds)]),
            Request::to(Task::ListenAtUart, $uart),
            2500,
        );
    }

    /**
     * The changes of level on a UART's receiving wire over an eighth of a second, whatever it is set to.
     *
     * @throws LinkError refused when the board has no such UART
     */
    public function edges(string $uart): Edges
    {
        return Edges::unpack($this->ask(Message::EDGES, Message::fields([$uart]), Request::to(Task::CatchEdges, $uart), 1500));
    }

    /**
     * What the board makes of its receiver now.
     *
     * @param int $since number of the last frame that is known; newer ones are told
     *
     * @throws LinkError
     */
    public function radio(int $since): RadioReading
    {
        return RadioReading::unpack($this->ask(Message::RADIO, pack('V', $since), Request::to(Task::ReadRadio)))
            ?? throw LinkError::answerTooShort(Request::to(Task::ReadRadio));
    }

    /**
     * Lets the board arm with its cable in, for some seconds; to be said again while a rehearsal goes on.
     *
     * @throws LinkError
     */
    public function rehearse(bool $goes): void
    {
        $this->ask(Message::REHEARSE, $goes ? "\1" : "\0", Request::to(Task::Rehearse));
    }

    /** @throws LinkError */
    public function restart(): void
    {
        $this->ask(Message::RESTART, '', Request::to(Task::Restart));
    }

    /** @throws LinkError */
    public function toBootloader(): void
    {
        $this->ask(Message::TO_BOOTLOADER, '', Request::to(Task::ToBootloader));
    }

    /** @throws LinkError */
    public function wipeSettings(): void
    {
        $this->ask(Message::WIPE_SETTINGS, '', Request::to(Task::WipeSettings), 1500);
    }

    /** @throws LinkError refused when the page did not take */
    public function writePage(int $address, string $bytes): void
    {
        $this->ask(Message::WRITE_PAGE, pack('V', $address).$bytes, Request::at(Task::WritePage, $address, 8), 1500);
    }

    /** @throws LinkError */
    public function readFlash(int $address, int $length): string
    {
        return $this->ask(Message::READ_FLASH, pack('Vv', $address, $length), Request::at(Task::ReadFlash, $address, 8), 1500);
    }

    /** @throws LinkError */
    public function run(): void
    {
        $this->ask(Message::RUN, '', Request::to(Task::Run));
    }

    /** Waits until the board answers again after a restart. @throws LinkError when it does not within $withinMs */
    public function awaitIdentity(int $withinMs): BoardIdentity
    {
        $end = $this->link->nowMs() + $withinMs;
        while (true) {
            try {
                return $this->identity(100);
            } catch (LinkError $e) {
                if ($e->lost || $this->link->nowMs() >= $end) {
                    throw $e->lost ? $e : LinkError::silent(Request::to(Task::WhoAreYou), $withinMs);
                }
            }
        }
    }

    /** @return list<string> */
    private static function words(string $field): array
    {
        return array_values(array_filter(explode(',', $field), static fn (string $w): bool => '' !== $w));
    }

    /**
     * A request of any kind, for who speaks of more than this client does.
     *
     * @throws LinkError
     */
    public function request(int $kind, string $payload, Request $request, int $timeoutMs): string
    {
        return $this->ask($kind, $payload, $request, $timeoutMs);
    }

    private function ask(int $kind, string $payload, Request $request, int $timeoutMs = self::TIMEOUT_MS): string
    {
        // Every request may safely be sent twice, so one garbled answer is not yet a failure.
        for ($try = 0; $try < 2; ++$try) {
            $this->buffer = '';
            $this->link->write((new Message($kind, $payload))->encode());
            $end = $this->link->nowMs() + $timeoutMs;
            do {
                $this->buffer .= $this->link->read(16384, max(1, $end - $this->link->nowMs()));
                while (null !== ($frame = Message::take($this->buffer))) {
                    if ($frame->kind === ($kind | Message::ANSWER)) {
                        return $frame->payload;
                    }
                    if (Message::REFUSAL === $frame->kind) {
                        throw LinkError::refused($request, $frame->payload);
                    }
                }
            } while ($this->link->nowMs() < $end);
        }
        throw LinkError::silent($request, $timeoutMs);
    }
}
