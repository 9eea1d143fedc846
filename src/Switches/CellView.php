<?php

declare(strict_types=1);

namespace Ortholex\App\Switches;

use Ortholex\Core\Switches\Cell;

/** One cell of the table. */
final readonly class CellView
{
    /** Channel and position. */
    public string $column;

    public string $id;

    /**
     * @param string $cell     action.channel.position
     * @param string $with     what it needs with it, in words
     * @param bool   $staged   whether it differs from the craft
     * @param bool   $here     whether the lever stands there now
     * @param bool   $proposed whether the flicked lever means it
     * @param string $called   the cell in words
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
        public string $called,
    ) {
        $this->column = substr($cell, (int) strpos($cell, '.') + 1);
        $this->id = strtr($cell, '.', '-');
    }

    /** How it is drawn. */
    public function classes(): string
    {
        return implode(' ', array_keys(array_filter([
            'begins' => str_ends_with($this->column, '.0'),
            'here' => $this->here,
            'on' => $this->isOn(),
            'staged' => $this->staged,
            'proposed' => $this->proposed,
        ])));
    }

    public function isOn(): bool
    {
        return Cell::Off !== $this->state;
    }
}
