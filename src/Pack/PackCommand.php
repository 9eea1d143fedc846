<?php

declare(strict_types=1);

namespace Ortholex\App\Pack;

use Ortholex\App\FlightLog\LogOptions;
use Ortholex\App\Words\Aside;
use Ortholex\App\Words\Words;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\Pack\PackError;
use Ortholex\Core\Pack\PackFit;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'pack', description: '“fit” reads a flight log and says what it tells of the pack: charge, resistance, voltage at rest.')]
final class PackCommand extends Command
{
    private const JSON = \JSON_UNESCAPED_UNICODE | \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR;
    private const MOST_CELLS = 12;

    public function __construct(private readonly Words $words)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('what', InputArgument::REQUIRED, 'fit');
        $this->addArgument('log', InputArgument::REQUIRED, 'the log, as CSV or CSV.gz');
        $this->addOption('cells', null, InputOption::VALUE_REQUIRED, 'how many cells the pack has');
        LogOptions::add($this);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$what, $path, $cells] = [$input->getArgument('what'), $input->getArgument('log'), $input->getOption('cells')];
        if ('fit' !== $what) {
            return Aside::refuse($output, 'A pack can be told to “fit”: pack fit LOG.csv --cells 6');
        }
        $cells = \is_string($cells) && 1 === preg_match('~^\d{1,2}$~', $cells) ? (int) $cells : 0;
        if ($cells < 1 || $cells > self::MOST_CELLS) {
            return Aside::refuse($output, '--cells takes how many cells the pack has, from 1 to 12.');
        }
        try {
            $fit = PackFit::of(LogOptions::read(\is_string($path) ? $path : '', $input), $cells);
        } catch (LogError|PackError $e) {
            return Aside::refuse($output, $this->words->ofProblem($e));
        }
        if (true === $input->getOption('json')) {
            $output->writeln(json_encode($fit->toArray(), self::JSON), OutputInterface::OUTPUT_RAW);

            return self::SUCCESS;
        }
        $output->writeln(\sprintf('%.3f Ah used', $fit->chargeAh));
        $output->writeln(\sprintf('%.2f mΩ a cell, %.2f to %.2f', 1000 * $fit->ohm, 1000 * $fit->low, 1000 * $fit->high));
        foreach ($fit->rest as [$ah, $volts]) {
            $output->writeln(\sprintf('  %6.3f Ah  %5.3f V a cell at rest', $ah, $volts));
        }

        return self::SUCCESS;
    }
}
