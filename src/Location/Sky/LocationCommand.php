<?php

declare(strict_types=1);

namespace Ortholex\App\Location\Sky;

use Ortholex\App\Words\Aside;
use Ortholex\App\Words\Words;
use Ortholex\Core\Position\Magnetic\MagneticModel;
use Ortholex\Core\Position\Magnetic\OutsideModel;
use Ortholex\Core\Position\Nmea\NmeaReader;
use Ortholex\Core\Position\Nmea\NmeaReading;
use Psr\Clock\ClockInterface;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Input\InputOption;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand(
    name: 'location',
    description: '“read” says what NMEA 0183 tells; “declination” how far magnetic north lies beside true north.',
),]
final class LocationCommand extends Command
{
    private const JSON = \JSON_UNESCAPED_UNICODE | \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR;
    private const BLOCK = 65_536;
    private const MODES = [1 => 'none', 2 => '2d', 3 => '3d'];

    public function __construct(private readonly ClockInterface $clock, private readonly Words $words)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('what', InputArgument::REQUIRED, 'read, or declination');
        $this->addArgument('of', InputArgument::IS_ARRAY, 'read: a file, as text or .gz; declination: latitude and longitude in degrees');
        $this->addOption('date', null, InputOption::VALUE_REQUIRED, 'for declination, as YYYY-MM-DD; today where it is not given');
        $this->addOption('json', null, InputOption::VALUE_NONE, 'for programs');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        /** @var list<string> $of */
        $of = $input->getArgument('of');
        $json = true === $input->getOption('json');
        try {
            match ($input->getArgument('what')) {
                'read' => $this->read($of, $json, $output),
                'declination' => $this->declination($of, $input->getOption('date'), $json, $output),
                default => throw new \InvalidArgumentException(
                    'A location can be told to “read” NMEA.txt or give the “declination” LAT LON.',
                ),
            };
        } catch (\InvalidArgumentException|OutsideModel $e) {
            return Aside::refuse($output, $this->words->ofProblem($e));
        }

        return self::SUCCESS;
    }

    /** @param list<string> $of */
    private function read(array $of, bool $json, OutputInterface $output): void
    {
        if (1 !== \count($of)) {
            throw new \InvalidArgumentException('It reads one file: location read NMEA.txt');
        }
        $told = self::told(self::reading($of[0]));
        if ($json) {
            $output->writeln(json_encode($told, self::JSON), OutputInterface::OUTPUT_RAW);

            return;
        }
        $output->writeln(\sprintf('fix: %s; %d satellites; HDOP %s', $told['fix'], $told['satellites_used'], $told['hdop'] ?? 'not told'));
        $output->writeln(null === $told['first_fix_s'] ? 'no fix in space came' : \sprintf('first fix after %.1f s', $told['first_fix_s']));
        $output->writeln(\sprintf('%d sentences whole, %d broken, %d of other kinds', $told['whole'], $told['broken'], $told['unknown']));
        if (null !== $told['mean'] && null !== $told['wander']) {
            $output->writeln(\sprintf('mean %.7f, %.7f', $told['mean']['lat'], $told['mean']['lon']));
            $output->writeln(
                \sprintf('half within %.2f m of it, 95 %% within %.2f m', $told['wander']['cep50_m'], $told['wander']['r95_m']),
            );
        }
    }

    private static function reading(string $path): NmeaReading
    {
        $stream = is_file($path) ? @gzopen($path, 'rb') : false;
        if (false === $stream) {
            throw new \InvalidArgumentException("$path cannot be read: it is not a file, or may not be opened.");
        }
        $reader = new NmeaReader();
        while (!gzeof($stream)) {
            $bytes = @gzread($stream, self::BLOCK);
            if (false === $bytes || '' === $bytes) {
                break; // a gzip that ends early: what came is read
            }
            $reader->feed($bytes);
        }
        gzclose($stream);
        $reading = $reader->reading();
        if (0 === $reading->whole + $reading->broken + $reading->unknown) {
            throw new \InvalidArgumentException("$path holds no sentence of NMEA 0183: none begins with “\$”.");
        }

        return $reading;
    }

    /**
     * @return array{fix: string, satellites_used: int, hdop: float|null, first_fix_s: float|null, whole: int, broken: int, unknown: int,
     *     mean: array{lat: float, lon: float}|null, wander: array{cep50_m: float, r95_m: float}|null}
     */
    private static function told(NmeaReading $reading): array
    {
        $last = $reading->last();
        $wander = $reading->wander();
        $there = $reading->there();
        $n = \count($there);

        return [
            'fix' => self::MODES[$last->mode ?? 1] ?? 'none',
            'satellites_used' => $reading->used(),
            'hdop' => 0 === $n ? null : $there[$n - 1]->hdop,
            'first_fix_s' => $reading->firstFixS(),
            'whole' => $reading->whole,
            'broken' => $reading->broken,
            'unknown' => $reading->unknown,
            'mean' => match (true) {
                null !== $wander => ['lat' => round($wander->latDeg, 8), 'lon' => round($wander->lonDeg, 8)],
                $n > 0 => ['lat' => (float) $there[$n - 1]->latDeg, 'lon' => (float) $there[$n - 1]->lonDeg],
                default => null,
            },
            'wander' => null === $wander ? null : ['cep50_m' => round($wander->cep50M, 3), 'r95_m' => round($wander->r95M, 3)],
        ];
    }

    /** @param list<string> $of */
    private function declination(array $of, mixed $date, bool $json, OutputInterface $output): void
    {
        $number = static fn (string $text): ?float => is_numeric($plain = str_replace('−', '-', $text)) ? (float) $plain : null;
        [$lat, $lon] = [$number($of[0] ?? ''), $number($of[1] ?? '')];
        if (2 !== \count($of) || null === $lat || null === $lon) {
            throw new \InvalidArgumentException('It takes latitude and longitude in degrees: location declination 54.9 -3.4');
        }
        $day = \is_string($date) ? \DateTimeImmutable::createFromFormat('!Y-m-d', $date) : $this->clock->now();
        if (false === $day || (\is_string($date) && $day->format('Y-m-d') !== $date)) {
            throw new \InvalidArgumentException("“{$date}” is no date: it is written as 2026-11-29.");
        }
        $field = MagneticModel::load()->at($lat, $lon, $day);
        $told = [
            'declination_deg' => round($field->declinationDeg(), 3),
            'model' => MagneticModel::NAME,
            'valid_until' => MagneticModel::VALID_UNTIL,
        ];
        $output->writeln(
            $json
                ? json_encode($told, self::JSON)
                : \sprintf(
                    'Magnetic north lies %.2f° %s of true north (%s, until %s).',
                    abs($told['declination_deg']),
                    $told['declination_deg'] < 0 ? 'west' : 'east',
                    $told['model'],
                    $told['valid_until'],
                ),
            OutputInterface::OUTPUT_RAW,
        );
    }
}
