<?php

declare(strict_types=1);

namespace Ortholex\App\FlightLog;

use Ortholex\App\Words\Aside;
use Ortholex\App\Words\Words;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\LogWriter;
use Ortholex\Core\FlightLog\Reading\LogReader;
use Ortholex\Core\Recorder\LogFile;
use Ortholex\Core\Recorder\RecordingError;
use Ortholex\Core\Recorder\RecordWriter;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'convert', description: 'Converts a recording to CSV, or a CSV to a recording; it sees by itself which it is given.')]
final class ConvertCommand extends Command
{
    public function __construct(private readonly Words $words)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('from', InputArgument::REQUIRED, 'a recording, or a log as CSV or CSV.gz')
            ->addArgument('to', InputArgument::REQUIRED, 'the file that is written: a CSV, or a recording');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $from = $input->getArgument('from');
        $to = $input->getArgument('to');
        [$from, $to] = [\is_string($from) ? $from : '', \is_string($to) ? $to : ''];
        try {
            $said = $this->convert($from, $to);
        } catch (LogError|RecordingError $e) {
            return Aside::refuse($output, $this->words->ofProblem($e));
        }
        $output->writeln($said);

        return self::SUCCESS;
    }

    private function convert(string $from, string $to): string
    {
        if (!is_file($from) || !is_readable($from)) {
            throw LogError::noFile($from);
        }
        $recording = LogFile::isRecording($from) ? LogFile::recording($from) : null;
        $log = $recording->log ?? LogReader::readFile($from);
        // Written beside it and renamed when whole, so that a full disk leaves no half of a file.
        $part = "$to.part";
        $stream = @fopen($part, 'w') ?: throw LogError::of("$to cannot be written. Choose a folder that can.");
        null === $recording ? RecordWriter::write($log, $stream) : LogWriter::write($log, $stream);
        if (!fclose($stream) || !rename($part, $to)) {
            @unlink($part);
            throw LogError::of("$to could not be written whole. Is the disk full?");
        }
        if (null === $recording) {
            return \sprintf('%.1f s of %d traces, %.1f MB.', $log->clock->durationS(), \count($log->names()), filesize($to) / 1e6);
        }

        return \sprintf('%.1f s in %d whole pages.', $log->clock->durationS(), $recording->pages).
            ([] === $recording->missing ? '' : ' Not whole, and left out: page '.implode(', ', $recording->missing).'.');
    }
}
