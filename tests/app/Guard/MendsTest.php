<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Guard;

use Ortholex\App\Arming\OpenView;
use Ortholex\App\Words\Words;
use Ortholex\Core\Arming\Bar;
use Ortholex\Core\Arming\Open;
use Ortholex\Core\Arming\OwnBar;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Proof\Proved;
use Ortholex\Tests\app\AppCase;

/** Every open condition leads to what mends it: a sheet that is there, or something to do with the hands. */
final class MendsTest extends AppCase
{
    /** What mends each of the board's: sheet, or hands. */
    private const OF_BOARD = [
        'NoFrames' => '21',
        'Failsafe' => 'Switch the transmitter on',
        'ThrottleHigh' => 'Pull the throttle stick down',
        'OnSincePowerUp' => 'Flick arm off once',
        'Tilted' => 'Lay it level',
        'Cable' => 'Arm it here',
        'NothingArms' => '23',
        'GyroMoves' => 'Let it rest',
        'LevelUnknown' => '14',
        'LoopOverload' => '15',
        'PackLow' => 'Connect a charged pack',
        'NoFix' => 'Go outdoors',
        'RestartDue' => 'Pull pack and cable',
    ];

    private const OF_OURS = [
        'mounting' => '14',
        'level' => '14',
        'spin_check' => '15',
        'directions' => '15',
        'spans' => '21',
        'rehearsal' => '32',
        'voltage' => '33',
        'props' => 'Look, and say so',
        'position' => 'Look, and say so',
    ];

    public function testEachHasItsMend(): void
    {
        $words = self::getContainer()->get(Words::class);
        self::assertCount(\count(Bar::cases()), self::OF_BOARD);
        foreach (Bar::cases() as $bar) {
            $this->leads(OpenView::of(Open::ofBoard($bar, true), $words), self::OF_BOARD[$bar->name], $bar->name);
        }
        self::assertCount(\count(Proved::cases()), self::OF_OURS);
        foreach (Proved::cases() as $what) {
            $open = OpenView::of(Open::ours(Fact::of(OwnBar::NotProved, what: $what->called()), $what), $words);
            self::assertTrue($open->ours);
            self::assertStringContainsString('was never proved', $open->text);
            $this->leads($open, self::OF_OURS[$what->value], $what->value);
        }
        $this->leads(OpenView::of(Open::ours(Fact::of(OwnBar::NoSnapshot)), $words), '72', 'snapshot');
        $this->leads(OpenView::of(Open::ours(Fact::of(OwnBar::Staged, changes: 2)), $words), 'Open the tray', 'staged');
    }

    private function leads(OpenView $open, string $to, string $of): void
    {
        self::assertNotSame('', $open->text, $of);
        if (is_numeric($to)) {
            self::assertSame($to, $open->sheet, $of);
            self::assertNotSame('', $open->label, $of);
            $this->page("/craft/curlew/$to");

            return;
        }
        self::assertStringContainsString($to, $open->mend, $of);
    }
}
