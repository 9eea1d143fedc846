<?php

declare(strict_types=1);

namespace Ortholex\Core\Radio;

use Ortholex\Core\Fact\Code;

/** What a board hears of its receiver, as it is set. */
enum Heard: string implements Code
{
    case Frames = 'radio_heard.frames';

    /** Frames by which the receiver says that its own failsafe speaks. */
    case Failsafe = 'radio_heard.failsafe';

    /** The receiver speaks, and has no transmitter. */
    case NoLink = 'radio_heard.no_link';

    /** Something arrives that makes no frame: other protocol, rate or polarity. */
    case Rubbish = 'radio_heard.rubbish';

    case Silent = 'radio_heard.silent';

    /** No port of the board has the job. */
    case NotSet = 'radio_heard.not_set';

    public function code(): int
    {
        return (int) array_search($this, self::cases(), true);
    }

    public static function ofCode(int $code): self
    {
        return self::cases()[$code] ?? self::Silent;
    }
}
