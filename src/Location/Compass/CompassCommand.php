<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Compass;

use Ortholex\App\Words\Aside;
use Ortholex\App\Words\Words;
use Ortholex\Core\Compass\CompassError;
use Ortholex\Core\Compass\CompassFit;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(name: 'compass', description: '“fit” finds offset and matrix of a compass from readings in all poses.')]
final class CompassCommand extends Command
{
    private const JSON = \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR;
    private const COLUMNS = ['x_ut', 'y_ut', 'z_ut'];
    private const MOST_ROWS = 500_000;

    public function __construct(private readonly Words $words)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('what', InputArgument::REQUIRED, 'fit');
        $this->addArgument('samples', InputArgument::REQUIRED, 'CSV or CSV.gz with the columns x_ut, y_ut, z_ut');
        $this->addOption('json', null, InputOption::VALUE_NONE, 'for programs');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        try {
            $path = $input->getArgument('samples');
            if ('fit' !== $input->getArgument('what')) {
                throw new \InvalidArgumentException('A compass can be told to “fit”: compass fit SAMPLES.csv');
            }
            $fit = CompassFit::of(self::samples(\is_string($path) ? $path : ''));
        } catch (\InvalidArgumentException|CompassError $e) {
            return Aside::refuse($output, $this->words->ofProblem($e));
        }
        $four = static fn (float $v): float => round($v, 4);
        $told = [
            'offset_ut' => array_map($four, $fit->offset),
            'matrix' => array_map(
                static fn (array $row): array => array_map(static fn (float $v): float => round($v, 6), $row),
                $fit->matrix,
            ),
            'residual_share' => round($fit->residual, 5),
            'coverage_share' => $four($fit->coverage->share()),
        ];
        if (true === $input->getOption('json')) {
            $output->writeln(json_encode($told, self::JSON), OutputInterface::OUTPUT_RAW);

            return self::SUCCESS;
        }
        $output->writeln(\sprintf('offset %.2f, %.2f, %.2f µT', ...$fit->offset));
        foreach ($fit->matrix as $row) {
            $output->writeln(\sprintf('matrix %8.4f %8.4f %8.4f', ...$row));
        }
        $output->writeln(
            \sprintf('residual %.2f %% of the field, %.0f %% of the sphere covered', 100 * $fit->residual, 100 * $told['coverage_share']),
        );

        return self::SUCCESS;
    }

    /** @return list<array{float, float, float}> */
    private static function samples(string $path): array
    {
        $stream = is_file($path) ? @gzopen($path, 'rb') : false;
        if (false === $stream) {
            throw new \InvalidArgumentException("$path cannot be read: it is not a file, or may not be opened.");
        }
        try {
            $head = str_getcsv(strtolower(trim((string) gzgets($stream, 4096), "\xEF\xBB\xBF \r\n")), ',', '"', '');
            $at = array_map(
                static fn (string $name): int|false => array_search($name, array_map(trim(...), array_map(strval(...), $head)), true),
                self::COLUMNS,
            );
            if (\in_array(false, $at, true)) {
                throw new \InvalidArgumentException("$path, line 1: the columns are named x_ut, y_ut, z_ut.");
            }
            $samples = [];
            for ($n = 2; false !== ($line = @gzgets($stream, 4096)) && \count($samples) < self::MOST_ROWS; ++$n) {
                if ('' === trim($line)) {
                    continue;
                }
                $cells = str_getcsv(trim($line), ',', '"', '');
                $row = array_map(
                    static fn (int|false $i): ?float => is_numeric($v = trim($cells[(int) $i] ?? '')) ? (float) $v : null,
                    $at,
                );
                if (\in_array(null, $row, true) || !is_finite(array_sum($row)) || max(array_map(abs(...), $row)) > 1e6) {
                    throw new \InvalidArgumentException("$path, line $n: it takes three numbers in µT.");
                }
                $samples[] = [$row[0], $row[1], $row[2]];
            }

            return $samples;
        } finally {
            gzclose($stream);
        }
    }
}
