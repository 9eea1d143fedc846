<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\App\FlightLog\LogOptions;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Lag\AxisLag;
use Ortholex\Core\Lag\LagSeries;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Helper\Table;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(
    name: 'series',
    description: 'Compares flights that vary one setting in steps: lag per step, where it crosses zero, and the value to use.',
),]
final class SeriesCommand extends Command
{
    public function __construct(private readonly Words $words)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('logs', InputArgument::IS_ARRAY | InputArgument::REQUIRED, 'the logs, one a step')->addOption(
            'vary',
            null,
            InputOption::VALUE_REQUIRED,
            'the setting and its values in the order of the logs, as "gain.roll.ff=0.6,0.9,1.2"',
        );
        LogOptions::add($this);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            [$setting, $values, $paths] = self::order($input);
            $lags = [];
            foreach ($paths as $i => $path) {
                $log = LogOptions::read($path, $input);
                foreach (Axis::cases() as $axis) {
                    $rate = $log->rateOfRotation($axis);
                    $set = Traces::setpoint($axis);
                    $lag =
                        null !== $rate && $log->has($set)
                            ? AxisLag::of($log->runs($set), $log->runs($rate), $log->clock->rateHz)
                            : null;
                    if (null !== $lag) {
                        $lags[$axis->value][] = ['value' => $values[$i], 'lag' => $lag];
                    }
                }
            }
        } catch (LogError $e) {
            ($output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output)->writeln($this->words->ofProblem($e));

            return 2;
        }
        // A setting of one axis speaks of that axis; another, of all.
        $only = 1 === preg_match('~\.(roll|pitch|yaw)\.~', $setting, $m) ? [$m[1]] : array_column(Axis::cases(), 'value');
        $axes = [];
        foreach ($only as $axis) {
            $series = LagSeries::of($lags[$axis] ?? []);
            if (null !== $series) {
                $axes[$axis] = $series;
            }
        }
        if (true === $input->getOption('json')) {
            $output->writeln(
                (string) json_encode(
                    [
                        'setting' => $setting,
                        'axes' => array_map(
                            static fn (LagSeries $s): array => [
                                'steps' => $s->steps,
                                'zero_crossing' => null === $s->crossing
                                        ? null
                                        : [
                                            'value' => round($s->crossing[0], 4),
                                            'low' => round($s->crossing[1], 4),
                                            'high' => round($s->crossing[2], 4),
                                        ],
                                'recommended' => $s->recommended,
                            ],
                            $axes,
                        ),
                    ],
                    \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION,
                ),
                OutputInterface::OUTPUT_RAW,
            );

            return self::SUCCESS;
        }
        $table = new Table($output);
        $table->setHeaders(['axis', $setting, 'lag', 'middle half']);
        foreach ($axes as $axis => $series) {
            foreach ($series->steps as $step) {
                $table->addRow([$axis, $step['value'], \sprintf('%+.2f ms', $step['lag_ms']), \sprintf('%.2f ms', $step['iqr_ms'])]);
            }
        }
        $table->render();
        foreach ($axes as $axis => $series) {
            $output->writeln(
                null === $series->crossing
                    ? "$axis: the lag does not fall with $setting; nothing crosses zero."
                    : \sprintf('%s: lag crosses zero at %.3f (%.3f to %.3f).', $axis, ...$series->crossing),
            );
            $output->writeln(null === $series->recommended ? "$axis: every step leads; go lower." : "$axis: use $series->recommended.");
        }
        if ([] === $axes) {
            $output->writeln('No axis has enough motion in two of the logs.');
        }

        return self::SUCCESS;
    }

    /** @return array{string, list<float>, list<string>} setting, values and paths */
    private static function order(InputInterface $input): array
    {
        $vary = $input->getOption('vary');
        if (!\is_string($vary) || 1 !== preg_match('~^([a-z0-9_.]+)=([-+0-9.,eE ]+)$~', $vary, $m)) {
            throw LogError::of('Say what varies, as in --vary gain.roll.ff=0.6,0.9,1.2: one value for each log, in their order.');
        }
        $values = array_map('floatval', array_map('trim', explode(',', $m[2])));
        $paths = $input->getArgument('logs');
        $paths = \is_array($paths) ? array_values(array_filter($paths, 'is_string')) : [];
        if (\count($values) !== \count($paths)) {
            throw LogError::of(\sprintf('%d logs, but %d values of %s: each log needs its own.', \count($paths), \count($values), $m[1]));
        }
        if (\count($paths) < 2) {
            throw LogError::of('A series needs at least two logs.');
        }

        return [$m[1], $values, $paths];
    }
}
