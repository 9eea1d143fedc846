<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Guard;

use Ortholex\App\Proof\Proofs;
use Ortholex\Core\Proof\Proved;
use Ortholex\Core\Proof\ReplacedPart;
use Ortholex\Tests\app\Command\CommandCase;

/** Sheet 31 through its forms. */
final class ArmingSheetTest extends CommandCase
{
    public function testTheChainSaysWhatIsOpenAndLiveWhatChanged(): void
    {
        self::assertStringContainsString('Link the craft once', $this->page('/craft/dunlin/31'));
        $this->link('dunlin');
        $page = $this->page('/craft/dunlin/31');
        self::assertStringContainsString('Will not arm: ', $page);
        foreach (
            ['No frame of the receiver arrives', 'No switch is mapped to arm', 'How the board is mounted was never proved'] as $says
        ) {
            self::assertStringContainsString($says, $page);
        }
        $before = $this->json('/craft/dunlin/interlocks/now.json')['mark'];
        self::assertSame($before, $this->json('/craft/dunlin/interlocks/now.json')['mark']);
        $this->move('dunlin', 'pack', '1');
        self::assertNotSame($before, $this->json('/craft/dunlin/interlocks/now.json')['mark']);
    }

    public function testItArmsHereOnlyWithThePropsDeclaredOff(): void
    {
        $this->heard();
        $this->move('curlew', 'pack', '1');
        $this->move('curlew', 'radio:lever.A', '0');
        $refused = $this->post('/craft/curlew/interlocks/arm', [], 422);
        self::assertStringContainsString('before the props are declared off', (string) json_encode($refused));
        $this->move('curlew', 'props', '0');
        $this->move('curlew', 'props_declared_off', '1');
        $this->post('/craft/curlew/interlocks/arm');
        usleep(200_000);
        $this->json('/craft/curlew/interlocks/now.json');
        $this->move('curlew', 'radio:lever.A', '2');
        usleep(300_000);
        $now = $this->json('/craft/curlew/interlocks/now.json');
        self::assertTrue($now['armed'], (string) json_encode($now));
        self::assertSame('Armed.', $now['says']);
        $this->post('/craft/curlew/interlocks/arm', ['stop' => '1']);
        self::assertFalse($this->json('/craft/curlew/interlocks/now.json')['armed']);
        $this->move('curlew', 'cable', '0');
        $this->post('/craft/curlew/interlocks/arm', [], 409);
    }

    public function testARepairOpensItsChecksUntilTheyAreDone(): void
    {
        $this->link();
        self::assertStringNotContainsString('was replaced', $this->page('/craft/curlew/31'));
        $said = $this->post('/craft/curlew/interlocks/repair', ['part' => 'receiver']);
        self::assertStringContainsString('how far the sticks reach, what becomes of a lost link', (string) json_encode($said));
        self::assertStringContainsString(
            'How far the sticks reach is to be proved again: the receiver was replaced',
            $this->page('/craft/curlew/31'),
        );
        self::assertStringContainsString('To be checked again before it flies', $this->page('/'));
        self::assertSame('part', $this->post('/craft/curlew/interlocks/repair', ['part' => 'wing'], 422)['field']);
        $craft = $this->craft();
        self::getContainer()->get(Proofs::class)->prove($craft, Proved::Spans, $craft->settings);
        self::assertStringNotContainsString('How far the sticks reach is to be', $this->page('/craft/curlew/31'));
        $this->post('/craft/curlew/interlocks/repair', ['part' => ReplacedPart::Prop->value]);
        $this->post('/craft/curlew/interlocks/said', ['what' => 'props']);
        self::assertStringNotContainsString('a prop was replaced', $this->page('/craft/curlew/31'));
        self::assertSame(
            'what',
            $this->post('/craft/curlew/interlocks/said', ['what' => 'mounting'], 422)['field'],
            'saying so proves no mounting',
        );
    }

    public function testTicksKeepTheirTimeAndGoStaleWithTheSettings(): void
    {
        $this->link();
        $this->post('/craft/curlew/interlocks/tick', ['item' => 'screws', 'done' => '1']);
        self::assertMatchesRegularExpression('~\d\d:\d\d · rev \d+~', $this->page('/craft/curlew/31'));
        $craft = $this->craft();
        ++$craft->revision;
        $this->entities()->flush();
        self::assertStringContainsString('settings changed since', $this->page('/craft/curlew/31'));
        $this->post('/craft/curlew/interlocks/tick', ['anew' => '1']);
        self::assertSame([], $this->craft()->ticks);
        $this->post('/craft/curlew/interlocks/tick', ['item' => '../x', 'done' => '1'], 422);
    }

    public function testWhatForbidsIsASettingWhereThatIsSafe(): void
    {
        $this->link();
        $page = $this->page('/craft/curlew/31');
        self::assertStringContainsString('interlock.if_tilted', $page);
        self::assertStringContainsString('always forbid', $page);
        $this->post('/craft/curlew/stage', ['values' => ['interlock.if_pack_low' => 'warn']]);
        self::assertStringContainsString('1 change waits in the tray', $this->page('/craft/curlew/31'));
        $this->post('/craft/curlew/stage', ['values' => ['interlock.if_pack_low' => 'ignore']], 422);
    }
}
