<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

use Ortholex\Bench\World\World;
use Ortholex\Core\Airframe\SpinCode;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Guard\Interlock;

final class MotorsTest extends AppCase
{
    public function testNothingTurnsBeforeEveryInterlockIsMet(): void
    {
        self::assertStringContainsString('cable is out', (string) json_encode($this->post('/craft/dunlin/motors/spin', ['pad' => 1], 409)));
        $this->link('dunlin');
        $html = $this->page('/craft/dunlin/15');
        self::assertSays(Interlock::ConnectThePack, $html);
        self::assertSays(Interlock::TakePropsOff, $html);
        self::assertDoesNotSay(Interlock::LinkTheCraft, $html);
        self::assertSame('props', $this->post('/craft/dunlin/motors/spin', ['pad' => 1], 422)['field']);
        $this->bench()->move('props', '0');
        $this->bench()->move('props_declared_off', '1');
        self::assertStringContainsString('no power', (string) json_encode($this->post('/craft/dunlin/motors/spin', ['pad' => 1], 409)));
        $this->bench()->move('pack', '1');
        self::assertSame(
            'props',
            $this->post('/craft/dunlin/motors/spin', ['pad' => 1], 422)['field'],
            'the declaration lapsed with the pack',
        );
        $this->bench()->move('props_declared_off', '1');
        $this->post('/craft/dunlin/motors/spin', ['pad' => 1]);
        self::assertSame('front_right', $this->json('/craft/dunlin/live.json')['bench']['turning'][0]['place'] ?? null);
        $this->post('/craft/dunlin/motors/spin', ['pad' => 1, 'stop' => '1']);
        self::assertSame([], $this->json('/craft/dunlin/live.json')['bench']['turning'] ?? null);
        self::assertSame('pad', $this->post('/craft/dunlin/motors/spin', ['pad' => 99], 422)['field']);
    }

    /** Dunlin's outputs were soldered in a cycle of three; what the bench shows is all that is answered. */
    public function testWhatTheBuilderSawGivesTheMapAndASecondRoundProvesIt(): void
    {
        $this->link('dunlin');
        $this->bench()->move('props', '0');
        $this->bench()->move('pack', '1');
        $this->bench()->move('props_declared_off', '1');
        self::assertSame('answers', $this->post('/craft/dunlin/motors/map', [], 422)['field']);
        $this->round();
        $html = $this->page('/craft/dunlin/15');
        $wrong = Fact::of(SpinCode::OutputsMovedAndMotorsTurnWrong, outputs: 3, places: ['rear_right', 'rear_left'], motors: 2);
        self::assertSays($wrong, $html);
        self::assertStringContainsString('they are read', $html, 'the ESCs were not read: the pack came on before anyone was linked');
        $this->bench()->move('pack', '0');
        $this->bench()->move('pack', '1');
        $this->bench()->move('props_declared_off', '1');
        $this->post('/craft/dunlin/escs/read');
        self::assertStringContainsString('action="/craft/dunlin/motors/map"', $this->page('/craft/dunlin/15'));
        $this->post('/craft/dunlin/motors/map');
        self::assertSame(
            [
                'pad.2.drives' => 'rear_left',
                'pad.3.drives' => 'front_left',
                'pad.4.drives' => 'rear_right',
                'esc.rear_right.direction' => 'swapped',
                'esc.rear_left.direction' => 'swapped',
            ],
            $this->staged($this->craft('dunlin')),
        );
        // What was seen stays until it is on the craft; staging it twice turns nothing back.
        $html = $this->page('/craft/dunlin/15');
        self::assertStringContainsString('4 of 4 shown', $html);
        self::assertStringContainsString('Staged: commit it', $html);
        self::assertStringNotContainsString('action="/craft/dunlin/motors/map"', $html);
        $staged = $this->staged($this->craft('dunlin'));
        $this->post('/craft/dunlin/motors/map');
        self::assertSame($staged, $this->staged($this->craft('dunlin')));
        $this->post('/craft/dunlin/discard');
        self::assertStringContainsString('action="/craft/dunlin/motors/map"', $this->page('/craft/dunlin/15'), 'nothing is shown anew');
        $this->post('/craft/dunlin/motors/map');
        self::assertSame($staged, $this->staged($this->craft('dunlin')));
        $this->post('/craft/dunlin/commit', ['reason' => 'soldered as the arms lay']);
        $state = $this->bench()->store->peek();
        self::assertSame(
            ['as_wired', 'swapped', 'as_wired', 'swapped'],
            array_map(static fn (int $pad): mixed => $state->esc($pad)->settings['direction'], [1, 2, 3, 4]),
            'by pad: those of rear left and rear right alone',
        );
        self::assertStringContainsString('0 of 4 shown', $this->page('/craft/dunlin/15'));
        usleep(20_000);
        $this->round();
        self::assertSays(SpinCode::AllRight, $this->page('/craft/dunlin/15'));
    }

    public function testAnswersThatClashAreNamed(): void
    {
        $this->link('dunlin');
        $this->post('/craft/dunlin/motors/answer', ['pad' => 1, 'place' => 'front_left', 'direction' => 1]);
        $this->post('/craft/dunlin/motors/answer', ['pad' => 2, 'place' => 'front_left', 'direction' => -1]);
        self::assertSays(Fact::of(SpinCode::PadsShareMotor, pads: ['1', '2'], place: 'front_left'), $this->page('/craft/dunlin/15'));
        self::assertSame(
            'place',
            $this->post('/craft/dunlin/motors/answer', ['pad' => 2, 'place' => 'tail', 'direction' => 1], 422)['field'],
        );
        $this->post('/craft/dunlin/motors/again');
        self::assertStringContainsString('0 of 4 shown', $this->page('/craft/dunlin/15'));
    }

    private function round(): void
    {
        foreach ([1, 2, 3, 4] as $pad) {
            $this->post('/craft/dunlin/motors/spin', ['pad' => $pad]);
            $turning = $this->json('/craft/dunlin/live.json')['bench']['turning'][0] ?? null;
            self::assertIsArray($turning);
            $this->post('/craft/dunlin/motors/answer', ['pad' => $pad, 'place' => $turning['place'], 'direction' => $turning['direction']]);
        }
    }

    private function bench(): World
    {
        return $this->world('dunlin');
    }
}
