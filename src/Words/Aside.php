<?php

declare(strict_types=1);

namespace Ortholex\App\Words;

use Symfony\Component\Console\Output\ConsoleOutputInterface;
use Symfony\Component\Console\Output\OutputInterface;

/** What a command says beside its output, so that whoever reads that output is not given it as a result. */
final readonly class Aside
{
    /** Exit of a command that was asked for what it cannot do. */
    private const REFUSED = 2;

    /** @return int the exit */
    public static function refuse(OutputInterface $output, string $said): int
    {
        $aside = $output instanceof ConsoleOutputInterface ? $output->getErrorOutput() : $output;
        // Raw: names of files and columns are no tags of a terminal, and “plain” would strip what looks like one.
        $aside->writeln($said, OutputInterface::OUTPUT_RAW);

        return self::REFUSED;
    }
}
