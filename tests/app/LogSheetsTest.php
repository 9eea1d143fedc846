<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\FlightLog\LogStore;
use Ortholex\App\Work\CraftLocks;
use Ortholex\App\Work\Job;
use Ortholex\App\Work\JobState;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\FlightLog\LogWriter;
use Ortholex\Core\LogCheck\SignCode;
use Ortholex\Core\Step\Confidence\ConfidenceReason;
use Ortholex\Core\Step\Exclusion;
use PHPUnit\Framework\Attributes\Group;

/** What sheets 51 to 54 do with logs already in: several beside each other, windows excluded, axes turned, parts noted. */
final class LogSheetsTest extends AppCase
{
    #[Group('slow')]
    public function testSeveralLogsStandBesideEachOther(): void
    {
        $first = $this->flown('hover_and_climb', 3, 26);
        $this->post('/craft/curlew/stage', ['values' => ['gain.roll.p' => 26.0, 'gain.roll.d' => 2.9]]);
        $this->post('/craft/curlew/commit', ['reason' => 'calmer']);
        $second = $this->flown('hover_and_climb', 4, 26);
        $third = $this->flown('mixed_sticks', 4);
        $html = $this->page("/craft/curlew/53?log={$first->id}&beside[]={$second->id}&beside[]={$third->id}&axis=pitch");
        self::assertMatchesRegularExpression('~<h1> ?C-000\d is the quietest|shake alike~', $html);
        self::assertStringContainsString("$first->code minus $second->code", $html);
        self::assertStringContainsString("Changed since $second->code", $html);
        self::assertStringContainsString('They were not flown alike', $html);
        self::assertMatchesRegularExpression('~value="pitch" checked~', $html);
        $html = $this->page("/craft/curlew/54?log={$third->id}&beside[]={$first->id}&beside[]={$second->id}");
        self::assertSame(9, substr_count($html, 'data-rank='));
        $less = $this->json("/craft/curlew/logs/{$first->id}/less/{$second->id}.json");
        self::assertSame(['roll', 'pitch', 'yaw'], array_keys($less['map'] ?? []));
        self::assertSame(['roll', 'pitch', 'yaw'], array_keys($less['rpm_map'] ?? []));
        self::assertGreaterThan(5, \count($less['map']['roll']['bins'] ?? []));
        // More than there may be are left out; a log of nobody is not found; a log less itself is refused.
        self::assertSame(
            2,
            substr_count(
                $this->page("/craft/curlew/53?log={$first->id}&beside[]={$second->id}&beside[]={$third->id}&beside[]={$second->id}"),
                'class="beside-chip"',
            ),
        );
        $this->page("/craft/curlew/53?log={$first->id}&beside[]=999", 404);
        $this->page("/craft/curlew/53?log={$first->id}&beside[]=x&beside[][]=1");
        $this->browser->request('GET', "/craft/curlew/logs/{$first->id}/less/{$first->id}.json");
        self::assertSame(422, $this->browser->getResponse()->getStatusCode());
        // Two flights of one card, locked on one time base.
        self::assertStringContainsString("$second->code, locked", $this->page("/craft/curlew/52?log={$first->id}&beside[]={$second->id}"));
        $aligned = $this->json("/craft/curlew/logs/{$first->id}/aligned/{$second->id}.json");
        self::assertTrue($aligned['alike'] ?? false);
        self::assertEqualsWithDelta(0.0, $aligned['shift_s'] ?? 9, 0.1, 'the same card, begun at the same time');
    }

    #[Group('slow')]
    public function testAWindowIsSeenStruckOutAndTakenBack(): void
    {
        $log = $this->flown();
        $url = "/craft/curlew/logs/{$log->id}";
        $before = $this->json("$url/analysis.json");
        $windows = $before['charts']['step']['roll']['windows'] ?? [];
        $used = array_keys(array_filter($windows, static fn (mixed $w): bool => \is_array($w) && '' === $w['why']));
        self::assertCount($before['report']['step']['roll']['windows_used'] ?? -1, $used);
        $frame = $this->json("$url/windows/roll/{$used[3]}.json");
        self::assertSame($windows[$used[3]]['at_s'], $frame['at_s'] ?? null);
        self::assertCount(2048, $frame['setpoint'] ?? []);
        $truth = self::getContainer()
            ->get(LogStore::class)
            ->load($log, ['setpoint_roll_dps'])
            ->trace('setpoint_roll_dps');
        $first = (int) round($windows[$used[3]]['at_s'] * 2000);
        self::assertEqualsWithDelta(
            ($truth[$first] + $truth[$first + 1]) / 2,
            $frame['setpoint'][0] ?? 0,
            0.06,
            'the window\'s own samples',
        );
        self::assertGreaterThan(0.1, $frame['own_share'] ?? 0);

        $answer = $this->post("$url/strike", ['axis' => 'roll', 'at' => $windows[$used[3]]['at_s'], 'out' => '1']);
        self::assertSame([$windows[$used[3]]['at_s']], $answer['struck'] ?? null);
        $after = $this->json("$url/analysis.json");
        self::assertSame(\count($used) - 1, $after['report']['step']['roll']['windows_used'] ?? 0);
        self::assertSame(Exclusion::ByHand->value, $after['charts']['step']['roll']['windows'][$used[3]]['why'] ?? '');
        self::assertSame(1, $after['report']['step']['roll']['windows_rejected']['excluded by hand'] ?? 0);
        foreach (['pitch', 'yaw'] as $axis) {
            self::assertSame($before['report']['step'][$axis] ?? null, $after['report']['step'][$axis] ?? null);
        }
        self::assertSame($before['report']['spectrum'] ?? null, $after['report']['spectrum'] ?? null);
        self::assertCount(\count($before['report']['findings'] ?? []), $after['report']['findings'] ?? []);
        self::assertSays(Fact::of(ConfidenceReason::ExcludedByHand, windows: 1), $this->page("/craft/curlew/54?log={$log->id}"));

        $this->post("$url/strike", ['axis' => 'roll', 'at' => $windows[$used[3]]['at_s'], 'out' => '0']);
        self::assertSame($before, $this->json("$url/analysis.json"), 'nothing is lost by striking out');
        $this->post("$url/strike", ['axis' => 'sideways', 'at' => 1], 422);
        $this->post("$url/strike", ['axis' => 'roll', 'at' => 'noon'], 422);
        $this->browser->request('GET', "$url/windows/roll/9999.json");
        self::assertSame(422, $this->browser->getResponse()->getStatusCode());
        self::assertSame('number', json_decode((string) $this->browser->getResponse()->getContent(), true)['field'] ?? null);
    }

    #[Group('slow')]
    public function testMovesAreCountedByLimitsOfOnesOwn(): void
    {
        $log = $this->flown();
        $html = $this->page("/craft/curlew/logs/{$log->id}/sizes?small=200&medium=300");
        self::assertStringContainsString('≤200', $html);
        self::assertStringContainsString('≤300', $html);
        foreach (['', 'small=300&medium=200', 'small=x&medium=2', 'small=-1&medium=2'] as $bad) {
            self::assertStringContainsString('Give two rates', $this->page("/craft/curlew/logs/{$log->id}/sizes?$bad", 422));
        }
    }

    #[Group('slow')]
    public function testAnAxisCountedTheOtherWayIsTurnedAboutAndBack(): void
    {
        $log = $this->flown();
        $stream = fopen($path = $this->written(''), 'w');
        self::assertIsResource($stream);
        $traces = [
            'setpoint_pitch_dps',
            'rate_measured_pitch_dps',
            'rate_filtered_pitch_dps',
            'term_p_pitch',
            'term_i_pitch',
            'term_d_pitch',
            'term_ff_pitch',
        ];
        LogWriter::write(self::getContainer()->get(LogStore::class)->load($log)->with([], $traces), $stream);
        fclose($stream);
        $job = $this->job('import', ['path' => $path, 'name' => 'nose down.csv']);
        self::assertSame(JobState::Done, $job->state, $job->message);
        self::assertIsInt($job->result['log']);
        $id = $job->result['log'];
        $html = $this->page("/craft/curlew/51/$id");
        self::assertSays($otherWay = Fact::of(SignCode::CountedOtherWay, axis: 'pitch'), $html);
        self::assertStringContainsString('Reverse the sign of pitch', $html);
        $found = $this->json("/craft/curlew/logs/$id/analysis.json")['report']['signs'][0]['turn'] ?? [];
        self::assertSame($traces, $found);
        $this->post("/craft/curlew/logs/$id/turn", ['traces' => implode(',', $found)]);
        self::assertDoesNotSay($otherWay, $this->page("/craft/curlew/51/$id"));
        self::assertStringContainsString('Pitch as it was logged', $this->page("/craft/curlew/51/$id"));
        $store = self::getContainer()->get(LogStore::class);
        $this->entities()->clear();
        $turned = $this->entities()->find(Log::class, $id);
        self::assertNotNull($turned);
        self::assertEqualsWithDelta(
            $store->load($log, ['rate_measured_pitch_dps'])->trace('rate_measured_pitch_dps'),
            $store->load($turned, ['rate_measured_pitch_dps'])->trace('rate_measured_pitch_dps'),
            6e-4,
        );
        // The pyramid turned with it: least stays under greatest, at every level.
        $values = array_values((array) unpack('g*', $store->view($id, ['rate_measured_pitch_dps'], 0, $turned->samples)['data'][0]));
        for ($i = 0, $n = \count($values); $i < $n; $i += 2) {
            self::assertLessThanOrEqual($values[$i + 1], $values[$i]);
        }
        $this->post("/craft/curlew/logs/$id/turn", ['traces' => implode(',', $found)]);
        self::assertSays($otherWay, $this->page("/craft/curlew/51/$id"));
        foreach (['', 'nothing', 'rate_measured_roll_dps,rate_measured_pitch_dps', 'throttle_pct'] as $bad) {
            $this->post("/craft/curlew/logs/$id/turn", ['traces' => $bad], 422);
        }
    }

    #[Group('slow')]
    public function testPartsReplacedAreNotedByPartAndPlace(): void
    {
        $log = $this->flown();
        $this->post("/craft/curlew/logs/{$log->id}/parts", ['part' => 'motor', 'place' => 'rear left', 'with' => 'the same, new bearings']);
        $this->post("/craft/curlew/logs/{$log->id}/parts", ['part' => 'prop', 'place' => 'all', 'with' => '']);
        self::assertSame('part', $this->post("/craft/curlew/logs/{$log->id}/parts", ['part' => 'anchor'], 422)['field'] ?? null);
        $html = $this->page("/craft/curlew/51/{$log->id}");
        self::assertStringContainsString('<b>motor</b>, rear left: the same, new bearings', $html);
        self::assertStringContainsString('new: motor rear left, prop all', $this->page('/craft/curlew/51'));
        foreach (['x', '-1', '7'] as $bad) {
            $this->post("/craft/curlew/logs/{$log->id}/parts", ['drop' => $bad], 422);
        }
        self::assertStringContainsString(
            'new bearings',
            $this->page("/craft/curlew/51/{$log->id}"),
            'a number that is none takes nothing out',
        );
        $this->post("/craft/curlew/logs/{$log->id}/parts", ['drop' => '0']);
        self::assertStringNotContainsString('new bearings', $this->page("/craft/curlew/51/{$log->id}"));
        self::assertStringContainsString('<b>prop</b>, all', $this->page("/craft/curlew/51/{$log->id}"));
    }

    #[Group('slow')]
    public function testALongLogIsLookedAtByAJobWhileTheSheetSaysSo(): void
    {
        $log = $this->flown();
        $id = (int) $log->id;
        $this->entities()->getConnection()->executeStatement('UPDATE log SET duration_s = 900');
        $this->entities()->getConnection()->executeStatement('DELETE FROM analysis');
        $this->entities()->clear();
        // Work under way already, so that no process is started from here.
        $locks = self::getContainer()->get(CraftLocks::class);
        $locks->hold($this->craft());
        $other = new Job($this->craft(), 'import', 'Bring in another', [], microtime(true));
        $other->state = JobState::Running;
        $other->pid = (int) getmypid();
        $other->heartbeatAt = microtime(true);
        $this->entities()->persist($other);
        $this->entities()->flush();
        foreach (['53', '54', '55', "51/$id"] as $sheet) {
            $this->page("/craft/curlew/$sheet".(2 === \strlen($sheet) ? "?log=$id" : ''), 202);
        }
        self::assertStringContainsString('what was asked', $this->page("/craft/curlew/52?log=$id"), 'the traces are there meanwhile');
        $this->browser->request('GET', "/craft/curlew/logs/$id/analysis.json");
        self::assertSame(503, $this->browser->getResponse()->getStatusCode());
        // A short one that another process is just bringing in is not looked at here once more, nor is a job begun for it.
        $this->entities()->getConnection()->executeStatement('UPDATE log SET duration_s = 2');
        $this->entities()->clear();
        $other = $this->entities()->find(Job::class, $other->id) ?? throw new \LogicException('it is gone');
        $other->pid = posix_getppid();
        $this->entities()->flush();
        $jobs = $this->entities()->getRepository(Job::class)->count();
        self::assertStringContainsString('is still being looked at', $this->page("/craft/curlew/54?log=$id", 202));
        self::assertSame($jobs, $this->entities()->getRepository(Job::class)->count());
        $locks->release($this->craft());
        $other->state = JobState::Done;
        $this->entities()->flush();
        $job = $this->job('analyse', ['log' => $id, 'passage' => null]);
        self::assertSame(JobState::Done, $job->state, $job->message);
        self::assertStringContainsString('Roll overshoots', $this->page("/craft/curlew/54?log=$id"));
        self::assertSame(JobState::Failed, $this->job('analyse', ['log' => $id, 'passage' => 77])->state);
        self::assertSame(JobState::Failed, $this->job('analyse', ['log' => 77])->state);
    }
}
