<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

/** How far a job is, or how it ended; the value stands in its row and on its sheet. */
enum JobState: string
{
    /** Behind other work on its craft. */
    case Queued = 'queued';

    /** Its process has not begun yet. */
    case Waiting = 'waiting';
    case Running = 'running';
    case Done = 'done';
    case HalfDone = 'half done';
    case Failed = 'failed';
    case Cancelled = 'cancelled';
    case Interrupted = 'interrupted';

    /** It ended without its end, and nobody wanted that. */
    public function isUnfinished(): bool
    {
        return self::Failed === $this || self::Interrupted === $this || self::HalfDone === $this;
    }

    public function isOpen(): bool
    {
        return \in_array($this, self::open(), true);
    }

    /** @return list<self> */
    public static function open(): array
    {
        return [self::Queued, self::Waiting, self::Running];
    }
}
