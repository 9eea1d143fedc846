<?php

declare(strict_types=1);

namespace Ortholex\App\Radio;

use Ortholex\App\Words\Aside;
use Ortholex\Core\Radio\CaptureFile;
use Ortholex\Core\Radio\RadioFileError;
use Ortholex\Core\Radio\Span\CapturedChannel;
use Ortholex\Core\Radio\Span\SpanCapture;
use Ortholex\Core\Radio\Wire\Identification;
use Ortholex\Core\Radio\Wire\ProtocolFinder;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Helper\Table;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'radio', description: 'Reads a capture as CSV: “identify” names who speaks on a wire, “spans” learns spans from sticks.')]
final class RadioCommand extends Command
{
    private const JSON = \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR;

    protected function configure(): void
    {
        $this->addArgument('what', InputArgument::REQUIRED, 'identify (columns time_us, level) or spans (columns time_s, ch1_us, …)');
        $this->addArgument('file', InputArgument::REQUIRED, 'the capture, as CSV or CSV.gz');
        $this->addOption('json', null, InputOption::VALUE_NONE, 'for programs; spans are always told so');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$what, $path] = [$input->getArgument('what'), $input->getArgument('file')];
        $path = \is_string($path) ? $path : '';
        $json = true === $input->getOption('json');
        try {
            match (\is_string($what) ? CaptureRead::tryFrom($what) : null) {
                CaptureRead::Identify => $this->identify($output, ProtocolFinder::of(CaptureFile::edges($path)), $json),
                CaptureRead::Spans => $this->spans($output, SpanCapture::of(CaptureFile::sticks($path)), $json),
                null => throw RadioFileError::noSuchReading(),
            };
        } catch (RadioFileError $e) {
            return Aside::refuse($output, $e->getMessage());
        }

        return self::SUCCESS;
    }

    private function identify(OutputInterface $output, Identification $found, bool $json): void
    {
        if ($json) {
            $output->writeln(json_encode($found->toArray(), self::JSON), OutputInterface::OUTPUT_RAW);

            return;
        }
        $at = null === $found->baud ? '' : " at $found->baud baud";
        $output->writeln($found->speaker->value.$at.($found->inverted ? ', inverted' : ''));
        if (0 === $found->frames) {
            return;
        }
        $output->writeln(\sprintf('%d whole frames', $found->frames).
            (null === $found->intervalMs ? '' : \sprintf(', one each %.2f ms, %.1f %% lost', $found->intervalMs, 100 * $found->lostShare)).
            ($found->failsafe ? ', the receiver hears no transmitter' : ''));
        foreach ($found->channelsUs as $i => $us) {
            $output->writeln(\sprintf('  %2d  %7.1f µs', $i + 1, $us));
        }
    }

    private function spans(OutputInterface $output, SpanCapture $found, bool $json): void
    {
        if ($json || !$output->isDecorated()) {
            $channels = array_map(static fn (CapturedChannel $c): array => $c->toArray(), $found->channels);
            $output->writeln(json_encode(['channels' => (object) $channels], self::JSON), OutputInterface::OUTPUT_RAW);

            return;
        }
        $table = new Table($output);
        $table->setHeaders(['channel', 'low', 'middle', 'high', 'jitter, µs']);
        $us = static fn (?float $v): string => null === $v ? '–' : \sprintf('%.1f', $v);
        foreach ($found->channels as $number => $c) {
            $table->addRow([
                $number,
                $c->moved ? $us($c->lowUs) : 'not moved',
                $us($c->middleUs),
                $us($c->highUs),
                \sprintf('%.1f', $c->jitterUs),
            ]);
        }
        $table->render();
    }
}
