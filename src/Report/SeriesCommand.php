<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Ortholex\App\FlightLog\LogOptions;
use Ortholex\App\Words\Aside;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Traces;
use Ortholex\Core\Lag\AxisLag;
use Ortholex\Core\Lag\LagDoubt;
use Ortholex\Core\Lag\LagSeries;
use Ortholex\Core\Series\SeriesResult;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Helper\Table;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(
    name: 'series',
    description: 'Compares flights that vary one setting in steps: lag per step, where it crosses zero, and the value to use.',
),]
final class SeriesCommand extends Command
{
    private const MEANS =
        'Lag: how long rotation comes after the command (+) or before it (−) in the band in which the sticks move.';

    public function __construct(private readonly Words $words)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('logs', InputArgument::IS_ARRAY | InputArgument::REQUIRED, 'the logs, one a step')->addOption(
            'vary',
            null,
            InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
            'a setting and its values in the order of the logs, as "gain.roll.ff=0.6,0.9,1.2"; several where a group was varied together',
        );
        LogOptions::add($this);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            [$varied, $paths] = self::order($input);
            $setting = (string) array_key_first($varied);
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
                        $lags[$axis->value][] = ['value' => self::of($varied, $axis)[$i], 'lag' => $lag];
                    }
                }
            }
        } catch (LogError $e) {
            return Aside::refuse($output, $this->words->ofProblem($e));
        }
        $axes = [];
        foreach (array_column(SeriesResult::touched(array_keys($varied)), 'value') as $axis) {
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
                        'settings' => array_keys($varied),
                        'axes' => array_map(
                            fn (LagSeries $s): array => [
                                'steps' => $s->steps,
                                'zero_crossing' => null === $s->crossing
                                        ? null
                                        : [
                                            'value' => round($s->crossing[0], 4),
                                            'low' => round($s->crossing[1], 4),
                                            'high' => round($s->crossing[2], 4),
                                        ],
                                'recommended' => $s->recommended,
                                'doubts' => array_map(
                                    fn (LagDoubt $d): array => ['code' => $d->value, 'words' => $this->words->of($d)],
                                    $s->doubts,
                                ),
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
                    ? "$axis: it is not told where the lag would cross zero."
                    : \sprintf('%s: lag crosses zero at %.3f (%.3f to %.3f).', $axis, ...$series->crossing),
            );
            $output->writeln(
                match (true) {
                    null !== $series->recommended => "$axis: use $series->recommended.",
                    \in_array(LagDoubt::Wide, $series->doubts, true) => "$axis: no value can be recommended.",
                    default => "$axis: every step leads; go lower.",
                },
            );
            foreach ($series->doubts as $doubt) {
                $output->writeln("$axis: but ".$this->words->of($doubt).'.');
            }
        }
        if ([] !== $axes) {
            $output->writeln(self::MEANS);
        }
        if ([] === $axes) {
            $output->writeln('No axis has enough motion in two of the logs.');
        }

        return self::SUCCESS;
    }

    /**
     * Values of the setting that is the axis' own, else of the first.
     *
     * @param array<string, list<float>> $varied
     *
     * @return list<float>
     */
    private static function of(array $varied, Axis $axis): array
    {
        foreach ($varied as $name => $values) {
            if (str_contains($name, ".$axis->value.")) {
                return $values;
            }
        }

        return array_values($varied)[0] ?? [];
    }

    /** @return array{array<string, list<float>>, list<string>} values by setting; and paths */
    private static function order(InputInterface $input): array
    {
        $given = $input->getOption('vary');
        $paths = $input->getArgument('logs');
        $paths = \is_array($paths) ? array_values(array_filter($paths, 'is_string')) : [];
        $varied = [];
        foreach (\is_array($given) ? $given : [] as $vary) {
            if (!\is_string($vary) || 1 !== preg_match('~^([a-z0-9_.]+)=([-+0-9.,eE ]+)$~', $vary, $m)) {
                $varied = [];
                break;
            }
            $values = array_map('floatval', array_map('trim', explode(',', $m[2])));
            if (\count($values) !== \count($paths)) {
                throw LogError::of(
                    \sprintf('%d logs, but %d values of %s: each log needs its own.', \count($paths), \count($values), $m[1]),
                );
            }
            $varied[$m[1]] = $values;
        }
        if ([] === $varied) {
            throw LogError::of('Say what varies, as in --vary gain.roll.ff=0.6,0.9,1.2: one value for each log, in their order.');
        }
        if (\count($paths) < 2) {
            throw LogError::of('A series needs at least two logs.');
        }

        return [$varied, $paths];
    }
}
