<?php

declare(strict_types=1);

namespace Ortholex\App\Record\Told;

use Ortholex\App\Settings\File\SettingsFile;
use Ortholex\App\Settings\File\SettingsFileError;
use Ortholex\App\Words\Aside;
use Ortholex\App\Words\Words;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Consistency;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'settings', description: '“check” reads settings as YAML and says what is wrong with them.')]
final class SettingsCommand extends Command
{
    public function __construct(private readonly SettingsFile $files, private readonly Catalogue $catalogue, private readonly Words $words)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('what', InputArgument::REQUIRED, 'check')
            ->addArgument('file', InputArgument::REQUIRED, 'settings as YAML, one a line; what is left out counts as default')
            ->addOption('motors', null, InputOption::VALUE_REQUIRED, 'how many the craft has', '4')
            ->addOption('processor', null, InputOption::VALUE_REQUIRED, 'of its board: F4, F7 or H7', 'F7');
    }

    /** Exit 0 when all is well, 1 when something does not hold together, 2 when it cannot be read. */
    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $word = static fn (mixed $given): string => \is_string($given) ? $given : '';
        if ('check' !== $input->getArgument('what')) {
            return Aside::refuse($output, 'Settings can be checked: settings check FILE.yaml');
        }
        $motors = $word($input->getOption('motors'));
        if (1 !== preg_match('~^[3-8]$~', $motors)) {
            return Aside::refuse($output, "--motors takes a number from 3 to 8, not “{$motors}”.");
        }
        $processor = $word($input->getOption('processor'));
        if (!\in_array($processor, ['F4', 'F7', 'H7'], true)) {
            return Aside::refuse($output, "--processor takes F4, F7 or H7, not “{$processor}”.");
        }
        try {
            $set = $this->files->read($word($input->getArgument('file')));
        } catch (SettingsFileError $e) {
            return Aside::refuse($output, $e->getMessage());
        }
        $current = Version::parse(Catalogue::CURRENT);
        $whole = $this->catalogue->defaults($current)->with($set);
        $clashes = Consistency::of($whole, $current, new Circumstances((int) $motors, $processor));
        foreach ($clashes as $clash) {
            $output->writeln($this->words->of($clash->what), OutputInterface::OUTPUT_RAW);
        }
        if ([] !== $clashes) {
            return self::FAILURE;
        }
        $output->writeln(\count($set).' settings, all in range, and they hold together.');

        return self::SUCCESS;
    }
}
