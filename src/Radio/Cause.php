<?php

declare(strict_types=1);

namespace Ortholex\App\Radio;

use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Link\LinkError;
use Ortholex\Core\Radio\Heard;
use Ortholex\Core\Radio\Wire\Identification;
use Ortholex\Core\Radio\Wire\ProtocolFinder;
use Ortholex\Core\Radio\Wire\Speaker;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\Wiring\PartRole;

/** Why no channel arrives, as far as the wire itself and the drawing of 13 tell. */
final readonly class Cause
{
    public function __construct(private Benches $benches, private Words $words)
    {
    }

    /** One sentence; '' where there is no more to say than what is heard. */
    public function of(Craft $craft, ?Heard $heard): string
    {
        try {
            return match ($heard) {
                Heard::Rubbish => $this->rubbish($craft),
                Heard::Silent => $this->silence($craft),
                default => '',
            };
        } catch (LinkError) {
            return '';
        }
    }

    /** What speaks on the port, beside what the port is set to. */
    private function rubbish(Craft $craft): string
    {
        $uart = self::port($craft->settings);
        $found = null === $uart ? null : ProtocolFinder::of($this->benches->client($craft)->edges($uart));
        if (null === $found || !$found->speaker->isReceiver()) {
            return '';
        }
        $set = $craft->settings;
        $wrong = [];
        $named = static fn (string $protocol): string => strtoupper($protocol);
        if ($set->text('receiver.protocol') !== $found->speaker->value) {
            $wrong[] = 'the protocol is set to '.$named($set->text('receiver.protocol'));
        }
        if (null !== $found->baud && $set->whole("uart.$uart.baud") !== $found->baud) {
            $wrong[] = 'the rate to '.$set->text("uart.$uart.baud").' baud';
        }
        if (null !== $found->baud && $set->flag("uart.$uart.inverted") !== $found->inverted) {
            $wrong[] = $found->inverted ? 'the polarity to not inverted' : 'the polarity to inverted';
        }

        return \sprintf('%s arrives on %s, and %s.', self::said($found), $this->words->name("uart_$uart"), implode(', ', $wrong));
    }

    /** A dead rail by the drawing; else whether it speaks on another port. */
    private function silence(Craft $craft): string
    {
        $state = $this->benches->of($craft)->state();
        $board = BoardPads::of($craft->hardwareId ?? '');
        foreach ($craft->wires['wires'] ?? [] as [$pin, $pad]) {
            $part = Part::all()[explode('.', $pin)[0]] ?? null;
            $rail = $board?->pads()[$pad] ?? null;
            $feeds = PartRole::Receiver === $part?->role && $pin === "$part->id.v";
            if ($feeds && null !== $rail && !$state->pack && !$rail->aliveOnUsb) {
                return "By the drawing it hangs on the rail $rail->label, which is dead on USB alone: connect the pack.";
            }
        }
        foreach ($board->uarts ?? [] as $uart) {
            $found = ProtocolFinder::of($this->benches->client($craft)->edges($uart->id));
            if ($found->speaker->isReceiver()) {
                $where = $this->words->name("uart_$uart->id");

                return self::said($found)." arrives on $where: it is on the wrong pad, or the wrong UART is set. Find the receiver.";
            }
            if (Speaker::Unknown === $found->speaker && $uart->id === self::port($craft->settings)) {
                return 'Something is on its wire, but it is not a receiver.';
            }
        }

        return 'No wire of the board carries anything: the receiver has no power, or has not heard its transmitter since power-on.';
    }

    /** Who was heard, in words. */
    public static function said(Identification $found): string
    {
        $protocol = strtoupper($found->speaker->value);
        $inverted = $found->inverted ? ', inverted,' : '';

        return null === $found->baud ? "$protocol, a pulse train," : "$protocol at $found->baud baud$inverted";
    }

    private static function port(SettingSet $set): ?string
    {
        foreach ($set as $name => $value) {
            if (PartRole::Receiver->value === $value && 1 === preg_match('~^uart\.(\w+)\.role$~', $name, $m)) {
                return $m[1];
            }
        }

        return null;
    }
}
