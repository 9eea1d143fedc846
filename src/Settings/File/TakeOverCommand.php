<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\File;

use Ortholex\App\Words\Aside;
use Ortholex\App\Words\Words;
use Ortholex\Core\Settings\TakeOver;
use Ortholex\Core\Settings\TakeOverPart;
use Ortholex\Core\Tuning\Comparable;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Yaml\Yaml;

#[AsCommand(name: 'takeover', description: 'Puts parts of one craft’s settings into another’s, and prints the outcome as YAML.')]
final class TakeOverCommand extends Command
{
    private const JSON = \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR;

    public function __construct(private readonly SettingsFile $files, private readonly Words $words)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $names = implode(', ', array_column(TakeOverPart::cases(), 'value'));
        $this->addArgument('from', InputArgument::REQUIRED, 'settings as YAML, of which parts are taken')
            ->addArgument('into', InputArgument::REQUIRED, 'settings as YAML, which take them')
            ->addOption('parts', null, InputOption::VALUE_REQUIRED, "which, with commas between: $names", 'gains,filters')
            ->addOption('json', null, InputOption::VALUE_NONE, 'print what changes, and what makes it not comparable, as JSON');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $aside = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
        try {
            $parts = self::parts($input->getOption('parts'));
            [$from, $into] = [$this->files->read(self::path($input, 'from')), $this->files->read(self::path($input, 'into'))];
        } catch (SettingsFileError $e) {
            return Aside::refuse($output, $e->getMessage());
        }
        $taken = TakeOver::of($from, $into, $parts);
        $differences = $this->words->all(Comparable::of($from, $into)->differences);
        if (true === $input->getOption('json')) {
            $changes = [];
            foreach ($taken->changes as $name => $value) {
                $changes[] = ['setting' => $name, 'from' => $into[$name], 'to' => $value];
            }
            $told = ['changes' => $changes, 'same' => $taken->same, 'not_here' => $taken->unknown, 'not_comparable' => $differences];
            $output->writeln(json_encode($told, self::JSON), OutputInterface::OUTPUT_RAW);

            return self::SUCCESS;
        }
        $output->write(Yaml::dump($into->with($taken->changes)->toArray()), false, OutputInterface::OUTPUT_RAW);
        foreach ($taken->changes as $name => $value) {
            $aside->writeln("# $name: ".Yaml::dump($into[$name]).' → '.Yaml::dump($value), OutputInterface::OUTPUT_RAW);
        }
        foreach ($taken->unknown as $name) {
            $aside->writeln("# $name is not among the settings that take; left out", OutputInterface::OUTPUT_RAW);
        }
        foreach ($differences as $why) {
            $aside->writeln("# not the same craft: $why", OutputInterface::OUTPUT_RAW);
        }

        return self::SUCCESS;
    }

    private static function path(InputInterface $input, string $argument): string
    {
        $path = $input->getArgument($argument);

        return \is_string($path) ? $path : '';
    }

    /** @return list<TakeOverPart> */
    private static function parts(mixed $given): array
    {
        $parts = [];
        foreach (\is_string($given) ? array_filter(array_map('trim', explode(',', $given))) : [] as $name) {
            $parts[] = TakeOverPart::tryFrom($name)
                ?? throw SettingsFileError::of(
                    "“{$name}” is no part that can be taken over. There are ".
                        implode(', ', array_column(TakeOverPart::cases(), 'value')).'.',
                );
        }

        return [] === $parts ? throw SettingsFileError::of('Say which parts, as in --parts gains,filters.') : $parts;
    }
}
