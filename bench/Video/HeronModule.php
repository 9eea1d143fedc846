<?php

declare(strict_types=1);

namespace Ortholex\Bench\Video;

use Ortholex\Bench\Time\Pace;
use Ortholex\Core\Video\Heat;
use Ortholex\Core\Video\Heron;
use Ortholex\Core\Video\Wire\HeronFrame;
use Ortholex\Core\Video\Wire\HeronState;
use Ortholex\Core\Video\Wire\HeronTable;
use Ortholex\Core\Video\Wire\HeronVerb;

/** A video transmitter on the bench: it keeps frequency and power, gets warm without airflow, and protects itself when it is too warm. */
final readonly class HeronModule
{
    private const AIR_C = 20.0;
    private const K_PER_W = 32.0;
    private const TAU_S = 110.0;
    private const LIMIT_C = 95.0;

    /** W of its own, and for each mW that it sends. */
    private const OWN_W = 0.9;

    private const W_PER_MW = 0.0045;

    /** @param array<string, float|bool> $state mhz, mw, deg, at, on, protects */
    private function __construct(private array $state, private Pace $pace)
    {
    }

    /** @param array<mixed> $kept */
    public static function of(array $kept, bool $powered, Pace $pace): self
    {
        $number = static fn (string $name, float $else): float => is_numeric($kept[$name] ?? null) ? (float) $kept[$name] : $else;
        $state = [
            'mhz' => $number('mhz', Heron::mhz()[7]),
            'mw' => $number('mw', 25.0),
            'deg' => $number('deg', self::AIR_C),
            'at' => $number('at', $pace->now()),
            'on' => true === ($kept['on'] ?? false),
            'protects' => true === ($kept['protects'] ?? false),
        ];

        return (new self($state, $pace))->lived($powered);
    }

    /** @return array<string, float|bool> */
    public function toArray(): array
    {
        return $this->state;
    }

    public function tells(): HeronState
    {
        $s = $this->state;

        return new HeronState((float) $s['mhz'], $this->sends(), (float) $s['deg'], true === $s['protects']);
    }

    /** @return array{self, string} as it is after it, and what it answers; '' for nothing */
    public function hears(string $bytes): array
    {
        $frame = HeronFrame::in($bytes);
        $verb = $frame?->asks();
        if (null === $frame || null === $verb || true !== $this->state['on']) {
            return [$this, ''];
        }
        $value = 2 === \strlen($frame->payload) ? (float) (\ord($frame->payload[0]) | (\ord($frame->payload[1]) << 8)) : 0.0;

        return match ($verb) {
            HeronVerb::Table => [$this, HeronFrame::answer($verb, (new HeronTable(Heron::mhz(), Heron::POWERS))->pack())],
            HeronVerb::State => [$this, HeronFrame::answer($verb, $this->tells()->pack())],
            HeronVerb::Tune => \in_array($value, Heron::mhz(), true)
                ? [new self(['mhz' => $value] + $this->state, $this->pace), HeronFrame::answer($verb)]
                : [$this, HeronFrame::no()],
            HeronVerb::Power => \in_array($value, Heron::POWERS, true)
                ? [new self(['mw' => $value, 'protects' => false] + $this->state, $this->pace), HeronFrame::answer($verb)]
                : [$this, HeronFrame::no()],
        };
    }

    /** mW */
    private function sends(): float
    {
        return true === $this->state['protects'] ? Heron::POWERS[0] : (float) $this->state['mw'];
    }

    private function lived(bool $powered): self
    {
        $now = $this->pace->now();
        $s = $this->state;
        // Life goes as fast as the bench's clock, and at once where that stands.
        $fast = $this->pace->of(1.0);
        $long = $fast > 0 ? max(0.0, $now - (float) $s['at']) / $fast : max(0.0, $now - (float) $s['at']);
        $watts = true === $s['on'] ? self::OWN_W + self::W_PER_MW * $this->sends() : 0.0;
        $heat = Heat::of(self::AIR_C, self::K_PER_W, self::TAU_S, self::LIMIT_C);
        $until = true === $s['on'] && true !== $s['protects'] ? $heat->untilLimit($watts, (float) $s['deg']) : null;
        if (null !== $until && $until < $long) {
            $cooler = $heat->at($long - $until, self::OWN_W + self::W_PER_MW * Heron::POWERS[0], self::LIMIT_C);
            $next = ['deg' => $cooler, 'protects' => true];
        } else {
            $next = ['deg' => $heat->at($long, $watts, (float) $s['deg'])];
        }
        $next += $s;
        // It stays so until it is told a power again, or loses its own.
        $next['protects'] = true === $next['protects'] && $powered;

        return new self(['at' => $now, 'on' => $powered] + $next, $this->pace);
    }
}
