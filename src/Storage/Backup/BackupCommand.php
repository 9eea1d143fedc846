<?php

declare(strict_types=1);

namespace Ortholex\App\Storage\Backup;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'backup', description: '“keep” copies all data into a folder while the server runs, “restore” brings them back.')]
final class BackupCommand extends Command
{
    public function __construct(private readonly Backup $backup)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('what', InputArgument::REQUIRED, 'keep or restore')->addArgument(
            'folder',
            InputArgument::REQUIRED,
            'where the backup is, or is to be',
        );
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $what = $input->getArgument('what');
        $folder = $input->getArgument('folder');
        $folder = \is_string($folder) ? rtrim($folder, '/') : '';
        try {
            if ('keep' === $what) {
                $output->writeln(\sprintf('Kept in %s: %.1f MB.', $folder, $this->backup->keep($folder) / 1e6));

                return Command::SUCCESS;
            }
            if ('restore' === $what) {
                $output->writeln("Brought back. What was there before is kept in {$this->backup->restore($folder)}.");

                return Command::SUCCESS;
            }
            $output->writeln('backup keep FOLDER, or backup restore FOLDER');
        } catch (BackupError $e) {
            $output->writeln($e->getMessage());
        }

        return Command::FAILURE;
    }
}
