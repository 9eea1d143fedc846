<?php

declare(strict_types=1);

namespace Ortholex\App\Share;

use Ortholex\App\Book\Share\BookImport;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobHandler;
use Ortholex\App\Work\JobProgress;

/** What of a book takes long to read: its logs, and what rests on them. */
final readonly class BookHandler implements JobHandler
{
    public function __construct(private BookImport $import)
    {
    }

    public function kind(): string
    {
        return 'read_book';
    }

    public function route(): string
    {
        return 'book';
    }

    public function run(Job $job, JobProgress $progress): array
    {
        $path = \is_string($job->parameters['path'] ?? null) ? $job->parameters['path'] : '';
        $book = $this->import->open($path);
        // What was read before is told together with what is read now.
        $left = \is_array($job->parameters['left'] ?? null) ? $job->parameters['left'] : [];
        $taken = \is_array($job->parameters['taken'] ?? null) ? $job->parameters['taken'] : [];
        $book->tells = static fn (float $share, string $doing) => $progress->at($share, $doing);
        $this->import->read($job->craft, $book, true);
        @unlink($path);
        $progress->at(1.0, 'done');

        return ['taken' => $taken + $book->taken, 'left' => $left + $book->left];
    }
}
