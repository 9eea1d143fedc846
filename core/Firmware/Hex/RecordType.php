<?php

declare(strict_types=1);

namespace Ortholex\Core\Firmware\Hex;

/** What a record of an Intel HEX file is. */
enum RecordType: int
{
    case Data = 0;
    case End = 1;
    case ExtendedSegmentAddress = 2;
    case StartSegmentAddress = 3;
    case ExtendedLinearAddress = 4;
    case StartLinearAddress = 5;

    /** Bytes that it must carry; null where any number will do. */
    public function length(): ?int
    {
        return match ($this) {
            self::Data => null,
            self::End => 0,
            self::ExtendedSegmentAddress, self::ExtendedLinearAddress => 2,
            self::StartSegmentAddress, self::StartLinearAddress => 4,
        };
    }
}
