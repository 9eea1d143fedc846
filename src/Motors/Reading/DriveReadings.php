<?php

declare(strict_types=1);

namespace Ortholex\App\Motors\Reading;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\Core\Drive\MagnetCheck;
use Ortholex\Core\Drive\RisingOutput;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Settings\EscTable;

/** Takes the readings of the slow rise and of rpm feedback, keeps them, and says what they tell. */
final readonly class DriveReadings
{
    /** Outputs of the slow rise, %; each is held for about a second. */
    public const RISE_PCT = [2.0, 2.5, 3.0, 3.5, 4.0, 4.5, 5.0, 5.5, 6.0];

    public const FEEDBACK_PCT = 6.0;

    public function __construct(private EntityManagerInterface $entities, private Benches $benches)
    {
    }

    /**
     * Drives all outputs at one step of the rise and, at its end, reads every rpm.
     *
     * @param array{string, string}|null $swapped places whose motors were swapped since the last rise
     *
     * @throws LinkError when the motors have no power, or do not answer with their rpm
     */
    public function rise(Craft $craft, int $step, bool $read, ?array $swapped): void
    {
        // Looked up first: from the order to spin until the reading nothing may take its time.
        $before = $read ? $this->last($craft, DriveReadingKind::Rise) : null;
        $client = $this->benches->client($craft);
        $client->spin(0, self::RISE_PCT[$step]);
        if (!$read) {
            return;
        }
        $check = 0 === $step ? null : $before;
        if (null === $check) {
            $swapped ??= self::pair($before->data['next'] ?? null);
            $check = new DriveReading($craft, DriveReadingKind::Rise, new \DateTimeImmutable());
            $check->data = ['swapped' => $swapped, 'steps' => []];
            $this->entities->persist($check);
        }
        $magnets = self::magnets($craft);
        $rpm = [];
        foreach (EscTable::pads($craft->settings) as $pad => $place) {
            $rpm[$place] = array_map(static fn (int $erpm): float => round((2 * $erpm) / $magnets, 1), $client->rpm($pad)['erpm']);
        }
        $steps = \is_array($check->data['steps'] ?? null) ? $check->data['steps'] : [];
        $steps[] = ['pct' => self::RISE_PCT[$step], 'rpm' => $rpm];
        $check->data = ['swapped' => $check->data['swapped'] ?? null, 'steps' => $steps];
        $this->entities->flush();
    }

    /** Notes that the motors of two places were swapped: the next rise tells what that means. */
    public function swapped(Craft $craft, string $a, string $b): void
    {
        $check = $this->last($craft, DriveReadingKind::Rise);
        if (null !== $check) {
            $check->data = ['next' => [$a, $b]] + $check->data;
            $this->entities->flush();
        }
    }

    /** The step that comes next, where each is done by a press of its own. */
    public function nextStep(Craft $craft): int
    {
        $steps = $this->last($craft, DriveReadingKind::Rise)?->data['steps'] ?? null;
        $done = \is_array($steps) ? \count($steps) : 0;

        return $done >= \count(self::RISE_PCT) ? 0 : $done;
    }

    /** @return array{string, string}|null */
    private static function pair(mixed $places): ?array
    {
        return \is_array($places) && \is_string($places[0] ?? null) && \is_string($places[1] ?? null) ? [$places[0], $places[1]] : null;
    }

    /** What the last whole rise tells; null while there is none. */
    public function risen(Craft $craft): ?RisenView
    {
        $check = $this->last($craft, DriveReadingKind::Rise);
        $steps = $check->data['steps'] ?? null;
        if (null === $check || !\is_array($steps) || \count($steps) < \count(self::RISE_PCT)) {
            return null;
        }
        $rises = [];
        foreach ($steps as $step) {
            if (!\is_array($step) || !\is_array($step['rpm'] ?? null) || !is_numeric($step['pct'] ?? null)) {
                continue;
            }
            foreach ($step['rpm'] as $place => $rpm) {
                $rises[(string) $place][] = [
                    'pct' => (float) $step['pct'],
                    'rpm' => array_map('floatval', array_values(array_filter(\is_array($rpm) ? $rpm : [], 'is_numeric'))),
                ];
            }
        }
        $rising = RisingOutput::of($rises);
        $swapped = self::pair($check->data['swapped'] ?? null);
        $said = null === $swapped ? null : $rising->afterSwap(...$swapped);

        return new RisenView($rising, $rises, $said, $check->takenAt);
    }

    /**
     * Spins one output and, at the end of its turn, reads its rpm, its errors and how it shakes the board.
     *
     * @throws LinkError
     */
    public function feedback(Craft $craft, int $pad, bool $first, bool $read): void
    {
        $client = $this->benches->client($craft);
        $client->spin($pad, self::FEEDBACK_PCT);
        if (!$read) {
            return;
        }
        $check = $first ? null : $this->last($craft, DriveReadingKind::Feedback);
        if (null === $check) {
            $check = new DriveReading($craft, DriveReadingKind::Feedback, new \DateTimeImmutable());
            $this->entities->persist($check);
        }
        $place = EscTable::pads($craft->settings)[$pad] ?? "output $pad";
        $answer = $client->rpm($pad);
        $erpm = [] === $answer['erpm'] ? 0.0 : array_sum($answer['erpm']) / \count($answer['erpm']);
        [$samples, $hz] = $client->gyroBurst(0);
        $magnets = MagnetCheck::of($samples, $hz, $erpm);
        $check->data =
            [
                $place => [
                    'erpm' => round($erpm),
                    'errors_pct' => round($answer['errors_pct'], 2),
                    'shakes_hz' => null === $magnets ? null : round($magnets->shakesHz, 1),
                    'magnets' => $magnets?->likely,
                    'measured' => null === $magnets ? null : round($magnets->magnets, 2),
                ],
            ] + $check->data;
        $this->entities->flush();
    }

    /** What the last feedback check tells; null while there is none. */
    public function answered(Craft $craft): ?FeedbackView
    {
        $check = $this->last($craft, DriveReadingKind::Feedback);
        if (null === $check) {
            return null;
        }
        $rows = [];
        foreach ($check->data as $place => $row) {
            if (\is_array($row) && is_numeric($row['erpm'] ?? null) && is_numeric($row['errors_pct'] ?? null)) {
                $rows[$place] = new FeedbackRow(
                    $place,
                    (2 * (float) $row['erpm']) / self::magnets($craft),
                    (float) $row['errors_pct'],
                    is_numeric($row['shakes_hz'] ?? null) ? (float) $row['shakes_hz'] : null,
                    \is_int($row['magnets'] ?? null) ? $row['magnets'] : null,
                    is_numeric($row['measured'] ?? null) ? (float) $row['measured'] : null,
                );
            }
        }

        return new FeedbackView($rows, self::magnets($craft), $check->takenAt);
    }

    private static function magnets(Craft $craft): int
    {
        $set = $craft->settings['motors.rotor_magnets'] ?? 14;

        return max(2, is_numeric($set) ? (int) $set : 14);
    }

    private function last(Craft $craft, DriveReadingKind $kind): ?DriveReading
    {
        return $this->entities->getRepository(DriveReading::class)->findOneBy(['craft' => $craft, 'kind' => $kind], ['id' => 'DESC']);
    }
}
