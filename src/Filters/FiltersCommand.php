<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

use Ortholex\App\FlightLog\HeadSettings;
use Ortholex\App\FlightLog\LogOptions;
use Ortholex\App\Settings\File\SettingsFile;
use Ortholex\App\Settings\File\SettingsFileError;
use Ortholex\App\Words\Aside;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Filters\Candidate;
use Ortholex\Core\Filters\ClosedLoop;
use Ortholex\Core\Filters\Scores;
use Ortholex\Core\Filters\TradeOff;
use Ortholex\Core\Filters\WhatIf;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\Report\FlightAnalysis;
use Ortholex\Core\Together\Together;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Helper\Table;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'filters', description: 'Runs a log through a chain of filters: noise that is left, delay, and the best there are.')]
final class FiltersCommand extends Command
{
    private const JSON = \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR;

    /** What of a candidate's settings makes it, so that it can be asked for by itself. */
    private const MADE_BY = '~^(rate_path\.|d_path\.|notch\.|motors\.(rpm_feedback|loop_rate_hz)$)~';

    public function __construct(
        private readonly SettingsFile $files,
        private readonly Words $words,
        private readonly Together $together,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('log', InputArgument::REQUIRED, 'the log, as CSV or CSV.gz');
        $this->addOption('chain', null, InputOption::VALUE_REQUIRED, 'settings of the filters as YAML; what it leaves out is off');
        $this->addOption('than', null, InputOption::VALUE_REQUIRED, 'another chain, to compare it with');
        $this->addOption('trade-off', null, InputOption::VALUE_NONE, 'tries some hundreds of chains and gives those that no other beats');
        LogOptions::add($this);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            $chain = $this->chain($input, 'chain') ?? throw LogError::of('Say which filters, as in --chain filters.yaml.');
            $than = $this->chain($input, 'than');
            $path = $input->getArgument('log');
            $log = LogOptions::read(\is_string($path) ? $path : '', $input, together: $this->together);
            $log = $log->thinned(FlightAnalysis::MOST_SAMPLES);
        } catch (LogError|SettingsFileError $e) {
            $said = $e instanceof LogError ? $this->words->ofProblem($e) : $e->getMessage();

            return Aside::refuse($output, $said);
        }
        $loop = ClosedLoop::in($log, HeadSettings::of($log->settings));
        $with = WhatIf::of($log, $chain, $loop);
        $other = null === $than ? null : WhatIf::of($log, $than, $loop);
        $curve = true === $input->getOption('trade-off') ? TradeOff::of($log, $chain, $loop, $this->together, Scores::ALL) : null;
        if (true === $input->getOption('json')) {
            $output->writeln(json_encode($this->told($with, $other, $curve), self::JSON), OutputInterface::OUTPUT_RAW);

            return self::SUCCESS;
        }
        $this->print($output, $with, $other, $curve);

        return self::SUCCESS;
    }

    private function chain(InputInterface $input, string $option): ?SettingSet
    {
        $path = $input->getOption($option);
        if (!\is_string($path)) {
            return null;
        }
        $set = $this->files->read($path);

        // Whoever names orders of motor notches wants them, unless told otherwise.
        return $set->has('motors.rpm_feedback') ? $set : $set->with(['motors.rpm_feedback' => true]);
    }

    /** @return array<string, mixed> */
    private function told(WhatIf $with, ?WhatIf $other, ?TradeOff $curve): array
    {
        $axes = [];
        foreach ($with->axes as $axis => $one) {
            $than = $other->axes[$axis] ?? null;
            $axes[$axis] = [
                'measured_dps' => round($one->measuredDps, 4),
                'residual_dps' => round($one->residualDps, 4),
                'than_residual_dps' => null === $than ? null : round($than->residualDps, 4),
                'delay_ms_at_30hz' => round($one->delayMs, 4),
                'd_delay_ms_at_30hz' => round($one->dDelayMs, 4),
                'than_delay_ms_at_30hz' => null === $than ? null : round($than->delayMs, 4),
            ];
        }
        $out = ['axes' => [] === $axes ? new \stdClass() : $axes, 'doubts' => []];
        foreach ($with->doubts as $doubt) {
            $out['doubts'][] = ['code' => $doubt->code->value, 'words' => $this->words->of($doubt)];
        }
        if (null !== $curve) {
            $out['trade_off_part'] = round($curve->part, 3);
            $out['trade_off'] = array_map(
                static fn (int $i, Candidate $one): array => [
                    'chain' => $one->chain->where(static fn (string $name): bool => 1 === preg_match(self::MADE_BY, $name)),
                    'residual_dps' => round($one->residualDps, 4),
                    'delay_ms' => round($one->delayMs, 4),
                    'knee' => $i === $curve->knee,
                ],
                array_keys($curve->front),
                $curve->front,
            );
        }

        return $out;
    }

    private function print(OutputInterface $output, WhatIf $with, ?WhatIf $other, ?TradeOff $curve): void
    {
        $table = new Table($output);
        $table->setHeaders(['axis', 'before', 'left', ...(null === $other ? [] : ['other chain']), 'delay at 30 Hz', 'D path']);
        foreach ($with->axes as $axis => $one) {
            $than = $other->axes[$axis] ?? null;
            $table->addRow([
                $axis,
                self::dps($one->measuredDps),
                self::dps($one->residualDps),
                ...(null === $than ? [] : [self::dps($than->residualDps)]),
                \sprintf('%.2f ms', $one->delayMs),
                \sprintf('%.2f ms', $one->dDelayMs),
            ]);
        }
        $table->render();
        foreach ($with->doubts as $doubt) {
            $output->writeln('But '.$this->words->of($doubt).'.');
        }
        if (null === $curve) {
            return;
        }
        $table = new Table($output);
        $table->setHeaders(['left', 'delay at 30 Hz', 'motor notches', 'tracking', 'low-passes', '']);
        foreach ($curve->front as $i => $one) {
            $table->addRow([
                self::dps($one->residualDps),
                \sprintf('%.2f ms', $one->delayMs),
                ...ChainWords::of($one->chain),
                $i === $curve->knee ? 'knee' : '',
            ]);
        }
        $table->render();
    }

    private static function dps(float $value): string
    {
        return \sprintf('%.2f deg/s', $value);
    }
}
