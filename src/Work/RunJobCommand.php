<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'app:job', description: 'Runs one job; started by the application itself.')]
final class RunJobCommand extends Command
{
    public function __construct(private readonly JobRunner $runner)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('id', InputArgument::REQUIRED, 'the row of the job');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $id = $input->getArgument('id');
        $this->runner->run(is_numeric($id) ? (int) $id : 0);

        return Command::SUCCESS;
    }
}
