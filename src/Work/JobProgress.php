<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Exception\DriverException;
use Ortholex\App\Work\Process\TimeLeft;

/** Writes a job's progress and heartbeat, at most five times a second, and learns whether it was cancelled. */
final class JobProgress
{
    private float $told = 0.0;

    /** Which part of the whole is told: from where, and how much of it. */
    private float $from = 0.0;

    private float $of = 1.0;

    public function __construct(
        private readonly Connection $db,
        private readonly int $jobId,
        private readonly TimeLeft $left = new TimeLeft(),
    ) {
    }

    /** Of work that nobody waits for. */
    public static function toNobody(Connection $db): self
    {
        return new self($db, 0);
    }

    /** For work that is a part of this: its own 0 to 1 is told as so much of the whole, from there on. */
    public function part(float $from, float $of): self
    {
        $part = new self($this->db, $this->jobId, $this->left);
        $part->from = $from;
        $part->of = $of;

        return $part;
    }

    /**
     * @param float $share 0 to 1
     *
     * @throws JobCancelled
     */
    public function at(float $share, string $doing, JobStep $step = new JobStep()): void
    {
        // A clock that only goes forward: set back, the other would keep this silent.
        $now = hrtime(true) / 1e9;
        if ($now - $this->told < 0.2 && $share < 1.0) {
            return;
        }
        $this->told = $now;
        try {
            $this->tell($this->from + $this->of * $share, $doing, $step, microtime(true));
        } catch (DriverException) {
            // The book is busy or its disk is full: the work itself goes on, and tells the next time.
            return;
        }
        if ((bool) $this->db->fetchOne('SELECT cancel_asked FROM job WHERE id = ?', [$this->jobId])) {
            throw new JobCancelled('Cancelled.');
        }
    }

    private function tell(float $share, string $doing, JobStep $step, float $now): void
    {
        $this->db->executeStatement('UPDATE job SET progress = ?, doing = ?, step = ?, heartbeat_at = ? WHERE id = ?', [
            $share,
            $doing,
            json_encode($this->left->at(hrtime(true) / 1e9, $share, $step->leftS) + $step->toArray(), \JSON_THROW_ON_ERROR),
            $now,
            $this->jobId,
        ]);
    }

    /**
     * Tells what is there already, while the rest goes on.
     *
     * @param array<string, mixed> $result
     */
    public function have(array $result): void
    {
        $this->told = 0.0;
        $this->db->executeStatement('UPDATE job SET result = ? WHERE id = ?', [json_encode($result, \JSON_THROW_ON_ERROR), $this->jobId]);
    }
}
