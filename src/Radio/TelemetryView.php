<?php

declare(strict_types=1);

namespace Ortholex\App\Radio;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Radio\Protocol\Protocol;
use Ortholex\Core\Radio\Protocol\Telemetry;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\Wiring\PartRole;
use Ortholex\Core\Wiring\Wiring;

/** What goes back to the transmitter, and what it still takes. */
final readonly class TelemetryView
{
    /**
     * @param list<string> $missing what must be drawn on 13 first, in words
     * @param SettingSet   $toStage settings that switch it on, all of them
     */
    private function __construct(public ?Telemetry $told, public array $missing, public SettingSet $toStage, public bool $on)
    {
    }

    public static function of(Craft $craft, SettingSet $preview, ?Telemetry $told): self
    {
        $protocol = Protocol::tryFrom($preview->text('receiver.protocol'));
        $board = BoardPads::of($craft->hardwareId ?? '');
        if (null === $board || null === $protocol || !$preview->has('telemetry.enabled')) {
            return new self(null, [], SettingSet::none(), false);
        }
        $wiring = Wiring::of($board, $craft->wires['parts'] ?? [], $craft->wires['wires'] ?? [], $craft->wires['bridged'] ?? []);
        $wanted = ['telemetry.enabled' => true];
        $missing = [];
        if (Protocol::Sbus === $protocol) {
            [$missing, $wanted] = self::onAWireOfItsOwn($wiring, $craft, $wanted);
        } elseif (Protocol::Crsf !== $protocol) {
            $missing = ['A receiver that speaks in pulses carries nothing back.'];
        }
        $on = $preview->flag('telemetry.enabled') && [] === $missing;
        $wanted = SettingSet::of($wanted)->among($preview);

        return new self(
            null === $told || (null === $told->battery && null === $told->position && null === $told->attitude) ? null : $told,
            $missing,
            [] === $missing ? $wanted->where(static fn (string $n): bool => $preview[$n] !== $wanted[$n]) : SettingSet::none(),
            $on,
        );
    }

    /**
     * An inverted serial receiver has a pin for telemetry, which takes a UART of its own.
     *
     * @param array<string, float|int|bool|string> $wanted
     *
     * @return array{list<string>, array<string, float|int|bool|string>}
     */
    private static function onAWireOfItsOwn(Wiring $wiring, Craft $craft, array $wanted): array
    {
        $part = current(array_filter($wiring->parts, static fn (Part $p): bool => PartRole::Telemetry === $p->role));
        $uart = false === $part ? null : $wiring->uarts[$part->id] ?? null;
        if (false === $part || null === $uart) {
            return [['The telemetry pin of the receiver is on no UART.'], $wanted];
        }
        $faults = array_filter($wiring->refusals(), static fn ($f): bool => $f->part === $part->id);
        if ([] !== $faults) {
            return [['The telemetry wire cannot work as it is drawn.'], $wanted];
        }
        $follows = $wiring->settings($craft->settings)->where(static fn (string $n): bool => str_starts_with($n, "uart.$uart."));

        return [[], $wanted + $follows->toArray()];
    }
}
