<?php

declare(strict_types=1);

namespace Ortholex\Core\Wiring;

use Ortholex\Core\Fact\Code;

/** What is wrong with a wiring. */
enum WiringCode: string implements Code
{
    case VoltageTooHigh = 'wiring.voltage_too_high';
    case VoltageTooLow = 'wiring.voltage_too_low';
    case RailDeadOnUsb = 'wiring.rail_dead_on_usb';
    case ShortCircuit = 'wiring.short_circuit';
    case DataOnGround = 'wiring.data_on_ground';
    case SupplyOnData = 'wiring.supply_on_data';
    case Crossed = 'wiring.crossed';
    case OneWireOnReceivePad = 'wiring.one_wire_on_receive_pad';
    case JumperOpen = 'wiring.jumper_open';
    case SpreadOverUarts = 'wiring.spread_over_uarts';
    case UartCannotInvert = 'wiring.uart_cannot_invert';
    case UartCannotHalfDuplex = 'wiring.uart_cannot_half_duplex';
    case UartTooSlow = 'wiring.uart_too_slow';
    case UartShared = 'wiring.uart_shared';
    case NotWired = 'wiring.not_wired';
    case NoGround = 'wiring.no_ground';
    case NoSupply = 'wiring.no_supply';
    case NotHeard = 'wiring.not_heard';
    case CannotBeTold = 'wiring.cannot_be_told';

    /** Whether it cannot work or does damage; the others work, and are to be minded. */
    public function refuses(): bool
    {
        return match ($this) {
            self::RailDeadOnUsb, self::NotWired, self::CannotBeTold => false,
            default => true,
        };
    }
}
