<?php

declare(strict_types=1);

namespace Ortholex\App\Switches;

use Ortholex\App\Words\Aside;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\SettingError;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\Switches\FoundSwitch;
use Ortholex\Core\Switches\MapCheck;
use Ortholex\Core\Switches\MapRemark;
use Ortholex\Core\Switches\SwitchMap;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\Yaml\Exception\ParseException;
use Symfony\Component\Yaml\Yaml;

#[AsCommand(name: 'switches', description: 'Says of a switch map in YAML what is on, and what to watch out for.')]
final class SwitchesCommand extends Command
{
    /** What a board is taken to have where the file does not say. */
    private const SENSORS = ['gyro', 'accelerometer', 'barometer', 'compass'];

    private const LOWEST_US = 800.0;
    private const HIGHEST_US = 2200.0;

    public function __construct(private readonly Catalogue $catalogue, private readonly Words $words)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $about = 'settings as YAML; “switches” (positions by channel) and “sensors” may stand beside them';
        $this->addArgument('file', InputArgument::REQUIRED, $about);
        $this->addOption('at', null, InputOption::VALUE_REQUIRED, 'channels in µs, as 5=1010,6=1500');
        $this->addOption('flown', null, InputOption::VALUE_NONE, 'the craft has flown before');
        $this->addOption('json', null, InputOption::VALUE_NONE, 'for programs');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            $path = $input->getArgument('file');
            $data = $this->read(\is_string($path) ? $path : '');
            $set = $this->settings($data);
            $map = SwitchMap::of($set, $this->levers($data, SwitchMap::of($set, [])));
            $at = $input->getOption('at');
            $us = \is_string($at) ? self::channels($at) : null;
        } catch (SettingError|SwitchFileError $e) {
            return Aside::refuse($output, $e->getMessage());
        }
        $sensors = \is_array($data['sensors'] ?? null) ? array_values(array_filter($data['sensors'], \is_string(...))) : self::SENSORS;
        $on = null === $us ? null : array_map(static fn (Action $a): string => $a->value, $map->on($us));
        $remarks = MapCheck::of($map, $set, $sensors, true === $input->getOption('flown'));
        true === $input->getOption('json') ? $this->asJson($output, $on, $remarks) : $this->asText($output, $on, $remarks);

        return self::SUCCESS;
    }

    /**
     * @param list<string>|null $on
     * @param list<MapRemark>   $remarks
     */
    private function asJson(OutputInterface $output, ?array $on, array $remarks): void
    {
        $warnings = array_map(
            fn (MapRemark $r): array => [
                'code' => $r->what->code->value,
                'action' => $r->action?->value,
                'channel' => $r->channel,
                'text' => $this->words->capital($r->what),
            ],
            $remarks,
        );
        $output->writeln(
            json_encode(['on' => $on, 'warnings' => $warnings], \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR),
            OutputInterface::OUTPUT_RAW,
        );
    }

    /**
     * @param list<string>|null $on
     * @param list<MapRemark>   $remarks
     */
    private function asText(OutputInterface $output, ?array $on, array $remarks): void
    {
        if (null !== $on) {
            $output->writeln('on: '.([] === $on ? 'nothing' : implode(', ', $on)));
        }
        foreach ($remarks as $remark) {
            $output->writeln('warning: '.$this->words->capital($remark->what), OutputInterface::OUTPUT_RAW);
        }
        if ([] === $remarks) {
            $output->writeln('nothing to watch out for');
        }
    }

    /** @return array<mixed> */
    private function read(string $path): array
    {
        $text = is_file($path) ? @file_get_contents($path) : false;
        if (false === $text) {
            throw SwitchFileError::noFile($path);
        }
        try {
            $data = Yaml::parse($text);
        } catch (ParseException $e) {
            throw SwitchFileError::notYaml($path, $e->getMessage());
        }

        return \is_array($data) ? $data : throw SwitchFileError::notYaml($path, 'it holds no settings');
    }

    /**
     * @param array<mixed> $data
     *
     * @throws SettingError
     */
    private function settings(array $data): SettingSet
    {
        $version = Version::parse(Catalogue::CURRENT);
        $set = $this->catalogue->defaults($version)->toArray();
        foreach ($data as $name => $value) {
            if (!\in_array($name, ['switches', 'sensors'], true)) {
                $name = (string) $name;
                $set[$name] = $this->catalogue->get($name, $version)->check($value, $version);
            }
        }

        return SettingSet::of($set);
    }

    /**
     * @param array<mixed> $data
     *
     * @return list<FoundSwitch> as the file has them; without any, one position between every two edges of a channel
     */
    private function levers(array $data, SwitchMap $map): array
    {
        $levers = [];
        if (isset($data['switches'])) {
            $given = \is_array($data['switches']) ? $data['switches'] : throw SwitchFileError::positions('switches');
            foreach ($given as $channel => $positions) {
                $us = [];
                foreach (\is_array($positions) ? $positions : [] as $position) {
                    $us[] = \is_int($position) || \is_float($position)
                        ? (float) $position
                        : throw SwitchFileError::positions((string) $channel);
                }
                if (\count($us) < 2 || !is_numeric($channel)) {
                    throw SwitchFileError::positions((string) $channel);
                }
                $levers[] = FoundSwitch::at((int) $channel, $us);
            }

            return $levers;
        }
        $edges = [];
        foreach ($map->actions as $on) {
            foreach ($on->alternatives as $zones) {
                foreach ($zones as $zone) {
                    foreach (array_filter([$zone->fromUs, $zone->toUs]) as $edge) {
                        $edges[$zone->channel][(int) $edge] = $edge;
                    }
                }
            }
        }
        foreach ($edges as $channel => $at) {
            sort($at);
            $at = [self::LOWEST_US, ...$at, self::HIGHEST_US];
            $middles = [];
            for ($i = 1, $n = \count($at); $i < $n; ++$i) {
                $middles[] = ($at[$i - 1] + $at[$i]) / 2;
            }
            $levers[] = FoundSwitch::at($channel, $middles);
        }

        return $levers;
    }

    /** @return array<int, float> µs by channel */
    private static function channels(string $text): array
    {
        $us = [];
        foreach (explode(',', $text) as $one) {
            if (1 !== preg_match('~^\s*(\d{1,2})\s*=\s*(\d+(?:\.\d+)?)\s*$~', $one, $m) || (int) $m[1] < 1 || (int) $m[1] > 16) {
                throw SwitchFileError::at($one);
            }
            $us[(int) $m[1]] = (float) $m[2];
        }

        return $us;
    }
}
