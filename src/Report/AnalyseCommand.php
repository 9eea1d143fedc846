<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\App\FlightLog\LogOptions;
use Ortholex\App\Report\Folder\AnalyseFolder;
use Ortholex\App\Words\Aside;
use Ortholex\App\Words\Words;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Signal\Peak;
use Ortholex\Core\Together\Together;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Helper\Table;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'analyse', description: 'Reads a flight log (CSV, plain or gzip) and says what it tells.')]
final class AnalyseCommand extends Command
{
    private const MOST_PROCESSES = 64;

    public function __construct(
        private readonly ReportJson $json,
        private readonly Words $words,
        private readonly AnalyseFolder $folder,
        private readonly Together $together,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('log', InputArgument::REQUIRED, 'the log, as CSV or CSV.gz; or a folder of them, with --out');
        $this->addOption('out', null, InputOption::VALUE_REQUIRED, 'for a folder: the file that gets a line of JSON for each log');
        $this->addOption('processes', null, InputOption::VALUE_REQUIRED, 'for a folder: how many at a time', '2');
        LogOptions::add($this);
    }

    /** @throws LogError when an option or the folder cannot be used */
    private function ofFolder(string $path, InputInterface $input, OutputInterface $output): int
    {
        $out = $input->getOption('out');
        $processes = $input->getOption('processes');
        if (!\is_string($out) || '' === $out) {
            throw LogError::of('A folder of logs needs --out FILE.jsonl, which gets a line for each log.');
        }
        if (!is_numeric($processes) || (int) $processes < 1 || (int) $processes > self::MOST_PROCESSES) {
            throw LogError::of('--processes is a number from 1 to '.self::MOST_PROCESSES.'.');
        }
        $told = static function (string $log, bool $read) use ($output): void {
            $output->writeln(($read ? 'done  ' : 'not read  ').$log);
        };
        [$now, $bad, $before] = $this->folder->run(rtrim($path, '/'), $out, (int) $processes, $told);
        $output->writeln("$now done now".($bad > 0 ? ", $bad of them not read" : '').($before > 0 ? ", $before done before" : '').'.');

        return self::SUCCESS;
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $path = $input->getArgument('log');
        try {
            $path = \is_string($path) ? $path : '';
            if (is_dir($path)) {
                return $this->ofFolder($path, $input, $output);
            }
            $plan = LogOptions::plan($path, $input)->keeping(FlightAnalysis::looksAt(...));
            $log = LogOptions::read($path, $input, $plan, $this->together);
        } catch (LogError $e) {
            return Aside::refuse($output, $this->words->ofProblem($e));
        }
        $report = Report::of($log, FlightAnalysis::of($log, false, $this->together));
        if (true === $input->getOption('json')) {
            $output->writeln(
                (string) json_encode(
                    [...$this->json->of($report), 'columns' => $this->json->columns($plan)],
                    \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION,
                ),
                OutputInterface::OUTPUT_RAW,
            );

            return self::SUCCESS;
        }
        $gaps = \count($log->clock->gaps());
        $output->writeln(
            \sprintf(
                '%.2f s at %.1f Hz, %d samples, %d gap%s, %d bad row%s',
                $log->clock->durationS(),
                $log->clock->rateHz,
                $log->clock->samples,
                $gaps,
                1 === $gaps ? '' : 's',
                $log->badRows->count,
                1 === $log->badRows->count ? '' : 's',
            ),
        );
        foreach ($log->badRows->places as $place) {
            $output->writeln(\sprintf('  line %d, %d row(s): %s', $place->line, $place->count, $this->words->of($place->reason)));
        }
        $table = new Table($output);
        $table->setHeaders([
            'axis',
            'to 50 %',
            'rise',
            'peak',
            'at',
            'steady',
            'grade',
            'measured RMS',
            'filtered RMS',
            'peaks measured',
        ]);
        $n = static fn (?float $value, string $format): string => null === $value ? '–' : \sprintf($format, $value);
        foreach ($report->steps as $axis => $step) {
            $numbers = $step->numbers;
            $peaks = array_map(static fn (Peak $p): string => \sprintf('%.0f Hz', $p->hz), $report->measured[$axis]->peaks ?? []);
            $table->addRow([
                $axis,
                $n($numbers?->delayMs, '%.1f ms'),
                $n($numbers?->riseMs, '%.1f ms'),
                $n($numbers?->peak, '%.3f'),
                $n($numbers?->peakMs, '%.0f ms'),
                $n($numbers?->steady, '%.3f'),
                $step->confidence->grade->value,
                $n($report->measured[$axis]?->rmsDps, '%.2f deg/s'),
                $n($report->filtered[$axis]?->rmsDps, '%.2f deg/s'),
                implode(', ', \array_slice($peaks, 0, 4)),
            ]);
        }
        $table->render();
        foreach ($report->findings as $finding) {
            $output->writeln(
                '- '.$this->words->of($finding->what).(null === $finding->try ? '' : ' '.$this->words->of($finding->try)),
            );
        }
        foreach ($report->steps as $axis => $step) {
            foreach ($this->words->all($step->confidence->reasons) as $reason) {
                $output->writeln("$axis: $reason");
            }
        }

        return self::SUCCESS;
    }
}
