<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio\Protocol;

/** How a receiver tells a board its channels. */
enum Protocol: string
{
    case Sbus = 'sbus';
    case Crsf = 'crsf';

    /** One pulse train for all channels. */
    case Ppm = 'ppm';

    /** A wire a channel. */
    case Pwm = 'pwm';

    public function isSerial(): bool
    {
        return self::Sbus === $this || self::Crsf === $this;
    }

    /** How its bits stand on the wire as its definition has them; null for pulses. */
    public function line(): ?Line
    {
        return match ($this) {
            self::Sbus => new Line(100_000, Parity::Even, 2, true),
            self::Crsf => new Line(420_000, Parity::None, 1, false),
            self::Ppm, self::Pwm => null,
        };
    }

    /** How many channels it carries. */
    public function channels(): int
    {
        return $this->isSerial() ? RadioFrame::CHANNELS : 8;
    }
}
