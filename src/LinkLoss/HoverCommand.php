<?php

declare(strict_types=1);

namespace Ortholex\App\LinkLoss;

use Ortholex\App\FlightLog\LogOptions;
use Ortholex\App\Words\Aside;
use Ortholex\App\Words\Words;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\LinkLoss\HoverOutput;
use Ortholex\Core\Pack\PackError;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'hover', description: 'Reads a flight log and says at which output the craft hovers, and at which pack voltage.')]
final class HoverCommand extends Command
{
    private const JSON = \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR;

    public function __construct(private readonly Words $words)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('log', InputArgument::REQUIRED, 'the log, as CSV or CSV.gz');
        LogOptions::add($this);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $path = $input->getArgument('log');
        try {
            $hover = HoverOutput::of(LogOptions::read(\is_string($path) ? $path : '', $input));
        } catch (LogError|PackError $e) {
            return Aside::refuse($output, $this->words->ofProblem($e));
        }
        $output->writeln(
            true === $input->getOption('json')
                ? json_encode($hover->toArray(), self::JSON)
                : \sprintf(
                    'hovers at %.1f %% of output, give or take %.1f, at %.2f V; from %d windows',
                    $hover->hoverPct,
                    $hover->spreadPct,
                    $hover->packV,
                    $hover->windows,
                ),
            OutputInterface::OUTPUT_RAW,
        );

        return self::SUCCESS;
    }
}
