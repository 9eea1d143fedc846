<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Command;

use Ortholex\App\Sticks\Evidence;
use Ortholex\Tests\app\Fault\FullDisk;

/** Sheet 21 through its forms. */
final class RadioTest extends CommandCase
{
    public function testDunlinIsBroughtFromSilenceToASoundRadioByFormsAlone(): void
    {
        $this->link('dunlin');
        $page = fn (): string => $this->page('/craft/dunlin/21');
        self::assertStringContainsString('The board listens to no receiver yet.', $page());
        $this->post('/craft/dunlin/radio/find');
        self::assertSame(
            ['receiver.protocol' => 'crsf', 'uart.1.baud' => '420000', 'uart.1.role' => 'receiver'],
            $this->sorted($this->staged($this->craft('dunlin'))),
        );
        $this->post('/craft/dunlin/commit', ['reason' => 'found']);
        usleep(30_000);
        self::assertStringContainsString('The receiver works, but hears no transmitter.', $page());
        $this->move('dunlin', 'transmitter', '1');
        $this->move('dunlin', 'radio:button', '1');
        $this->move('dunlin', 'cable', '0');
        $this->move('dunlin', 'cable', '1');
        $this->move('dunlin', 'radio:bind', '1');
        $this->link('dunlin');
        usleep(60_000);
        self::assertStringContainsString('Which channel is which stick is not shown yet.', $page());
        self::assertSame('order', $this->post('/craft/dunlin/radio/stage', ['what' => 'order'], 422)['field'], 'nothing was shown');
        $this->post('/craft/dunlin/radio/capture', ['kind' => 'order']);
        foreach (['roll=1' => 'roll', 'pitch=1' => 'pitch', 'throttle=1' => 'throttle', 'yaw=1' => 'yaw'] as $to => $stick) {
            self::assertSame($stick, $this->json('/craft/dunlin/radio/now.json')['asked']);
            $this->move('dunlin', 'radio:sticks', $to);
            $this->look('dunlin', 0.4);
            $this->move('dunlin', 'radio:let_go', '1');
            $this->look('dunlin', 0.4);
        }
        self::assertSame('', $this->json('/craft/dunlin/radio/now.json')['capture']);
        $this->post('/craft/dunlin/radio/stage', ['what' => 'order']);
        $staged = $this->staged($this->craft('dunlin'));
        self::assertSame([2, 3, 1, true], [
            $staged['channel.roll.number'],
            $staged['channel.pitch.number'],
            $staged['channel.throttle.number'],
            $staged['channel.pitch.reversed'],
        ]);
        self::assertSame('spans', $this->post('/craft/dunlin/radio/stage', ['what' => 'spans'], 422)['field']);
        $this->spans('dunlin');
        self::assertStringContainsString('Or dial it in the transmitter', $page());
        $this->post('/craft/dunlin/radio/stage', ['what' => 'spans']);
        $this->post('/craft/dunlin/commit', ['reason' => 'shown']);
        self::assertStringContainsString('The sticks say what you mean.', $page());
        $set = $this->craft('dunlin')->settings;
        self::assertEqualsWithDelta(1074.0, $set->number('channel.roll.low_us'), 2.0);
        self::assertEqualsWithDelta(1969.0, $set->number('channel.roll.high_us'), 2.0);
        self::assertEqualsWithDelta(1514.0, $set->number('channel.roll.middle_us'), 2.0);
        // Back to stock spans, and nothing else is touched.
        $this->post('/craft/dunlin/radio/stage', ['what' => 'stock']);
        foreach (array_keys($this->staged($this->craft('dunlin'))) as $name) {
            self::assertMatchesRegularExpression('~^channel\.\w+\.(low|middle|high)_us$~', $name);
        }
    }

    /** The other cure: what the sheet says is dialled in the transmitter, and a capture shows that stock spans are right. */
    public function testWhatIsSaidToDialMakesTheStockSpansRight(): void
    {
        $this->heard();
        foreach (['low' => '88', 'high' => '91', 'trim' => '14'] as $part => $to) {
            $this->move('curlew', "radio:dial.1.$part", $to);
        }
        $this->spans('curlew');
        $html = $this->page('/craft/curlew/21');
        $cell = '<td class="num fig">\s*';
        self::assertMatchesRegularExpression("~roll</td> {$cell}1\\.13\\d\\s*</td> {$cell}1\\.(09|10)\\d\\s*</td>~", $html);
        self::assertStringContainsString('-14 µs', $html);
        foreach (['low' => '100', 'high' => '100', 'trim' => '0'] as $part => $to) {
            $this->move('curlew', "radio:dial.1.$part", $to);
        }
        $this->spans('curlew');
        self::assertStringContainsString('The sticks say what you mean.', $this->page('/craft/curlew/21'));
    }

    public function testAPulledCableBeginsACaptureAnewAndTwoPagesAddNothingTwice(): void
    {
        $this->heard();
        $this->post('/craft/curlew/radio/capture', ['kind' => 'spans']);
        $this->look('curlew', 0.3);
        $this->look('curlew', 0.3, 'sticks.json');
        $pieces = $this->entities()->getConnection()->fetchFirstColumn('SELECT frames FROM stick_piece');
        $numbers = [];
        foreach ($pieces as $blob) {
            foreach (str_split((string) (\is_string($blob) ? $blob : ''), 36) as $frame) {
                $numbers[] = bin2hex(strrev(substr($frame, 0, 4)));
            }
        }
        self::assertGreaterThan(50, \count($numbers));
        self::assertSame(array_values(array_unique($numbers)), $numbers);
        $this->move('curlew', 'cable', '0');
        self::assertSame('link', $this->json('/craft/curlew/radio/now.json')['step']);
        $this->move('curlew', 'cable', '1');
        $this->link();
        $this->json('/craft/curlew/radio/now.json');
        $left = $this->entities()->getConnection()->fetchFirstColumn('SELECT frames FROM stick_piece');
        self::assertSame([], $left, 'what was seen before does not go on');
        $this->post('/craft/curlew/radio/capture/end', ['drop' => '1']);
        self::assertSame('', $this->json('/craft/curlew/radio/now.json')['capture']);
    }

    public function testAWrongStickIsSaidAtOnceAndAskedForAgain(): void
    {
        $this->heard();
        $now = fn (): array => $this->json('/craft/curlew/radio/now.json');
        $push = function (string $to, float $seconds = 0.4): void {
            $this->move('curlew', 'radio:sticks', $to);
            $this->look('curlew', $seconds);
            $this->move('curlew', 'radio:let_go', '1');
            $this->look('curlew', $seconds);
        };
        $this->post('/craft/curlew/radio/capture', ['kind' => 'order']);
        $push('roll=1');
        self::assertSame('pitch', $now()['state']);
        // The roll stick once more instead of pitch.
        $push('roll=1');
        self::assertSame('pitch order.same_channel', $now()['state']);
        $page = $this->page('/craft/curlew/21');
        self::assertStringContainsString('Pitch and roll both moved channel 1', $page);
        self::assertStringContainsString('Until now: roll is channel 1.', $page);
        $this->post('/craft/curlew/radio/capture', ['again' => '1']);
        self::assertSame('pitch', $now()['state']);
        $push('pitch=1');
        self::assertSame('throttle', $now()['state']);
        $push('throttle=1');
        self::assertSame('yaw', $now()['state']);
        // Two at once: said once both rest; what was shown before stays.
        $push('throttle=-1,yaw=1', 0.9);
        self::assertSame('yaw order.two_moved', $now()['state']);
        $this->post('/craft/curlew/radio/capture', ['kind' => 'order', 'again' => '1']);
        $push('yaw=1');
        self::assertSame('', $now()['capture']);
        $order = array_map(static fn (array $one): int => $one['number'], Evidence::of($this->craft('curlew')->radio)->order);
        self::assertSame(['pitch', 'roll', 'throttle', 'yaw'], array_keys($this->sorted($order)));
        self::assertCount(4, array_unique($order));
        // Begun anew and left: what was shown before stands.
        $this->post('/craft/curlew/radio/capture', ['kind' => 'order']);
        $push('roll=1');
        self::assertStringContainsString('Until now: roll is channel 1.', $this->page('/craft/curlew/21'));
        $this->post('/craft/curlew/radio/capture/end', ['drop' => '1']);
        $left = Evidence::of($this->craft('curlew')->radio);
        self::assertSame([], $left->showing);
        self::assertSame($order, array_map(static fn (array $one): int => $one['number'], $left->order));
        $this->move('curlew', 'cable', '0');
        $this->post('/craft/curlew/radio/capture', ['again' => '1'], 409);
    }

    public function testACaptureOnAFullDiskSaysSoAndGoesOnWithRoom(): void
    {
        $this->heard();
        $this->post('/craft/curlew/radio/capture', ['kind' => 'spans']);
        FullDisk::fillAt(1);
        usleep(50_000);
        $this->browser->request('GET', '/craft/curlew/radio/now.json', server: ['HTTP_ACCEPT' => 'application/json']);
        self::assertResponseStatusCodeSame(507);
        self::assertStringContainsString('disk is full', (string) $this->browser->getResponse()->getContent());
        FullDisk::fillAt(0);
        $this->look('curlew', 0.2);
        self::assertSame('spans', $this->json('/craft/curlew/radio/now.json')['capture']);
        self::assertNotSame([], $this->entities()->getConnection()->fetchFirstColumn('SELECT frames FROM stick_piece'));
    }

    public function testNothingIsFoundWhereNothingSpeaks(): void
    {
        $this->link('bittern');
        $said = $this->post('/craft/bittern/radio/find', [], 422);
        self::assertStringContainsString('No receiver is heard on any UART', (string) json_encode($said));
        self::assertSame([], $this->staged($this->craft('bittern')));
        $this->move('bittern', 'transmitter', '1');
        usleep(60_000);
        $this->post('/craft/bittern/radio/find');
        self::assertSame([], $this->staged($this->craft('bittern')), 'what is heard is what is set');
    }

    /** What is wrong is said in the words of its cause. */
    public function testTheCauseOfSilenceAndRubbishIsSaid(): void
    {
        $this->heard();
        $set = function (array $values): string {
            $this->post('/craft/curlew/stage', ['values' => $values]);
            $this->post('/craft/curlew/commit', ['reason' => 'wrong']);
            usleep(60_000);

            return $this->page('/craft/curlew/21');
        };
        self::assertStringContainsString(
            'CRSF at 420000 baud arrives on UART 1, and the protocol is set to SBUS, the rate to 100000 baud, the polarity to inverted.',
            $set(['receiver.protocol' => 'sbus', 'uart.1.baud' => '100000', 'uart.1.inverted' => true]),
        );
        self::assertStringContainsString(
            'CRSF at 420000 baud arrives on UART 1: it is on the wrong pad, or the wrong UART is set.',
            $set(['receiver.protocol' => 'crsf', 'uart.1.role' => 'none', 'uart.2.role' => 'receiver']),
        );
        $this->post('/craft/curlew/radio/find');
        $this->post('/craft/curlew/commit', ['reason' => 'found']);
        usleep(60_000);
        self::assertStringContainsString('The sticks say what you mean.', $this->page('/craft/curlew/21'));
        $this->move('curlew', 'radio:manner', 'stops');
        $this->move('curlew', 'transmitter', '0');
        usleep(400_000);
        self::assertStringContainsString('The receiver works, but hears no transmitter', $this->page('/craft/curlew/21'));
    }

    public function testWithoutALinkNothingIsCaptured(): void
    {
        $this->link();
        $this->move('curlew', 'cable', '0');
        $this->post('/craft/curlew/radio/capture', ['kind' => 'order'], 409);
        $this->post('/craft/curlew/radio/find', [], 409);
        self::assertSame('kind', $this->post('/craft/curlew/radio/capture', ['kind' => 'dance'], 422)['field']);
        self::assertStringContainsString('Link the craft, and the sticks show here.', $this->page('/craft/curlew/21'));
    }

    private function spans(string $slug): void
    {
        $this->post("/craft/$slug/radio/capture", ['kind' => 'spans']);
        foreach (['roll', 'pitch', 'throttle', 'yaw'] as $stick) {
            foreach (['1', '-1', 'throttle' === $stick ? '-1' : '0'] as $to) {
                $this->move($slug, 'radio:sticks', "$stick=$to");
                $this->look($slug, '0' === $to ? 0.5 : 0.25);
            }
        }
        $this->look($slug, 0.4);
        $this->post("/craft/$slug/radio/capture/end");
    }

    /**
     * @param array<string, float|int|bool|string> $values
     *
     * @return array<string, float|int|bool|string>
     */
    private function sorted(array $values): array
    {
        ksort($values);

        return $values;
    }
}
