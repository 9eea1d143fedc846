<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Noise;

use Ortholex\App\Noise\Desk\DeskMeasurement;
use Ortholex\App\Work\JobState;
use Ortholex\Tests\app\AppCase;
use PHPUnit\Framework\Attributes\Group;

/** Sheet 53 without a flight: what a craft shakes with on the desk, its motors raised, props off. */
final class DeskTest extends AppCase
{
    public function testNothingTurnsBeforeThePropsAreDeclaredOff(): void
    {
        $page = $this->page('/craft/dunlin/53/desk');
        self::assertStringContainsString('Not measured yet', $page);
        $this->link('dunlin');
        $this->world('dunlin')->move('pack', '1');
        $this->post('/craft/dunlin/53/desk', [], 422);
        $job = $this->job('desk_noise', [], 'dunlin');
        self::assertSame(JobState::Failed, $job->state);
        self::assertSame([], $this->world('dunlin')->drive->turning($this->world('dunlin')->store->peek()));
        self::assertSame('', $this->world('dunlin')->store->peek()->mishap);
    }

    #[Group('slow')]
    public function testDunlinIsMeasuredAndItsFrameRings(): void
    {
        $this->link('dunlin');
        foreach (['props' => '0', 'pack' => '1', 'props_declared_off' => '1'] as $thing => $to) {
            $this->world('dunlin')->move($thing, $to);
        }
        $job = $this->job('desk_noise', [], 'dunlin');
        self::assertSame(JobState::Done, $job->state, $job->message);
        $measured = $this->entities()->getRepository(DeskMeasurement::class)->findOneBy([]);
        self::assertNotNull($measured);
        self::assertCount(27, $measured->steps());
        self::assertCount(2048, $measured->steps()[3]->bursts['pitch'][0]);
        $page = $this->page('/craft/dunlin/53/desk');
        // 241 Hz about pitch, by its physics; found at the steps that the shafts pass it in.
        self::assertMatchesRegularExpression('~The frame rings at 2[2-5]\d Hz about pitch~', $page);
        self::assertStringContainsString('once a turn', $page);
        self::assertStringContainsString('What props and air add', $page);
        foreach (['roll', 'yaw', 'sideways'] as $axis) {
            self::assertStringContainsString('id="cascade"', $this->page("/craft/dunlin/53/desk?axis=$axis"));
        }
    }

    public function testTakenBackItStops(): void
    {
        $this->link('dunlin');
        foreach ([['props', '0'], ['pack', '1'], ['props_declared_off', '1'], ['pack', '0']] as [$thing, $to]) {
            $this->post('/craft/dunlin/bench', ['thing' => $thing, 'to' => $to]);
        }
        $job = $this->job('desk_noise', [], 'dunlin');
        self::assertSame(JobState::Failed, $job->state, 'a declaration lapses with the pack');
        self::assertNull($this->entities()->getRepository(DeskMeasurement::class)->findOneBy([]));
    }
}
