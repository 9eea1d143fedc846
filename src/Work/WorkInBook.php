<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Step\NextStep;
use Ortholex\App\Book\Step\NextStepSource;
use Ortholex\App\Book\Step\Urgency;
use Symfony\Component\DependencyInjection\Attribute\TaggedIterator;
use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** Work that was left in the middle. */
final readonly class WorkInBook implements NextStepSource
{
    /** @param iterable<JobHandler> $handlers */
    public function __construct(
        private Jobs $jobs,
        #[TaggedIterator(JobHandler::class)] private iterable $handlers,
        private UrlGeneratorInterface $urls,
    ) {
    }

    public function steps(Craft $craft): iterable
    {
        foreach ($this->jobs->of($craft) as $job) {
            // What was left half done is told by whoever knows the other half.
            if ($job->state->isUnfinished() && JobState::HalfDone !== $job->state) {
                $to = $this->urls->generate($this->route($job), ['slug' => $craft->slug]);
                yield new NextStep(Urgency::Unfinished, "“{$job->title}” was not finished.", $to, 'See what happened');
            }
        }
    }

    /** The page where this kind of work is begun, and begun again. */
    private function route(Job $job): string
    {
        foreach ($this->handlers as $handler) {
            if ($handler->kind() === $job->kind) {
                return $handler->route();
            }
        }
        throw new \LogicException("Nothing here knows how to do “{$job->kind}”.");
    }
}
