<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\FlightLog;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\BadRowReason;
use Ortholex\Core\FlightLog\BadStretch;
use Ortholex\Core\FlightLog\FlightLog;
use Ortholex\Core\FlightLog\LogError;
use Ortholex\Core\FlightLog\Reading\LogPlan;
use Ortholex\Core\FlightLog\Reading\LogReader;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\Group;
use PHPUnit\Framework\TestCase;

/** Logs with other people's manners, headers and units: all must come in as the same flight. */
final class ForeignLogTest extends TestCase
{
    private const CANONICAL = [
        'time_s',
        'setpoint_roll_dps',
        'setpoint_pitch_dps',
        'setpoint_yaw_dps',
        'rate_measured_roll_dps',
        'rate_measured_pitch_dps',
        'rate_measured_yaw_dps',
        'output_1_pct',
        'output_2_pct',
        'output_3_pct',
        'output_4_pct',
    ];

    private string $path = '';

    protected function setUp(): void
    {
        $this->path = (string) tempnam(sys_get_temp_dir(), 'log');
    }

    protected function tearDown(): void
    {
        @unlink($this->path);
    }

    /**
     * @param array{
     *     header: list<string>,
     *     delimiter?: string,
     *     comma?: bool,
     *     time?: float,
     *     rate?: float,
     *     out?: \Closure(float): float,
     *     ahead?: string,
     *     wrap?: \Closure(string): string,
     * } $manner
     */
    #[DataProvider('manners')]
    public function testComesInAsTheSameFlight(array $manner): void
    {
        $log = $this->read($manner);
        self::assertSame(\array_slice(self::CANONICAL, 1), $log->names());
        self::assertSame(0, $log->badRows->count);
        self::assertEqualsWithDelta(1000, $log->clock->rateHz, 0.01);
        foreach ([100, 3333, 7999] as $i) {
            self::assertEqualsWithDelta(200 * sin($i / 300), $log->trace('setpoint_roll_dps')[$i], 0.3);
            self::assertEqualsWithDelta(180 * sin($i / 300 - 0.03) + 1, $log->trace('rate_measured_roll_dps')[$i], 0.3);
            self::assertEqualsWithDelta(40 + 20 * sin($i / 500), $log->trace('output_1_pct')[$i], 0.2);
        }
    }

    /** @return iterable<string, array{array<string, mixed>}> */
    public static function manners(): iterable
    {
        yield 'ours' => [['header' => self::CANONICAL]];
        yield 'brackets, microseconds, pulse lengths' => [
            [
                'header' => [
                    'time (us)',
                    'setpoint[0]',
                    'setpoint[1]',
                    'setpoint[2]',
                    'gyro[0]',
                    'gyro[1]',
                    'gyro[2]',
                    'motor[0]',
                    'motor[1]',
                    'motor[2]',
                    'motor[3]',
                ],
                'time' => 1e6,
                'out' => static fn (float $v): float => 1000 + 10 * $v,
            ],
        ];
        yield 'semicolons, decimal commas, radians, milliseconds, shares, BOM, CRLF' => [
            [
                'header' => [
                    'Time_ms',
                    'RollCommand',
                    'PitchCommand',
                    'YawCommand',
                    'RollRate',
                    'PitchRate',
                    'YawRate',
                    'Motor1',
                    'Motor2',
                    'Motor3',
                    'Motor4',
                ],
                'delimiter' => ';',
                'comma' => true,
                'time' => 1e3,
                'rate' => \M_PI / 180,
                'out' => static fn (float $v): float => $v / 100,
                'wrap' => static fn (string $s): string => "\xEF\xBB\xBF".str_replace("\n", "\r\n", $s),
            ],
        ];
        yield 'tabs, lines ahead, quoted names' => [
            [
                'header' => [
                    '"timestamp"',
                    '"desired roll rate"',
                    '"desired pitch rate"',
                    '"desired yaw rate"',
                    '"gyro x"',
                    '"gyro y"',
                    '"gyro z"',
                    '"out1"',
                    '"out2"',
                    '"out3"',
                    '"out4"',
                ],
                'delimiter' => "\t",
                'ahead' => "Recorder\tv2\nserial\t12\n\n",
            ],
        ];
        yield 'short names, counts to 2047, gzip' => [
            [
                'header' => ['t', 'cmdRoll', 'cmdPitch', 'cmdYaw', 'gyroX', 'gyroY', 'gyroZ', 'm1', 'm2', 'm3', 'm4'],
                'out' => static fn (float $v): float => $v * 20.47,
                'wrap' => static fn (string $s): string => (string) gzencode($s),
            ],
        ];
        yield 'a row of units' => [
            [
                'header' => [
                    'elapsed',
                    'target_roll',
                    'target_pitch',
                    'target_yaw',
                    'omega_roll',
                    'omega_pitch',
                    'omega_yaw',
                    'esc1',
                    'esc2',
                    'esc3',
                    'esc4',
                ],
                'time' => 1e6,
                'rate' => \M_PI / 180,
                'units' => "us,rad/s,rad/s,rad/s,rad/s,rad/s,rad/s,%,%,%,%\n",
            ],
        ];
        yield 'body rates by their letters' => [
            [
                'header' => ['t', 'p_cmd', 'q_cmd', 'r_cmd', 'p_meas', 'q_meas', 'r_meas', 'act1', 'act2', 'act3', 'act4'],
                'delimiter' => '|',
                'rate' => \M_PI / 180,
                'out' => static fn (float $v): float => $v / 100,
            ],
        ];
        yield 'another language' => [
            [
                'header' => [
                    'Zeit [s]',
                    'Soll roll [°/s]',
                    'Soll nick [°/s]',
                    'Soll gier [°/s]',
                    'Ist roll [°/s]',
                    'Ist nick [°/s]',
                    'Ist gier [°/s]',
                    'Motor 1',
                    'Motor 2',
                    'Motor 3',
                    'Motor 4',
                ],
                'delimiter' => ';',
                'comma' => true,
            ],
        ];
        yield 'delimiters within quoted names' => [
            [
                'header' => [
                    '"Time, s"',
                    '"Command, roll"',
                    '"Command, pitch"',
                    '"Command, yaw"',
                    '"Gyro, roll"',
                    '"Gyro, pitch"',
                    '"Gyro, yaw"',
                    '"Motor, 1"',
                    '"Motor, 2"',
                    '"Motor, 3"',
                    '"Motor, 4"',
                ],
            ],
        ];
        yield 'no name for the time, which only grows' => [
            [
                'header' => [
                    'when',
                    'sp_roll',
                    'sp_pitch',
                    'sp_yaw',
                    'actual roll',
                    'actual pitch',
                    'actual yaw',
                    'motor_1',
                    'motor_2',
                    'motor_3',
                    'motor_4',
                ],
            ],
        ];
        yield 'a comment mark before the header' => [
            [
                'header' => [
                    '# time',
                    'sp_roll',
                    'sp_pitch',
                    'sp_yaw',
                    'gyro_roll_raw',
                    'gyro_pitch_raw',
                    'gyro_yaw_raw',
                    'motor_1',
                    'motor_2',
                    'motor_3',
                    'motor_4',
                ],
            ],
        ];
    }

    public function testATimeFoundByGrowthIsAskedAndNothingThatWandersIsTakenForOne(): void
    {
        $this->write([
            'header' => [
                'when',
                'sp_roll',
                'sp_pitch',
                'sp_yaw',
                'actual roll',
                'actual pitch',
                'actual yaw',
                'motor_1',
                'motor_2',
                'motor_3',
                'motor_4',
            ],
        ]);
        $plan = LogPlan::of($this->path);
        self::assertSame(0, $plan->timeColumn());
        self::assertFalse($plan->isSure());
        file_put_contents(
            $this->path,
            "gyro_roll,gyro_pitch\n".
                implode('', array_map(static fn (int $i): string => \sprintf("%d,%d\n", $i % 90, -$i), range(0, 500))),
        );
        self::assertNull(LogPlan::of($this->path)->timeColumn());
        // p beside no q and r is the term of a controller.
        file_put_contents(
            $this->path,
            "time,p_roll,p_pitch,gyro_roll\n".
                implode(
                    '',
                    array_map(static fn (int $i): string => \sprintf("%.3F,%d,%d,%d\n", $i / 1000, $i % 9, $i % 8, $i % 90), range(0, 500)),
                ),
        );
        self::assertSame(['term_p_roll', 'term_p_pitch', 'rate_measured_roll_dps'], LogReader::readFile($this->path)->names());
    }

    public function testDecimalCommasInQuotesBetweenCommas(): void
    {
        file_put_contents(
            $this->path,
            "time,gyro_roll,setpoint_roll\n".
                implode(
                    '',
                    array_map(
                        static fn (int $i): string => str_replace('.', ',', \sprintf('"%.3F";"%.2F";"%.2F"', $i / 1000, $i / 4, $i / 8)).
                            "\n",
                        range(0, 300),
                    ),
                ),
        );
        file_put_contents($this->path, str_replace(';', ',', (string) file_get_contents($this->path)));
        $log = LogReader::readFile($this->path);
        self::assertEqualsWithDelta(1000, $log->clock->rateHz, 0.01);
        self::assertEqualsWithDelta(25.25, $log->trace('rate_measured_roll_dps')[101], 1e-4);
        self::assertEqualsWithDelta(12.62, $log->trace('setpoint_roll_dps')[101], 0.011);
    }

    public function testAnEndlessLineCostsNothingButItself(): void
    {
        $rows = static fn (int $from, int $to): string => implode(
            '',
            array_map(static fn (int $i): string => \sprintf("%.3F,%d\n", $i / 1000, $i % 90), range($from, $to)),
        );
        file_put_contents(
            $this->path,
            "time_s,rate_measured_roll_dps\n".$rows(0, 999).str_repeat('7', 5_000_000)."\n".$rows(1000, 1999),
        );
        $log = LogReader::readFile($this->path);
        self::assertSame(2000, $log->clock->samples);
        self::assertEquals([new BadStretch(1002, 1, Fact::of(BadRowReason::TooLong, mb: 1))], $log->badRows->places);
        // Cut off within such a line: what came before it is there.
        file_put_contents($this->path, "time_s,rate_measured_roll_dps\n".$rows(0, 999).str_repeat('7', 5_000_000));
        self::assertSame(1000, LogReader::readFile($this->path)->clock->samples);
    }

    public function testFilteredAndRawAreToldApart(): void
    {
        file_put_contents(
            $this->path,
            "time,gyroRaw_roll,gyro_roll,gyroRaw_pitch,gyro_pitch\n".
                implode(
                    '',
                    array_map(
                        static fn (int $i): string => \sprintf("%.4F,%d,%d,%d,%d\n", $i / 1000, $i % 90, $i % 91, $i % 92, $i % 93),
                        range(0, 500),
                    ),
                ),
        );
        self::assertSame(
            ['rate_measured_roll_dps', 'rate_filtered_roll_dps', 'rate_measured_pitch_dps', 'rate_filtered_pitch_dps'],
            LogReader::readFile($this->path)->names(),
        );
    }

    public function testMotorsTakeThePlacesTheyAreGivenAndColumnsWhatIsOrdered(): void
    {
        $this->write(['header' => ['t', 'a', 'b', 'c', 'gyroX', 'gyroY', 'gyroZ', 'm1', 'm2', 'm3', 'm4']]);
        $plan = LogPlan::of(
            $this->path,
            ['a' => 'setpoint_roll_dps', 'gyroZ' => null],
            ['rear_right', 'front_right', 'rear_left', 'front_left'],
        );
        self::assertSame(
            [
                'setpoint_roll_dps',
                'rate_measured_roll_dps',
                'rate_measured_pitch_dps',
                'output_rear_right_pct',
                'output_front_right_pct',
                'output_rear_left_pct',
                'output_front_left_pct',
            ],
            LogReader::readFile($this->path, plan: $plan)->names(),
        );
        foreach (
            [
                [['z' => 'setpoint_roll_dps'], [], 'no column “z”'],
                [['a' => 'punch'], [], 'is no trace'],
                [[], ['rear_right'], '1 motors were named, but the log has 4'],
            ] as [$map, $places, $words]
        ) {
            try {
                LogPlan::of($this->path, $map, $places);
                self::fail($words);
            } catch (LogError $e) {
                self::assertStringContainsString($words, $e->getMessage());
            }
        }
    }

    public function testWhatIsUnsureIsSaidSo(): void
    {
        $this->write(['header' => ['t', 'roll', 'pitch', 'yaw', 'aa', 'bb', 'cc', 'foo', 'bar', 'm3', 'm4']]);
        $plan = LogPlan::of($this->path);
        self::assertFalse($plan->isSure());
        self::assertContains('roll', array_map(static fn ($g): string => $g->name, $plan->unsure()));
        self::assertSame([null, null], [$plan->guesses[7]->trace, $plan->guesses[8]->trace]);
        self::assertCount(5, $plan->preview);
    }

    public function testAPassageKeepsTheLogsOwnTime(): void
    {
        $log = $this->read(['header' => self::CANONICAL])->between(2.0, 5.0);
        self::assertSame(3001, $log->clock->samples);
        self::assertEqualsWithDelta(2.0, $log->clock->segments[0]->startS, 1e-9);
        self::assertEqualsWithDelta(200 * sin(2000 / 300), $log->trace('setpoint_roll_dps')[0], 0.3);
        $this->expectException(LogError::class);
        $log->between(90, 95);
    }

    /** Ten megabytes and a hundred: the same memory, within a little. */
    #[Group('slow')]
    public function testMemoryDoesNotGrowWithTheFile(): void
    {
        $grow = function (int $rows): int {
            $file = fopen($this->path, 'w');
            self::assertIsResource($file);
            fwrite($file, implode(',', self::CANONICAL)."\n");
            for ($i = 0; $i < $rows; ++$i) {
                fwrite($file, \sprintf("%.4F,1.25,2.5,3.75,%d.5,%d.25,1.125,40.00,41.00,42.00,43.00\n", $i / 2000, $i % 97, $i % 89));
            }
            fclose($file);
            $out = shell_exec(
                \PHP_BINARY.
                    ' -r '.
                    escapeshellarg(
                        'require "'.
                            \dirname(__DIR__, 3).
                            '/vendor/autoload.php"; \Ortholex\Core\FlightLog\Reading\LogReader::readFile($argv[1]);'.
                            ' echo memory_get_peak_usage(true);',
                    ).
                    ' '.
                    escapeshellarg($this->path),
            );

            return (int) $out;
        };
        $small = $grow(60_000);
        $large = $grow(600_000);
        self::assertLessThan(128e6, $large);
        self::assertLessThan($small + 20e6, $large);
    }

    /** @param array<string, mixed> $manner */
    private function read(array $manner): FlightLog
    {
        $this->write($manner);

        return LogReader::readFile($this->path);
    }

    /** @param array<string, mixed> $manner */
    private function write(array $manner): void
    {
        $delimiter = \is_string($manner['delimiter'] ?? null) ? $manner['delimiter'] : ',';
        $time = \is_float($manner['time'] ?? null) ? $manner['time'] : 1.0;
        $rate = \is_float($manner['rate'] ?? null) ? $manner['rate'] : 1.0;
        $out = ($manner['out'] ?? null) instanceof \Closure ? $manner['out'] : static fn (float $v): float => $v;
        $text =
            (\is_string($manner['ahead'] ?? null) ? $manner['ahead'] : '').
            implode($delimiter, array_filter(\is_array($manner['header'] ?? null) ? $manner['header'] : [], 'is_string')).
            "\n".
            (\is_string($manner['units'] ?? null) ? $manner['units'] : '');
        for ($i = 0; $i < 8000; ++$i) {
            $row = [\sprintf('%.7F', ($i / 1000) * $time)];
            foreach (
                [
                    200 * sin($i / 300),
                    150 * sin($i / 210),
                    60 * sin($i / 400),
                    180 * sin($i / 300 - 0.03) + 1,
                    140 * sin($i / 210 - 0.03),
                    55 * sin($i / 400 - 0.03),
                ] as $v
            ) {
                $row[] = \sprintf('%.5F', $v * $rate);
            }
            foreach ([0, 1, 2, 3] as $m) {
                $row[] = \sprintf('%.4F', is_numeric($v = $out(40 + 20 * sin($i / 500 + $m))) ? (float) $v : 0.0);
            }
            $line = implode($delimiter, $row);
            $text .= (true === ($manner['comma'] ?? false) ? str_replace('.', ',', $line) : $line)."\n";
        }
        file_put_contents($this->path, ($manner['wrap'] ?? null) instanceof \Closure ? $manner['wrap']($text) : $text);
    }
}
