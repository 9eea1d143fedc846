<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Live\LiveSource;

/** Long work that is under way, or whose end was not yet seen. */
final readonly class JobsLive implements LiveSource
{
    /** What of a result a page needs, to lead on. */
    private const TOLD = ['log' => 1, 'code' => 1, 'version' => 1];

    public function __construct(private Jobs $jobs)
    {
    }

    public function key(): string
    {
        return 'jobs';
    }

    /** @return list<array<string, mixed>> newest first */
    public function facts(Craft $craft): array
    {
        return array_map(
            static fn (Job $j): array => [
                'id' => $j->id,
                'kind' => $j->kind,
                'title' => $j->title,
                'state' => $j->state->value,
                'progress' => round($j->progress, 3),
                'doing' => self::doing($j),
                'step' => (object) $j->step,
                'message' => $j->message,
                'open' => $j->isOpen(),
                'result' => array_intersect_key($j->result, self::TOLD),
            ],
            $this->jobs->of($craft),
        );
    }

    private static function doing(Job $job): string
    {
        if ($job->isOpen() && $job->cancelAsked) {
            return 'Cancelling: it ends at the next step.';
        }
        $left = $job->step['left_s'] ?? null;
        if (!$job->isOpen() || !is_numeric($left)) {
            return $job->doing;
        }
        $slower = true === ($job->step['slower'] ?? false) ? ', slower than it looked' : '';

        return $job->doing.', about '.(int) ceil((float) $left)." s left$slower";
    }
}
