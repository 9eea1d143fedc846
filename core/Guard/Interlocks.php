<?php

declare(strict_types=1);

namespace Ortholex\Core\Guard;

use Ortholex\Core\Fact\Fact;

/** The rule of the props, once, asked by all that can turn a motor; and what is still open before one may turn. */
final readonly class Interlocks
{
    private function __construct(private bool $linked, private bool $pack, private bool $propsDeclaredOff)
    {
    }

    /** @param bool $propsDeclaredOff a declaration lapses when pack or cable is pulled */
    public static function of(bool $linked, bool $pack, bool $propsDeclaredOff): self
    {
        return new self($linked, $pack, $propsDeclaredOff);
    }

    /** @return list<Fact> of Interlock, in the order they are to be met; none when motors may be driven */
    public function open(): array
    {
        $open = [];
        foreach (
            [
                [$this->linked, Interlock::LinkTheCraft],
                [$this->pack, Interlock::ConnectThePack],
                [$this->propsDeclaredOff, Interlock::TakePropsOff],
            ] as [$met, $interlock]
        ) {
            if (!$met) {
                $open[] = Fact::of($interlock);
            }
        }

        return $open;
    }

    /** @throws InterlockOpen unless the props are declared off */
    public function demandPropsOff(MotorWork $for): void
    {
        if (!$this->propsDeclaredOff) {
            throw new InterlockOpen(
                Fact::of(
                    match ($for) {
                        MotorWork::Spin, MotorWork::HoldOutputsAtFull => Interlock::PropsBeforeSpinning,
                        MotorWork::FlashEsc => Interlock::PropsBeforeFlashing,
                    },
                ),
            );
        }
    }
}
