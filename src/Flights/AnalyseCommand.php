<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

use Ortholex\Core\Analysis\AnalysisReport;
use Ortholex\Core\Analysis\FlightAnalysis;
use Ortholex\Core\FlightLog\LogError;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Helper\Table;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'analyse', description: 'Reads a flight log (CSV, plain or gzip) and says what it tells.')]
final class AnalyseCommand extends Command
{
    protected function configure(): void
    {
        $this->addArgument('log', InputArgument::REQUIRED, 'the log, as CSV or CSV.gz');
        LogOptions::add($this);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $path = $input->getArgument('log');
        try {
            $log = LogOptions::read(\is_string($path) ? $path : '', $input);
        } catch (LogError $e) {
            ($output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output)->writeln($e->getMessage());

            return 2;
        }
        $report = AnalysisReport::of($log, FlightAnalysis::of($log, false));
        if (true === $input->getOption('json')) {
            $output->writeln((string) json_encode($report, \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION), OutputInterface::OUTPUT_RAW);

            return self::SUCCESS;
        }
        $gaps = \count($log->clock->gaps());
        $output->writeln(\sprintf('%.2f s at %.1f Hz, %d samples, %d gap%s, %d bad row%s', $log->clock->durationS(), $log->clock->rateHz, $log->clock->samples, $gaps, 1 === $gaps ? '' : 's', $log->badRows->count, 1 === $log->badRows->count ? '' : 's'));
        foreach ($log->badRows->places as $place) {
            $output->writeln(\sprintf('  line %d, %d row(s): %s', $place['line'], $place['count'], $place['reason']));
        }
        $table = new Table($output);
        $table->setHeaders(['axis', 'half there', 'rise', 'peak', 'at', 'steady', 'grade', 'measured RMS', 'filtered RMS', 'peaks measured']);
        foreach ($report['step'] as $axis => $step) {
            $measured = Dig::map($report['spectrum'], $axis, 'measured');
            $filtered = Dig::map($report['spectrum'], $axis, 'filtered');
            $n = static fn (array $from, string $key, string $format): string => null === Dig::number($from, $key) ? '–' : \sprintf($format, Dig::number($from, $key));
            $peaks = array_map(static fn (mixed $p): string => \sprintf('%.0f Hz', Dig::number(\is_array($p) ? $p : [], 'hz') ?? 0), Dig::map($measured, 'peaks'));
            $table->addRow([
                $axis, $n($step, 'delay_ms', '%.1f ms'), $n($step, 'rise_ms', '%.1f ms'), $n($step, 'peak', '%.3f'), $n($step, 'peak_ms', '%.0f ms'), $n($step, 'steady', '%.3f'),
                Dig::text($step, 'grade'), $n($measured, 'rms_dps', '%.2f deg/s'), $n($filtered, 'rms_dps', '%.2f deg/s'), implode(', ', \array_slice($peaks, 0, 4)),
            ]);
        }
        $table->render();
        foreach ($report['findings'] as $finding) {
            $output->writeln('- '.Dig::text($finding, 'what').('' === Dig::text($finding, 'try') ? '' : ' '.Dig::text($finding, 'try')));
        }
        foreach ($report['step'] as $axis => $step) {
            foreach (Dig::texts($step, 'reasons') as $reason) {
                $output->writeln("$axis: $reason");
            }
        }

        return self::SUCCESS;
    }
}
