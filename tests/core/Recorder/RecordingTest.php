<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Recorder;

use Ortholex\Core\FlightLog\BadRows;
use Ortholex\Core\FlightLog\Column;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\SampleClock;
use Ortholex\Core\FlightLog\Segment;
use Ortholex\Core\Recorder\Recording;
use Ortholex\Core\Recorder\RecordingError;
use Ortholex\Core\Recorder\RecordPage;
use Ortholex\Core\Recorder\RecordWriter;
use Ortholex\Tests\core\Lcg;
use PHPUnit\Framework\TestCase;

final class RecordingTest extends TestCase
{
    public function testWhatIsReadBackIsWhatWasWrittenAndItsBytesAgain(): void
    {
        $log = $this->log(8.0);
        $bytes = self::written($log);
        self::assertTrue(Recording::isOne($bytes));
        $back = Recording::read($bytes);
        self::assertSame(16, $back->pages);
        self::assertSame([], $back->missing);
        self::assertSame($log->names(), $back->log->names());
        self::assertSame("gain.roll.p: 33\n", $back->log->settings);
        foreach ($log->names() as $name) {
            // Decimals whose span 16 bits hold come back to the bit; the wide one within half a step.
            $near = 'rate_measured_roll_dps' === $name ? 0.011 : 1e-9;
            $written = $log->trace($name);
            foreach ($back->log->trace($name) as $i => $v) {
                self::assertEqualsWithDelta($written[$i], $v, $near);
            }
        }
        self::assertSame($bytes, self::written($back->log), 'written again it has the same bytes');
    }

    public function testGapsOfTheLogStayGaps(): void
    {
        $log = $this->log(4.0, [[0, 1500, 0.0], [1500, 2500, 2.75]]);
        $segments = Recording::read(self::written($log))->log->clock->segments;
        self::assertCount(2, $segments);
        self::assertSame([1500, 2500], [$segments[0]->count, $segments[1]->count]);
        self::assertEqualsWithDelta(2.75, $segments[1]->startS, 1e-9);
    }

    /** Torn, flipped, swapped, doubled, cut off: never a crash, and every page that is whole is read, to the bit. */
    public function testAThousandDamagedRecordingsGiveEveryWholePage(): void
    {
        $log = $this->log(12.0);
        $bytes = self::written($log);
        $whole = Recording::read($bytes)->log->trace('throttle_pct');
        $places = [];
        for ($at = strpos($bytes, RecordPage::MARK); false !== $at; $at = strpos($bytes, RecordPage::MARK, $at + 1)) {
            $places[] = $at;
        }
        $lcg = new Lcg(20261130);
        $read = $unreadable = 0;
        for ($n = 0; $n < 1000; ++$n) {
            [$damaged, $lost] = $this->damaged($bytes, $places, $lcg, $n % 5);
            try {
                $back = Recording::read($damaged);
            } catch (RecordingError) {
                ++$unreadable;
                continue;
            }
            ++$read;
            self::assertGreaterThanOrEqual(24 - $lost, $back->pages, "damage $n");
            foreach ($back->log->clock->segments as $segment) {
                // What is read stands at its own time.
                $first = (int) round($segment->startS * 1000);
                $values = \array_slice($back->log->trace('throttle_pct'), $segment->first, $segment->count);
                self::assertSame(\array_slice($whole, $first, $segment->count), $values, "damage $n");
            }
        }
        self::assertGreaterThan(950, $read);
        self::assertSame(1000, $read + $unreadable);
    }

    public function testAFileThatIsNoneSaysSo(): void
    {
        foreach (['', 'time_s,rate', random_bytes(4096), RecordPage::MARK, RecordPage::MARK.str_repeat("\xFF", 400)] as $bytes) {
            try {
                Recording::read($bytes);
                self::fail('taken for a recording');
            } catch (RecordingError $e) {
                self::assertStringContainsString('Fetch it again', $e->getMessage());
            }
        }
        self::assertFalse(Recording::isOne("time_s,throttle_pct\n0,1\n"));
    }

    /**
     * @param list<int> $places of the pages
     *
     * @return array{string, int} and how many data pages it may cost at most
     */
    private function damaged(string $bytes, array $places, Lcg $lcg, int $how): array
    {
        $from = $lcg->whole(0, \strlen($bytes) - 1);
        switch ($how) {
            case 0: // bits flip
                for ($i = 0; $i < 3; ++$i) {
                    $at = $lcg->whole(0, \strlen($bytes) - 1);
                    $bytes[$at] = \chr(\ord($bytes[$at]) ^ (1 << $lcg->whole(0, 7)));
                }

                return [$bytes, 3];
            case 1: // a stretch is torn out
                $long = $lcg->whole(1, 300);

                return [substr($bytes, 0, $from).substr($bytes, $from + $long), 3];
            case 2: // it breaks off
                $lost = \count(array_filter($places, static fn (int $p): bool => $p >= $from)) + 1;

                return [substr($bytes, 0, $from), min(24, $lost)];
            case 3: // two pages are swapped
                $i = $lcg->whole(1, \count($places) - 3);
                [$a, $b, $c] = [$places[$i], $places[$i + 1], $places[$i + 2]];

                return [substr($bytes, 0, $a).substr($bytes, $b, $c - $b).substr($bytes, $a, $b - $a).substr($bytes, $c), 0];
            default: // rubbish between, with a mark in it
                return [substr($bytes, 0, $from).RecordPage::MARK.random_bytes(40).substr($bytes, $from), 1];
        }
    }

    /** @param list<array{int, int, float}> $parts first sample, samples, start */
    private function log(float $seconds, array $parts = []): FlightLog
    {
        $lcg = new Lcg(77);
        $n = (int) (1000 * $seconds);
        $columns = ['throttle_pct' => [], 'rate_measured_roll_dps' => [], 'rpm_front_left' => [], 'battery_v' => []];
        for ($i = 0; $i < $n; ++$i) {
            $columns['throttle_pct'][] = round(40 + 20 * sin($i / 300) + $lcg->normal(), 3);
            $columns['rate_measured_roll_dps'][] = round(600 * sin($i / 150) + $lcg->normal(), 3);
            $columns['rpm_front_left'][] = round(12000 + 3000 * sin($i / 400));
            $columns['battery_v'][] = 24.5;
        }
        $segments = array_map(static fn (array $p): Segment => new Segment(...$p), [] === $parts ? [[0, $n, 0.0]] : $parts);
        $packed = array_map(static fn (array $v): Column => Column::ofBytes(FlightLog::packFloats($v)), $columns);

        return new FlightLog(SampleClock::known(1000.0, $segments, []), $packed, "gain.roll.p: 33\n", new BadRows(0, []));
    }

    private static function written(FlightLog $log): string
    {
        $stream = fopen('php://memory', 'w+');
        self::assertIsResource($stream);
        RecordWriter::write($log, $stream);
        rewind($stream);

        return (string) stream_get_contents($stream);
    }
}
