<?php

declare(strict_types=1);

namespace Ortholex\App\Noise\Desk;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Share\BookPart;
use Ortholex\App\Book\Share\BookReader;
use Ortholex\App\Book\Share\BookWriter;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\DeskNoise\DeskStep;
use Ortholex\Core\Fact\Stored;
use Symfony\Component\DependencyInjection\Attribute\AsTaggedItem;

/** desk/0001.yaml …: what was measured on the desk, in steps of the gyro (16.4 in a deg/s), so that nothing of it is rounded twice. */
#[AsTaggedItem(priority: 10)]
final readonly class DeskOfBook implements BookPart
{
    private const FOLDER = 'desk';
    private const MOST_STEPS = 200;
    private const MOST_BURSTS = 64;
    private const MOST_SAMPLES = 65_536;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public function isLong(): bool
    {
        return true;
    }

    public function write(Craft $craft, BookWriter $book): void
    {
        if (!$book->choice->logs) {
            return;
        }
        foreach ($this->entities->getRepository(DeskMeasurement::class)->findBy(['craft' => $craft], ['id' => 'ASC']) as $i => $one) {
            $steps = [];
            foreach ($one->steps() as $step) {
                $row = ['output_pct' => $step->pct, 'rpm' => $step->rpm];
                foreach ($step->bursts as $axis => $runs) {
                    $row[$axis] = array_map(self::joined(...), $runs);
                }
                $steps[] = $row;
            }
            $book->yaml(\sprintf('%s/%04d.yaml', self::FOLDER, $i + 1), [
                'taken' => $one->takenAt->format(\DATE_ATOM),
                'rate_hz' => $one->rateHz,
                'steps_per_dps' => DeskMeasurement::STEPS_PER_DPS,
                'steps' => $steps,
            ]);
        }
    }

    public function read(Craft $craft, BookReader $book): void
    {
        foreach ($book->names(self::FOLDER) as $name) {
            $is = $book->yaml($name);
            if (null === $is) {
                continue;
            }
            $book->reading($name, function () use ($craft, $is, $book): void {
                $rate = $is->number('rate_hz');
                if ($rate < 1 || $rate > 100_000) {
                    throw new \InvalidArgumentException('it names no rate that a gyro is sampled at');
                }
                $one = new DeskMeasurement($craft, $is->time('taken'), $rate);
                foreach (\array_slice($is->rows('steps'), 0, self::MOST_STEPS) as $row) {
                    $one->add(self::step($row));
                }
                $this->entities->persist($one);
                $book->took('desk measurements');
            });
        }
        $this->entities->flush();
    }

    private static function step(Stored $row): DeskStep
    {
        $bursts = [];
        foreach (array_column(Axis::cases(), 'value') as $axis) {
            $bursts[$axis] = array_map(self::apart(...), \array_slice($row->has($axis) ? $row->texts($axis) : [], 0, self::MOST_BURSTS));
        }

        return new DeskStep(max(0.0, min(100.0, $row->number('output_pct'))), $row->optional('rpm'), $bursts);
    }

    /** @param list<float> $run deg/s */
    private static function joined(array $run): string
    {
        return implode(' ', array_map(static fn (float $v): int => (int) round($v * DeskMeasurement::STEPS_PER_DPS), $run));
    }

    /** @return list<float> deg/s */
    private static function apart(string $run): array
    {
        $samples = '' === $run ? [] : explode(' ', $run, self::MOST_SAMPLES + 1);
        if (\count($samples) > self::MOST_SAMPLES) {
            throw new \InvalidArgumentException('a burst in it has more samples than any has');
        }
        $out = [];
        foreach ($samples as $sample) {
            $v = filter_var($sample, \FILTER_VALIDATE_INT, ['options' => ['min_range' => -32_768, 'max_range' => 32_767]]);
            if (false === $v) {
                throw new \InvalidArgumentException('a sample in it is not a whole number from -32768 to 32767');
            }
            $out[] = $v / DeskMeasurement::STEPS_PER_DPS;
        }

        return $out;
    }
}
