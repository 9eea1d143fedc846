<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\Report\AnalyseCommand;
use Ortholex\App\Work\CraftLocks;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobState;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Incident\Saying\EventCode;
use PHPUnit\Framework\Attributes\Group;
use Symfony\Component\Console\Tester\CommandTester;

final class FlightsTest extends AppCase
{
    #[Group('slow')]
    public function testAFlightBecomesALogWithItsSettingsAndAnalyses(): void
    {
        $log = $this->flown();
        self::assertSame('C-0001', $log->code);
        self::assertSame(33.0, $log->settings['gain.roll.p']);
        self::assertSame('mixed_sticks', $log->settings['flight.card']);
        self::assertEqualsWithDelta(2000, $log->rateHz, 0.01);
        foreach (
            [
                '51' => 'C-0001',
                '52' => 'what was asked',
                '53' => 'deg/s RMS',
                '54' => 'Roll overshoots by',
                '61' => 'Worked out from C-0001',
                '62' => 'The filters leave',
            ] as $sheet => $words
        ) {
            self::assertStringContainsString($words, $this->page("/craft/curlew/$sheet"));
        }
        self::assertStringContainsString('id="by-size"', $this->page('/craft/curlew/54'));
        self::assertStringContainsString('shake alike', $this->page("/craft/curlew/53?log={$log->id}&beside={$log->id}"));
        $axes = $this->json("/craft/curlew/gains/predict/{$log->id}.json");
        self::assertGreaterThan(1.2, $axes['roll']['measured_peak'] ?? 0);
        self::assertLessThan(1.1, $axes['roll']['proposal']['peak'] ?? 9);
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 29.5, 'gain.roll.d' => 2.9]]);
        self::assertMatchesRegularExpression(
            "~peak of roll&\#039;s step, by C-0001: <span class=\"fig\"> ?1\.[23]\d → 1\.0\d~",
            $this->page('/craft/curlew/61'),
        );
        $response = $this->json("/craft/curlew/filters/response.json?log={$log->id}");
        self::assertGreaterThan(0.5, $response['now']['delay_ms'] ?? 0);
        // The next step of the tune, with its reason.
        self::assertStringContainsString('Roll rings: its step peaks at 1.', $this->page('/'));
    }

    #[Group('slow')]
    public function testDownloadedAndReadBackInItIsTheSameLog(): void
    {
        $log = $this->flown();
        ob_start();
        $this->browser->request('GET', "/craft/curlew/logs/{$log->id}.csv");
        $csv = (string) ob_get_clean();
        $csv = '' === $csv ? (string) $this->browser->getInternalResponse()->getContent() : $csv;
        self::assertStringContainsString('# gain.roll.p: 33.0', $csv);
        // One changed digit of the title keeps the file from being the very same bytes.
        $upload = $this->upload((string) gzencode(str_replace('flight.card: mixed_sticks', 'flight.card: mixed_again', $csv)));
        $job = $this->job('import', ['path' => self::data()."/uploads/$upload", 'name' => 'again.csv.gz']);
        self::assertSame(JobState::Done, $job->state, $job->message);
        $again = $this->entities()
            ->getRepository(Log::class)
            ->findOneBy(['code' => 'C-0002']);
        self::assertNotNull($again);
        self::assertSame($log->samples, $again->samples);
        $store = self::getContainer()->get(LogStore::class);
        foreach (['rate_measured_roll_dps', 'output_rear_left_pct'] as $trace) {
            self::assertEqualsWithDelta($store->load($log, [$trace])->trace($trace), $store->load($again, [$trace])->trace($trace), 6e-4);
        }
        $twice = $this->job('import', ['path' => $this->written($csv = str_replace('mixed_sticks', 'x', $csv)), 'name' => 'x.csv']);
        self::assertSame(JobState::Done, $twice->state);
        $same = $this->job('import', ['path' => $this->written($csv), 'name' => 'x.csv']);
        self::assertSame(JobState::Failed, $same->state);
        self::assertStringContainsString('already here as C-0003', $same->message);
    }

    public function testWhatIsNoLogIsRefusedAndLeavesNothingBehind(): void
    {
        $this->link();
        foreach (['nonsense', "time_s,term_p_roll\n", (string) gzencode('a,b,c'), random_bytes(5000)] as $content) {
            $job = $this->job('import', ['path' => $this->written($content), 'name' => 'bad.csv']);
            self::assertSame(JobState::Failed, $job->state);
            self::assertNotSame('', $job->message);
        }
        self::assertCount(0, $this->entities()->getRepository(Log::class)->findAll());
        self::assertEquals(0, $this->entities()->getConnection()->fetchOne('SELECT COUNT(*) FROM log_chunk'));
    }

    /** What follows from traces is reckoned from their samples, at each level: its least and greatest are its own. */
    public function testDerivedTracesAreReckonedFromSamples(): void
    {
        $log = $this->flown(seconds: 20);
        $flight = self::getContainer()->get(LogStore::class)->load($log);
        $asked = $flight->column('setpoint_roll_dps')->values(0, $log->samples);
        $flown = $flight->column('rate_filtered_roll_dps')->values(0, $log->samples);
        foreach ([[1000, 1500], [0, $log->samples], [5, $log->samples - 3]] as [$from, $to]) {
            $url = "/craft/curlew/logs/{$log->id}/samples?traces=setpoint_roll_dps,error_roll_dps&from=$from&to=$to";
            $this->browser->request('GET', $url);
            $body = (string) $this->browser->getResponse()->getContent();
            $length = unpack('V', $body)[1] ?? 0;
            $head = json_decode(substr($body, 4, $length), true);
            self::assertIsArray($head);
            self::assertSame(['setpoint_roll_dps', 'error_roll_dps'], $head['traces']);
            $each = $head['count'] * ($head['pairs'] ? 2 : 1);
            $values = array_values(unpack('g*', substr($body, 4 + $length + 4 * $each)) ?: []);
            self::assertCount($each, $values);
            for ($i = 0; $i < $head['count']; $i += 7) {
                $first = ($head['first'] + $i) * $head['size'];
                $here = [];
                for ($k = $first; $k < min($first + $head['size'], $log->samples); ++$k) {
                    $here[] = $asked[$k] - $flown[$k];
                }
                $told = $head['pairs'] ? [$values[2 * $i], $values[2 * $i + 1]] : [$values[$i], $values[$i]];
                self::assertEqualsWithDelta(min($here), $told[0], 1e-3);
                self::assertEqualsWithDelta(max($here), $told[1], 1e-3);
            }
        }
    }

    #[Group('slow')]
    public function testThePyramidShowsEveryPeakAtEveryZoom(): void
    {
        $log = $this->flown();
        $store = self::getContainer()->get(LogStore::class);
        $truth = $store->load($log, ['rate_measured_pitch_dps'])->trace('rate_measured_pitch_dps');
        foreach ([[0, $log->samples], [1234, 30000], [20000, 21990], [500, 520]] as [$from, $to]) {
            $this->browser->request('GET', "/craft/curlew/logs/{$log->id}/samples?traces=rate_measured_pitch_dps&from=$from&to=$to");
            $bytes = (string) $this->browser->getResponse()->getContent();
            $length = unpack('V', $bytes)[1] ?? 0;
            self::assertIsInt($length);
            self::assertSame(0, $length % 4);
            $head = json_decode(substr($bytes, 4, $length), true);
            self::assertIsArray($head);
            $values = array_values((array) unpack('g*', substr($bytes, 4 + $length)));
            self::assertLessThanOrEqual(4004, \count($values), 'never more points than a screen shows');
            self::assertLessThanOrEqual($from, $head['first'] * $head['size']);
            self::assertGreaterThanOrEqual($to, ($head['first'] + $head['count']) * $head['size']);
            $part = \array_slice($truth, $head['first'] * $head['size'], $head['count'] * $head['size']);
            self::assertEqualsWithDelta(max($part), max($values), 1e-4);
            self::assertEqualsWithDelta(min($part), min($values), 1e-4);
        }
        $this->browser->request('GET', "/craft/curlew/logs/{$log->id}/samples?traces=nothing");
        self::assertSame(422, $this->browser->getResponse()->getStatusCode());
    }

    public function testACraftThatIsNotReadyIsNotFlownAndItSaysWhy(): void
    {
        foreach (
            [
                'Link the craft once' => null,
                'pack is not connected' => 'pack',
                'transmitter is off' => 'transmitter',
                'indoors' => 'outdoors',
            ] as $why => $mend
        ) {
            self::assertStringContainsString($why, (string) json_encode($this->post('/craft/curlew/logs/fly', ['card' => 'cruise'], 422)));
            null === $mend ? $this->link() : $this->world()->move($mend, '1');
        }
        $this->world()->move('props', '0');
        self::assertStringContainsString(
            'props are off',
            (string) json_encode($this->post('/craft/curlew/logs/fly', ['card' => 'cruise'], 422)),
        );
        $this->post('/craft/curlew/logs/fly', ['card' => 'aerobatics'], 422);
    }

    public function testOneWorkAtATime(): void
    {
        $this->link();
        $this->ready();
        $job = new Job($this->craft(), 'fly_loss', 'Fly Cruise', [], microtime(true));
        $job->state = JobState::Running;
        $job->pid = (int) getmypid();
        $job->heartbeatAt = microtime(true) - 600;
        $this->entities()->persist($job);
        $this->entities()->flush();
        // Frozen for ten minutes, it still holds its craft.
        self::assertTrue(self::getContainer()->get(CraftLocks::class)->hold($this->craft()));
        $problem = $this->post('/craft/curlew/logs/fly', ['card' => 'cruise'], 409);
        self::assertStringContainsString('Fly Cruise', (string) json_encode($problem['error'] ?? ''));
        // Its process has gone, and has let go of the craft.
        self::getContainer()->get(CraftLocks::class)->release($this->craft());
        $this->page('/craft/curlew/51');
        $this->entities()->clear();
        self::assertSame(JobState::Interrupted, $this->entities()->find(Job::class, $job->id)?->state);
    }

    #[Group('slow')]
    public function testTheCommandLineSaysTheSameAsTheSheets(): void
    {
        $log = $this->flown();
        $path = $this->written('');
        $stream = fopen($path, 'w');
        self::assertIsResource($stream);
        \Ortholex\Core\FlightLog\LogWriter::write(self::getContainer()->get(LogStore::class)->load($log), $stream);
        fclose($stream);
        $tester = new CommandTester(self::getContainer()->get(AnalyseCommand::class));
        self::assertSame(0, $tester->execute(['log' => $path, '--json' => true]));
        $report = json_decode($tester->getDisplay(), true);
        self::assertIsArray($report);
        $stored = $this->json("/craft/curlew/logs/{$log->id}/analysis.json");
        self::assertEqualsWithDelta($stored['report']['step']['roll']['peak'] ?? 0, $report['step']['roll']['peak'] ?? 1, 0.002);
        foreach (['duration_s', 'sample_rate_hz', 'samples', 'gaps', 'bad_rows', 'traces'] as $key) {
            self::assertArrayHasKey($key, $report['log']);
        }
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            foreach (['delay_ms', 'rise_ms', 'peak', 'peak_ms', 'steady', 'windows_used', 'windows_rejected', 'grade', 'reasons'] as $key) {
                self::assertArrayHasKey($key, $report['step'][$axis]);
            }
            self::assertArrayHasKey('rms_dps', $report['spectrum'][$axis]['measured']);
            self::assertArrayHasKey('db', $report['spectrum'][$axis]['measured']['peaks'][0]);
        }
        self::assertSame(0, $tester->execute(['log' => $path]));
        self::assertStringContainsString('to 50 %', $tester->getDisplay());
    }

    public function testABadFileIsOneLineAndExitTwo(): void
    {
        $tester = new CommandTester(self::getContainer()->get(AnalyseCommand::class));
        foreach (['/nowhere.csv', $this->written("a,b\n1,2\n")] as $path) {
            self::assertSame(2, $tester->execute(['log' => $path], ['capture_stderr_separately' => true]));
            self::assertSame('', $tester->getDisplay());
            self::assertSame(1, substr_count(trim($tester->getErrorOutput())."\n", "\n"));
        }
    }

    #[Group('slow')]
    public function testAPassageIsKeptAndAnalysedAlone(): void
    {
        $log = $this->flown();
        self::assertSame('name', $this->post("/craft/curlew/logs/{$log->id}/passages", ['from' => 1, 'to' => 9], 422)['field']);
        self::assertSame(
            'to',
            $this->post("/craft/curlew/logs/{$log->id}/passages", ['name' => 'blink', 'from' => 1, 'to' => 1.2], 422)['field'],
        );
        $id = $this->post("/craft/curlew/logs/{$log->id}/passages", ['name' => 'first half', 'from' => 1, 'to' => 9])['id'];
        self::assertIsInt($id);
        self::assertStringContainsString('first half', $this->page("/craft/curlew/52?log={$log->id}&from=1&to=9"));
        $whole = $this->json("/craft/curlew/logs/{$log->id}/analysis.json");
        $part = $this->json("/craft/curlew/logs/{$log->id}/analysis.json?passage=$id");
        self::assertEqualsWithDelta(8.0, $part['report']['log']['duration_s'] ?? 0, 0.01);
        self::assertLessThan($whole['report']['step']['roll']['windows_used'] ?? 0, $part['report']['step']['roll']['windows_used'] ?? 99);
        self::assertStringContainsString('first half', $this->page("/craft/curlew/54?log={$log->id}&passage=$id"));
        $this->post("/craft/curlew/logs/{$log->id}/passages/$id/drop");
        self::assertStringNotContainsString('first half', $this->page("/craft/curlew/52?log={$log->id}"));
    }

    #[Group('slow')]
    public function testTheFrontOfALogGathersItsFindingsAndNothingIsLostByPuttingItAway(): void
    {
        $log = $this->flown();
        $html = $this->page("/craft/curlew/51/{$log->id}");
        foreach (
            [
                'Roll overshoots a step by',
                'What it can be used for',
                'which motor lost thrust, if one does',
                '/craft/curlew/61?setting=gain.roll.p',
            ] as $words
        ) {
            self::assertStringContainsString($words, $html);
        }
        $findings = $this->json("/craft/curlew/logs/{$log->id}/findings.json");
        self::assertSame($log->code, $findings['log'] ?? null);
        self::assertSame(['sheet' => '54', 'axis' => 'roll', 'passage' => null], $findings['findings'][0]['evidence'] ?? null);
        self::assertStringContainsString("Nothing went wrong in {$log->code}.", $this->page("/craft/curlew/55?log={$log->id}"));
        $this->post("/craft/curlew/logs/{$log->id}/note", ['note' => 'new bearings', 'tags' => 'wind']);
        $this->post("/craft/curlew/logs/{$log->id}/away");
        $this->page("/craft/curlew/51/{$log->id}", 404);
        self::assertStringContainsString('Bring back', $this->page('/craft/curlew/51'));
        $this->post("/craft/curlew/logs/{$log->id}/back");
        self::assertStringContainsString('new bearings', $this->page("/craft/curlew/51/{$log->id}"));
    }

    /** Rates alone: the front neither calls it faultless nor tells of sticks that were not logged. */
    public function testALogThatTellsTooLittleIsNotCalledFaultless(): void
    {
        $this->link();
        $csv = "time_s,rate_measured_roll_dps,output_front_left_pct,output_front_right_pct\n";
        for ($i = 0; $i < 3000; ++$i) {
            $csv .= \sprintf("%.3F,%.1F,%.1F,%.1F\n", $i / 1000, 90 * sin($i / 200), 40 + $i % 7, 41);
        }
        $job = $this->job('import', ['path' => $this->written($csv), 'name' => 'rates.csv']);
        self::assertSame(JobState::Done, $job->state, $job->message);
        $log = $this->entities()->getRepository(Log::class)->findAll()[0];
        $html = $this->page("/craft/curlew/51/{$log->id}");
        self::assertStringContainsString("{$log->code}: too little was logged to judge it.", $html);
        self::assertStringContainsString('The setpoint was not logged, or the sticks never moved.', $html);
        self::assertStringNotContainsString('no serious fault found', $html);
        self::assertStringNotContainsString('Sticks asked', $html);
        self::assertStringContainsString('No output reached its upper end', $html);
        self::assertStringNotContainsString('The throttle was never dropped', $html);
    }

    #[Group('slow')]
    public function testTheBenchLosesAMotorInFlightAndTheLogNamesIt(): void
    {
        $this->link();
        $this->ready();
        $this->world()->move('fault:lost_sync', '1');
        $job = $this->job('fly', ['card' => 'cruise', 'seed' => 5, 'seconds' => 16]);
        self::assertSame(JobState::Done, $job->state, $job->message);
        self::assertIsInt($job->result['log']);
        $html = $this->page('/craft/curlew/55?log='.$job->result['log']);
        self::assertSays(Fact::of(EventCode::MotorStopsPushing, place: 'rear_left'), $html);
        self::assertStringContainsString('the cause', $html);
        self::assertMatchesRegularExpression('~data-rates="[^"]*rate_filtered_pitch_dps~', $html);
    }

    public function testTheCommandLineTakesForeignColumnsMotorsAndPassages(): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'log');
        $rows = ['Clock ms;what I asked;gyroX;m1;m2;m3;m4'];
        for ($i = 0; $i < 16000; ++$i) {
            $rows[] = implode(
                ';',
                array_map(static fn (float $v): string => str_replace('.', ',', (string) round($v, 4)), [
                    $i,
                    120 * sin($i / 90) + 40 * sin($i / 31),
                    120 * sin(($i - 8) / 90) + 40 * sin(($i - 8) / 31),
                    1400 + ($i % 9),
                    1410,
                    1420,
                    1430,
                ]),
            );
        }
        file_put_contents($path, implode("\n", $rows));
        $run = static function (array $options) use ($path): array {
            $tester = new CommandTester(self::getContainer()->get(AnalyseCommand::class));
            $code = $tester->execute(['log' => $path, '--json' => true] + $options, ['capture_stderr_separately' => true]);
            $data = json_decode($tester->getDisplay(), true);

            return [$code, \is_array($data) ? $data : [], $tester->getErrorOutput()];
        };
        [$code, $report] = $run([
            '--map' => ['what I asked=setpoint_roll_dps'],
            '--motors' => 'rear-right:cw,front-right:ccw,rear-left:ccw,front-left:cw',
            '--from' => '2',
            '--to' => '14',
        ]);
        self::assertSame(0, $code);
        self::assertSame(
            [
                'setpoint_roll_dps',
                'rate_measured_roll_dps',
                'output_rear_right_pct',
                'output_front_right_pct',
                'output_rear_left_pct',
                'output_front_left_pct',
            ],
            $report['log']['traces'] ?? null,
        );
        self::assertEqualsWithDelta(12.0, $report['log']['duration_s'] ?? 0, 0.002);
        self::assertEqualsWithDelta(8.0, $report['lag']['roll']['ms'] ?? 0, 0.1);
        self::assertSame(
            ['log', 'step', 'spectrum', 'lag', 'noise', 'verdicts', 'incidents', 'signs', 'adequacy', 'findings', 'columns'],
            array_keys($report),
        );
        $columns = array_column(array_filter((array) $report['columns'], 'is_array'), null, 'column');
        self::assertSame('setpoint_roll_dps', $columns['what I asked']['trace'] ?? null);
        self::assertTrue($columns['what I asked']['sure'] ?? null, 'it was ordered');
        foreach (
            [
                ['--map' => ['nobody=setpoint_roll_dps']],
                ['--map' => ['odd']],
                ['--motors' => 'rear-right:up'],
                ['--motors' => 'a,a'],
                ['--motors' => 'a,b'],
                ['--from' => 'noon'],
                ['--from' => '90'],
            ] as $options
        ) {
            [$code, , $error] = $run($options);
            self::assertSame(2, $code, json_encode($options) ?: '');
            self::assertSame(1, substr_count(trim($error), "\n") + 1, 'one clear line');
        }
        unlink($path);
    }
}
