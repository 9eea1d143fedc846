<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\App\FlightLog\LogOptions;
use Ortholex\App\Settings\File\SettingsFile;
use Ortholex\App\Settings\File\SettingsFileError;
use Ortholex\App\Words\Aside;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\Tuning\LoopReport;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Helper\Table;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'loop', description: 'Says how far the loop of each axis is from oscillating, and which step other settings would give.')]
final class LoopCommand extends Command
{
    private const JSON = \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR;

    public function __construct(private readonly SettingsFile $files, private readonly Words $words)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('log', InputArgument::REQUIRED, 'the log, as CSV or CSV.gz, with the terms of the command');
        $this->addOption('settings', null, InputOption::VALUE_REQUIRED, 'what the log was flown with, as YAML');
        $this->addOption('with', null, InputOption::VALUE_REQUIRED, 'what would be changed of it, as YAML');
        LogOptions::add($this);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            $now = $this->set($input, 'settings') ?? throw LogError::of('Say what it was flown with, as in --settings craft.yaml.');
            $with = $this->set($input, 'with');
            $path = $input->getArgument('log');
            $log = LogOptions::read(\is_string($path) ? $path : '', $input);
        } catch (LogError|SettingsFileError $e) {
            $said = $e instanceof LogError ? $this->words->ofProblem($e) : $e->getMessage();

            return Aside::refuse($output, $said);
        }
        $axes = self::axes($log, $now, null === $with ? null : $now->with($with));
        if (true === $input->getOption('json')) {
            $output->writeln(json_encode(['axes' => [] === $axes ? new \stdClass() : $axes], self::JSON), OutputInterface::OUTPUT_RAW);

            return self::SUCCESS;
        }
        $table = new Table($output);
        $table->setHeaders(['axis', '', 'gain margin', 'phase margin', 'modulus margin', 'crossover', 'to 50 %', 'rise', 'peak']);
        foreach ($axes as $axis => $sets) {
            foreach (array_filter($sets) as $which => $one) {
                $table->addRow([$axis, $which, ...self::row($one)]);
            }
        }
        $table->render();
        if ([] === $axes) {
            $output->writeln('No axis of this log has setpoint, measured rate and terms enough to tell how it answers its command.');
        }

        return self::SUCCESS;
    }

    private function set(InputInterface $input, string $option): ?SettingSet
    {
        $path = $input->getOption($option);

        return \is_string($path) ? $this->files->read($path) : null;
    }

    /** @return array<string, array{now: array<string, mixed>, with: array<string, mixed>|null}> */
    private static function axes(FlightLog $log, SettingSet $now, ?SettingSet $with): array
    {
        $out = [];
        foreach (Axis::cases() as $axis) {
            $report = $now->has("gain.{$axis->value}.p") ? LoopReport::of($log, $axis, $now) : null;
            if (null !== $report) {
                $out[$axis->value] = [
                    'now' => $report->toArray(),
                    'with' => null === $with ? null : $report->with($with)->toArray(),
                ];
            }
        }

        return $out;
    }

    /**
     * @param array<string, mixed> $one
     *
     * @return list<string>
     */
    private static function row(array $one): array
    {
        $step = \is_array($one['step']) ? $one['step'] : [];
        $n = static fn (mixed $v, string $format): string => \is_float($v) ? \sprintf($format, $v) : '–';

        return [
            $n($one['gain_margin_db'], '%.1f dB'),
            $n($one['phase_margin_deg'], '%.0f°'),
            $n($one['modulus_margin'], '%.2f'),
            $n($one['crossover_hz'], '%.1f Hz'),
            $n($step['delay_ms'] ?? null, '%.1f ms'),
            $n($step['rise_ms'] ?? null, '%.1f ms'),
            true === $one['stable'] ? $n($step['peak'] ?? null, '%.2f') : 'oscillates',
        ];
    }
}
