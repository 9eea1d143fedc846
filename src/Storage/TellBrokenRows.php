<?php

declare(strict_types=1);

namespace Ortholex\App\Storage;

use Doctrine\Bundle\DoctrineBundle\Attribute\AsDoctrineListener;
use Psr\Log\LoggerInterface;

/** Whoever finds rows of the book broken tells it here, and so it stands on the page, and in the log. */
#[AsDoctrineListener(event: SoundRepository::BROKEN)]
final readonly class TellBrokenRows
{
    public function __construct(private Trouble $trouble, private LoggerInterface $log)
    {
    }

    public function onBrokenRows(BrokenRowsMet $met): void
    {
        foreach ($met->words as $words) {
            if (!$this->trouble->meet("In the book, $words cannot be read")) {
                continue;
            }
            $this->log->error('In the book, {row} cannot be read.', ['row' => $words]);
        }
    }
}
