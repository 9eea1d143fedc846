<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Logs;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\Work\JobState;
use Ortholex\Tests\app\AppCase;
use PHPUnit\Framework\Attributes\DataProvider;

/** Logs that hold less than a sheet needs, or cells that are no figures: every sheet opens, and says what it cannot tell. */
final class OddLogsTest extends AppCase
{
    private const SHEETS = ['51', '52', '53', '54', '55', '61', '62', '63'];

    /** @return iterable<string, array{float, int, string}> Hz, rows, a cell among them */
    public static function odd(): iterable
    {
        yield 'one sample in ten seconds' => [0.1, 30, ''];
        yield 'one sample a second' => [1.0, 120, ''];
        yield 'five samples a second' => [5.0, 600, ''];
        yield 'three rows' => [1000.0, 3, ''];
        yield 'fewer than a window' => [1000.0, 180, ''];
        foreach (['1e39', '1e999', 'true', 'null', '{}', '[]'] as $cell) {
            yield $cell => [500.0, 4000, $cell];
        }
    }

    #[DataProvider('odd')]
    public function testEverySheetOpens(float $rate, int $rows, string $cell): void
    {
        $this->link();
        $csv = 'time_s,setpoint_roll_dps,rate_measured_roll_dps,rate_filtered_roll_dps,term_p_roll,term_d_roll,throttle_pct,';
        $csv .= "output_front_left_pct,output_front_right_pct,output_rear_left_pct,output_rear_right_pct,rpm_front_left,battery_v\n";
        for ($i = 0; $i < $rows; ++$i) {
            $swing = 200 * sin($i / 40);
            $cells = [$i / $rate, $swing, 0.95 * $swing, 0.94 * $swing, $swing / 20, -$swing / 60, 45, 4, 46, 45, 47, 9000 + $i % 70, 24.1];
            if ('' !== $cell && $i === intdiv($rows, 2)) {
                $cells[2] = $cell;
            }
            $csv .= implode(',', $cells)."\n";
        }
        $path = self::data().'/odd.csv';
        file_put_contents($path, $csv);
        $job = $this->job('import', ['path' => $path, 'name' => 'odd.csv']);
        $logs = $this->entities()->getRepository(Log::class)->findAll();
        if (JobState::Done !== $job->state) {
            self::assertNotSame('', $job->message);
            self::assertSame([], $logs, 'what is refused leaves nothing');

            return;
        }
        self::assertCount(1, $logs);
        self::assertSame('' === $cell ? 0 : 1, $logs[0]->badRows()->count);
        foreach (self::SHEETS as $sheet) {
            $html = $this->page("/craft/curlew/$sheet?log={$logs[0]->id}");
            self::assertDoesNotMatchRegularExpression('~\b(nan|inf)\b~i', strip_tags($html), "sheet $sheet");
        }
        $this->page("/craft/curlew/51/{$logs[0]->id}");
    }
}
