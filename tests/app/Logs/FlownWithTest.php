<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Logs;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\Work\JobState;
use Ortholex\Tests\app\AppCase;

/** A log from elsewhere does not say what it was flown with: it is said by hand. */
final class FlownWithTest extends AppCase
{
    public function testIsSaidByHandOrTakenFromTheCraft(): void
    {
        $this->link();
        $log = $this->foreign();
        self::assertTrue($log->settings->isEmpty());
        $front = "/craft/curlew/51/$log->id";
        self::assertStringContainsString('id="say-flown-with"', $this->page($front));
        $say = "/craft/curlew/logs/$log->id/flown-with";
        foreach (['' => 'at least one setting', 'gain.roll.p: 900' => 'line 1', 'gain.roll.x: 3' => 'no such setting'] as $yaml => $words) {
            $problem = $this->post($say, ['yaml' => $yaml], 422);
            self::assertSame('yaml', $problem['field']);
            self::assertStringContainsString($words, (string) json_encode($problem['error']));
        }
        self::assertTrue($this->again($log)->settings->isEmpty(), 'nothing was kept of what was wrong');
        $this->post($say, ['yaml' => "gain.roll.p: 28\ngain.roll.d: 2\n"]);
        self::assertSame(28.0, $this->again($log)->settings->number('gain.roll.p'));
        $this->post($say, ['as_it_stands' => '1']);
        self::assertSame($this->craft()->settings->number('gain.pitch.p'), $this->again($log)->settings->number('gain.pitch.p'));
        self::assertStringContainsString('id="flown-with"', $this->page($front));
    }

    private function foreign(): Log
    {
        $csv = "time_s,setpoint_roll_dps,rate_measured_roll_dps\n";
        for ($i = 0; $i < 3000; ++$i) {
            $csv .= \sprintf("%.4f,%.3f,%.3f\n", $i / 500, 100 * sin($i / 60), 100 * sin(($i - 6) / 60));
        }
        $upload = $this->upload($csv);
        $job = $this->job('import', ['path' => self::data()."/uploads/$upload", 'name' => 'elsewhere.csv']);
        self::assertSame(JobState::Done, $job->state, $job->message);

        return $this->entities()->getRepository(Log::class)->findOneBy([], ['id' => 'DESC']) ?? throw new \LogicException('no log');
    }

    private function again(Log $log): Log
    {
        $this->entities()->clear();

        return $this->entities()->find(Log::class, $log->id) ?? throw new \LogicException('it is gone');
    }
}
