<?php

declare(strict_types=1);

namespace Ortholex\Tests\app;

final class DriveTest extends AppCase
{
    public function testTheSlowRiseTellsTheIdleOutput(): void
    {
        $this->powerUp();
        $this->post('/craft/curlew/motors/rise', ['step' => 0], 200);
        self::assertCount(0, (array) ($this->json('/craft/curlew/live.json')['bench']['turning'] ?? null), '2 % turns none of them');
        $this->rise();
        $html = $this->page('/craft/curlew/15?do=rise');
        self::assertMatchesRegularExpression('~All turn steadily; [45]\.\d % is the lowest idle output to trust~', $html);
        $this->post('/craft/curlew/motors/idle');
        $idle = $this->staged($this->craft())['motors.idle_pct'] ?? null;
        self::assertIsFloat($idle);
        self::assertEqualsWithDelta(4.75, $idle, 0.76);
        $this->post('/craft/curlew/motors/rise', ['stop' => '1']);
        self::assertSame([], $this->json('/craft/curlew/live.json')['bench']['turning'] ?? null);
    }

    public function testAWeakMotorIsFoundAndTheSwapTellsItFromItsEsc(): void
    {
        $this->powerUp();
        foreach (['weak_motor' => 'went with the motor to rear right', 'weak_esc' => 'stayed at front right'] as $fault => $words) {
            $this->world()->move("fault:$fault", '1');
            $this->rise();
            self::assertStringContainsString('Front right struggles at low output.', $this->page('/craft/curlew/15?do=rise'));
            self::assertSame('idle', $this->post('/craft/curlew/motors/idle', [], 422)['field'], 'no idle output while one struggles');
            $this->world()->move('swap_motors', 'front_right,rear_right');
            $this->rise('front_right,rear_right');
            self::assertStringContainsString($words, $this->page('/craft/curlew/15?do=rise'));
            $this->world()->move('swap_motors', 'front_right,rear_right');
            $this->world()->move("fault:$fault", '0');
        }
    }

    public function testFeedbackIsCheckedAndAWrongPoleCountExposed(): void
    {
        $this->powerUp();
        $this->post('/craft/curlew/stage', ['values' => ['motors.rotor_magnets' => 12]]);
        $this->post('/craft/curlew/commit', ['reason' => 'guessed']);
        usleep(20_000);
        $this->feedback();
        self::assertStringContainsString(
            'The rpm is shown 17 % high: the motors have 14 magnets, not 12.',
            $this->page('/craft/curlew/15?do=feedback'),
        );
        $this->post('/craft/curlew/motors/magnets');
        self::assertSame(14, $this->staged($this->craft())['motors.rotor_magnets'] ?? null);
        $this->post('/craft/curlew/commit', ['reason' => 'as the shaft says']);
        usleep(20_000);
        $this->world()->move('fault:loose_signal_wire', '1');
        $this->feedback();
        $html = $this->page('/craft/curlew/15?do=feedback');
        self::assertStringContainsString('Rear left answers with errors.', $html);
        self::assertStringContainsString('7.3 % errors', $html);
    }

    public function testWithoutFeedbackItSaysWhatIsMissing(): void
    {
        $this->powerUp('dunlin');
        self::assertStringContainsString(
            'rpm feedback is off',
            (string) json_encode($this->post('/craft/dunlin/motors/rise', ['step' => 0, 'read' => '1'], 409)),
        );
        self::assertSame('magnets', $this->post('/craft/dunlin/motors/magnets', [], 422)['field']);
        self::assertSame('idle', $this->post('/craft/dunlin/motors/idle', [], 422)['field']);
        $this->world('dunlin')->move('props_declared_off', '0');
        self::assertSame('props', $this->post('/craft/dunlin/motors/feedback', ['pad' => 1], 422)['field']);
    }

    public function testAnalogueEscsAreTaughtStepByStepAndDigitalOnesNot(): void
    {
        $this->powerUp();
        self::assertStringContainsString(
            'Not needed',
            (string) json_encode($this->post('/craft/curlew/motors/teach', ['step' => 'full'], 422)),
        );
        $this->post('/craft/curlew/stage', ['values' => ['motors.protocol' => 'oneshot125', 'motors.rpm_feedback' => false]]);
        $this->post('/craft/curlew/commit', ['reason' => 'analogue']);
        usleep(20_000);
        self::assertStringContainsString('Take the pack off', $this->page('/craft/curlew/15?do=teach'));
        self::assertStringContainsString(
            'take the pack off first',
            (string) json_encode($this->post('/craft/curlew/motors/teach', ['step' => 'full'], 409)),
        );
        $this->world()->move('pack', '0');
        self::assertSame(
            'props',
            $this->post('/craft/curlew/motors/teach', ['step' => 'full'], 422)['field'],
            'the declaration lapsed with the pack',
        );
        $this->world()->move('props_declared_off', '1');
        $this->post('/craft/curlew/motors/teach', ['step' => 'full']);
        self::assertStringContainsString('Now connect the pack', $this->page('/craft/curlew/15?do=teach'));
        $this->world()->move('pack', '1');
        self::assertStringContainsString('4 of 4 played two rising tones.', $this->page('/craft/curlew/15?do=teach'));
        $this->post('/craft/curlew/motors/teach', ['step' => 'zero']);
        self::assertStringContainsString('All have both ends.', $this->page('/craft/curlew/15?do=teach'));
        $craft = $this->craft();
        $craft->mustRedo('esc_calibration');
        $this->entities()->flush();
        self::assertStringContainsString('end points must be taught again', $this->page('/'));
        $this->post('/craft/curlew/motors/teach', ['step' => 'end']);
        self::assertStringNotContainsString('end points must be taught again', $this->page('/'));
        self::assertSame(1000.0, $this->world()->store->peek()->esc(2)->lowUs);
    }

    private function powerUp(string $slug = 'curlew'): void
    {
        $this->link($slug);
        $this->world($slug)->move('props', '0');
        $this->world($slug)->move('pack', '1');
        $this->world($slug)->move('props_declared_off', '1');
    }

    private function rise(string $swapped = ''): void
    {
        for ($step = 0; $step < 9; ++$step) {
            $this->post('/craft/curlew/motors/rise', ['step' => $step, 'swapped' => $swapped]);
            usleep(12_000);
            $this->post('/craft/curlew/motors/rise', ['step' => $step, 'read' => '1', 'swapped' => $swapped]);
        }
    }

    private function feedback(): void
    {
        foreach ([1, 2, 3, 4] as $pad) {
            $this->post('/craft/curlew/motors/feedback', ['pad' => $pad]);
            usleep(12_000);
            $this->post('/craft/curlew/motors/feedback', ['pad' => $pad, 'read' => '1', 'first' => 1 === $pad ? '1' : '']);
        }
    }
}
