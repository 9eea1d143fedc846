<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Guard;

use Ortholex\App\Proof\Proofs;
use Ortholex\App\Work\JobState;
use Ortholex\Core\Proof\Proved;
use Ortholex\Tests\app\Command\CommandCase;

/** Sheet 32 through its forms and jobs. */
final class LinkLossSheetTest extends CommandCase
{
    public function testARehearsalIsRefusedUntilItCanTell(): void
    {
        $this->link();
        self::assertSame('rehearse', $this->post('/craft/curlew/link-loss/rehearse', [], 422)['field'], 'nobody is heard');
        $this->heard();
        $this->move('curlew', 'radio:lever.B', '0');
        usleep(150_000);
        $refused = $this->post('/craft/curlew/link-loss/rehearse', [], 422);
        self::assertStringContainsString('put a lever up', (string) json_encode($refused));
        $this->move('curlew', 'cable', '0');
        $this->post('/craft/curlew/link-loss/rehearse', [], 409);
    }

    public function testARehearsalIsWatchedAndLapsesWithWhatItRestedOn(): void
    {
        $this->heard();
        $this->move('curlew', 'radio:manner', 'repeats');
        $this->move('curlew', 'radio:lever.B', '2');
        usleep(300_000);
        $job = $this->job('rehearse', []);
        self::assertSame(JobState::Done, $job->state, $job->message);
        self::assertSame('repeats', $job->result['manner'] ?? null);
        self::assertTrue($job->result['never_noticed'] ?? null);
        self::assertTrue($this->world()->store->peek()->transmitter, 'the transmitter is on again');
        $page = $this->page('/craft/curlew/32');
        self::assertStringContainsString('would never be noticed', $page);
        self::assertStringContainsString('Two cures', $page);
        self::assertStringContainsString('nobody would notice a lost link', $this->page('/craft/curlew/31'));
        $craft = $this->craft();
        $other = $craft->settings->with(['link_loss.hold_s' => 0.9]);
        self::getContainer()->get(Proofs::class)->prove($craft, Proved::Rehearsal, $other, ['manner' => 'stops', 'noticed_s' => 0.15]);
        self::assertStringContainsString('these changed since: link_loss.hold_s', $this->page('/craft/curlew/32'));
    }

    public function testALossIsFlownAndItsPathKept(): void
    {
        $this->link();
        $this->move('curlew', 'radio:manner', 'stops');
        $job = $this->job('fly_loss', ['height' => 12, 'wind' => 2, 'used' => 20]);
        self::assertSame(JobState::Done, $job->state, $job->message);
        // 12 m without motors: 14.0 m/s, and hardly less for the moment that they ran on.
        self::assertEqualsWithDelta(14.0, $job->result['impact'] ?? 0.0, 1.2);
        self::assertEqualsWithDelta(1.15, $job->result['noticed'] ?? 0.0, 0.06);
        self::assertStringContainsString('on the ground after', $this->page('/craft/curlew/32'));
        $this->post('/craft/curlew/link-loss/fly', ['height' => '900', 'wind' => '2', 'used' => '20'], 422);
        $this->post('/craft/curlew/link-loss/fly', ['height' => '10', 'wind' => 'x', 'used' => '20'], 422);
    }

    public function testSinkSpeedComesFromTheCraftsOwnLog(): void
    {
        $this->link();
        self::assertStringContainsString('It takes one log in which it hovers', $this->page('/craft/curlew/32'));
        $this->ready();
        $this->flown('hover_and_climb', 5, 24);
        $page = $this->page('/craft/curlew/32');
        self::assertStringContainsString('Hover at 3', $page);
        self::assertStringContainsString('No fixed throttle is right', $page);
    }

    public function testARangeWalkIsNotedAndItsMarginReckoned(): void
    {
        $this->heard();
        $this->move('curlew', 'radio:quiet', '1');
        foreach (['10', '100', '250', '400'] as $metres) {
            $this->move('curlew', 'radio:distance', $metres);
            usleep(250_000);
            $this->post('/craft/curlew/link-loss/walk', ['metres' => $metres]);
        }
        $walk = array_column($this->craft()->walk, 1, 0);
        self::assertCount(4, $walk);
        self::assertGreaterThan(95, $walk[10] ?? 0);
        self::assertLessThan(70, $walk[400] ?? 100);
        self::assertStringContainsString('Held to <span class="fig">250 m</span>', $this->page('/craft/curlew/32'));
        self::assertSame('metres', $this->post('/craft/curlew/link-loss/walk', ['metres' => 'far'], 422)['field']);
        $this->post('/craft/curlew/link-loss/walk', ['anew' => '1']);
        self::assertSame([], $this->craft()->walk);
    }

    /** The two cards of the open world, from the Logs sheet's own job: they leave logs like any other flight. */
    public function testTheMaidenCardIsFlownAndALostLinkEndsOnTheGround(): void
    {
        $this->link();
        $this->ready();
        $this->move('curlew', 'radio:manner', 'stops');
        $maiden = $this->job('fly', ['card' => 'maiden', 'seed' => 5, 'seconds' => 60]);
        self::assertSame(JobState::Done, $maiden->state, $maiden->message);
        self::assertFalse($maiden->result['crashed'] ?? null);
        $lost = $this->job('fly', ['card' => 'link_lost', 'seed' => 6, 'seconds' => 60]);
        self::assertSame(JobState::Done, $lost->state, $lost->message);
        self::assertTrue($lost->result['crashed'] ?? null, 'its plan cuts the motors');
        self::assertStringContainsString('Link lost, ended on the ground', $this->page('/craft/curlew/51'));
    }
}
