<?php

declare(strict_types=1);

namespace Ortholex\App\FlightLog;

use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Reading\LogPlan;
use Ortholex\Core\Recorder\LogFile;
use Ortholex\Core\Together\Together;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;

/** How the command line says what a log's columns, motors and passage are. */
final readonly class LogOptions
{
    public static function add(Command $command): void
    {
        $command
            ->addOption(
                'map',
                null,
                InputOption::VALUE_REQUIRED | InputOption::VALUE_IS_ARRAY,
                'what a column is, as "COLUMN=trace" or "COLUMN=trace:unit"; an empty trace leaves it out',
            )
            ->addOption(
                'motors',
                null,
                InputOption::VALUE_REQUIRED,
                'the motors in the order of their columns, as "rear-right:cw,front-right:ccw,…"',
            )
            ->addOption('from', null, InputOption::VALUE_REQUIRED, 'first second to look at')
            ->addOption('to', null, InputOption::VALUE_REQUIRED, 'last second to look at')
            ->addOption('json', null, InputOption::VALUE_NONE, 'print JSON instead of a table');
    }

    /** @throws LogError when an option or the log cannot be read */
    public static function plan(string $path, InputInterface $input): LogPlan
    {
        return LogPlan::of($path, self::map($input), self::places($input));
    }

    /** @throws LogError when an option or the log cannot be read */
    public static function read(string $path, InputInterface $input, ?LogPlan $plan = null, ?Together $together = null): FlightLog
    {
        $log = LogFile::read($path, static fn (): LogPlan => $plan ?? self::plan($path, $input), null, $together);
        $from = self::seconds($input, 'from') ?? -\INF;
        $to = self::seconds($input, 'to') ?? \INF;

        return -\INF === $from && \INF === $to ? $log : $log->between($from, $to);
    }

    /** @return array<string, string|null> */
    private static function map(InputInterface $input): array
    {
        $map = [];
        $given = $input->getOption('map');
        foreach (\is_array($given) ? $given : [] as $one) {
            $cut = \is_string($one) ? strrpos($one, '=') : false;
            if (!\is_string($one) || false === $cut) {
                throw LogError::of('A --map is written "COLUMN=trace", as in --map "gyro x=rate_measured_roll_dps".');
            }
            $map[substr($one, 0, $cut)] = '' === substr($one, $cut + 1) ? null : substr($one, $cut + 1);
        }

        return $map;
    }

    /** @return list<string> places, in the order of the columns */
    private static function places(InputInterface $input): array
    {
        $given = $input->getOption('motors');
        $places = [];
        foreach (\is_string($given) && '' !== trim($given) ? explode(',', $given) : [] as $motor) {
            $parts = explode(':', trim($motor));
            $place = str_replace(['-', ' '], '_', strtolower(trim($parts[0])));
            if (
                1 !== preg_match('~^[a-z0-9_]+$~', $place)
                || (isset($parts[1]) && !\in_array(strtolower($parts[1]), ['cw', 'ccw'], true))
                || \count($parts) > 2
            ) {
                throw LogError::of("“{$motor}” is not a motor. Write place and direction, as in rear-right:cw.");
            }
            if (\in_array($place, $places, true)) {
                throw LogError::of("The motor “{$parts[0]}” is named twice.");
            }
            $places[] = $place;
        }

        return $places;
    }

    private static function seconds(InputInterface $input, string $name): ?float
    {
        $given = $input->getOption($name);
        if (null === $given) {
            return null;
        }

        return is_numeric($given) ? (float) $given : throw LogError::of("--$name takes seconds, as in --$name 12.5.");
    }
}
