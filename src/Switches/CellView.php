<?php

declare(strict_types=1);

namespace Ortholex\App\Switches;

use Ortholex\Core\Switches\Cell;

/** One cell of the table. */
final readonly class CellView
{
    /**
     * @param string $cell     action.channel.position
     * @param string $with     what it needs with it, in words
     * @param bool   $staged   whether it differs from the craft
     * @param bool   $here     whether the lever stands there now
     * @param bool   $proposed whether the flicked lever means it
     * @param int    $remark   number of the remark that stands here; 0 for none
     */
    public function __construct(
        public string $cell,
        public Cell $state,
        public string $with,
        public bool $staged,
        public bool $here,
        public bool $proposed,
        public int $remark,
    ) {
    }

    public function isOn(): bool
    {
        return Cell::Off !== $this->state;
    }
}
