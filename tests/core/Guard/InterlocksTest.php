<?php

declare(strict_types=1);

namespace Ortholex\Tests\core\Guard;

use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Guard\Interlock;
use Ortholex\Core\Guard\InterlockOpen;
use Ortholex\Core\Guard\Interlocks;
use Ortholex\Core\Guard\MotorWork;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class InterlocksTest extends TestCase
{
    /** Whatever is not met is named, in the order that a person can meet it, and nothing else is. */
    public function testEveryCombinationNamesJustWhatIsOpen(): void
    {
        $order = [Interlock::LinkTheCraft, Interlock::ConnectThePack, Interlock::TakePropsOff];
        for ($met = 0; $met < 8; ++$met) {
            $is = [(bool) ($met & 1), (bool) ($met & 2), (bool) ($met & 4)];
            $named = array_map(static fn (Fact $f) => $f->code, Interlocks::of(...$is)->open());
            $expected = array_values(array_filter($order, static fn (int $i): bool => !$is[$i], \ARRAY_FILTER_USE_KEY));
            self::assertSame($expected, $named, decbin($met));
        }
    }

    #[DataProvider('works')]
    public function testNothingThatCanTurnAMotorIsDoneWithPropsOn(MotorWork $work, Interlock $says): void
    {
        try {
            Interlocks::of(true, true, false)->demandPropsOff($work);
            self::fail('It let a motor turn under a prop.');
        } catch (InterlockOpen $e) {
            self::assertTrue($e->fact()->is($says));
            self::assertSame($says->value, $e->getMessage(), 'logs have the code');
        }
        // Neither cable nor pack stands for the declaration, nor the other way round.
        Interlocks::of(false, false, true)->demandPropsOff($work);
    }

    /** @return iterable<string, array{MotorWork, Interlock}> */
    public static function works(): iterable
    {
        foreach (MotorWork::cases() as $work) {
            yield $work->value => [$work, MotorWork::FlashEsc === $work ? Interlock::PropsBeforeFlashing : Interlock::PropsBeforeSpinning];
        }
    }
}
