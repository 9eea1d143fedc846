<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Shell\Answer;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Symfony\Component\Routing\Attribute\Route;

#[AsController]
final readonly class JobController
{
    public function __construct(private Jobs $jobs, private EntityManagerInterface $entities)
    {
    }

    #[Route('/jobs/{id<\d+>}/{action<cancel|again|seen>}', name: 'job_action', methods: ['POST'])]
    public function act(int $id, string $action): Answer
    {
        $job = $this->jobs->find($id) ?? throw new NotFoundHttpException('There is no such job.');
        if ('cancel' === $action) {
            $this->jobs->cancel($job);

            return Answer::said($job->isOpen() ? "“{$job->title}” is being cancelled." : "“{$job->title}” is cancelled.");
        }
        if ('again' === $action) {
            $job = $this->jobs->again($job);
        } else {
            $job->seen = true;
            $this->entities->flush();
        }

        return Answer::of(['job' => $job->id]);
    }
}
