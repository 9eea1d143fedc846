<?php

declare(strict_types=1);

namespace Ortholex\App\LinkLoss;

use Ortholex\App\Words\Aside;
use Ortholex\Core\LinkLoss\SinkSpeed;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'sink', description: 'Says how fast a craft sinks with a fixed output, over the voltage of its pack.')]
final class SinkCommand extends Command
{
    private const JSON = \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR;
    private const STEPS = 8;
    private const NEEDED = [
        'hover' => 'output at which it hovers, %',
        'at-v' => 'pack voltage at that, V',
        'throttle' => 'output while it sinks, %',
        'from-v' => 'fullest pack, V',
        'to-v' => 'emptiest pack, V',
    ];

    protected function configure(): void
    {
        foreach (self::NEEDED as $name => $what) {
            $this->addOption($name, null, InputOption::VALUE_REQUIRED, $what);
        }
        $this->addOption('terminal', null, InputOption::VALUE_REQUIRED, 'speed at which it falls with its motors off, m/s', '20');
        $this->addOption('json', null, InputOption::VALUE_NONE, 'for programs');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $given = [];
        foreach ([...array_keys(self::NEEDED), 'terminal'] as $name) {
            $value = $input->getOption($name);
            if (!is_numeric($value) || (float) $value <= 0 || (float) $value > 1000) {
                return Aside::refuse($output, "--$name takes a number above zero: ".(self::NEEDED[$name] ?? 'm/s').'.');
            }
            $given[$name] = (float) $value;
        }
        $law = SinkSpeed::of($given['hover'], $given['at-v'], $given['terminal']);
        $rows = [];
        for ($i = 0; $i <= self::STEPS; ++$i) {
            $volts = $given['from-v'] + (($given['to-v'] - $given['from-v']) * $i) / self::STEPS;
            $rows[] = ['pack_v' => round($volts, 3), 'sink_ms' => round($law->steady($given['throttle'], $volts), 3)];
        }
        $advised = $law->advised($given['from-v'], $given['to-v']);
        if (true === $input->getOption('json')) {
            $told = null === $advised ? null : ['least' => round($advised[0], 2), 'most' => round($advised[1], 2)];
            $output->writeln(json_encode(['sink' => $rows, 'throttle_pct' => $told], self::JSON), OutputInterface::OUTPUT_RAW);

            return self::SUCCESS;
        }
        foreach ($rows as $row) {
            $output->writeln(
                \sprintf('  %6.2f V  %6.2f m/s %s', $row['pack_v'], abs($row['sink_ms']), $row['sink_ms'] < 0 ? 'up' : 'down'),
            );
        }
        $output->writeln(
            null === $advised
                ? 'No fixed output sinks at 1.5 to 2.5 m/s over all these voltages: a full pack climbs where an empty one falls.'
                : \sprintf('An output of %.1f to %.1f %% sinks at 1.5 to 2.5 m/s over all of them.', ...$advised),
        );

        return self::SUCCESS;
    }
}
