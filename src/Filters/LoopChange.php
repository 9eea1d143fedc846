<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

/** What a change of the filters does to the loop of an axis. */
final readonly class LoopChange
{
    public function __construct(
        public float $modulus,
        public ?float $phaseDeg,
        public ?float $peak,
        public ?float $modulusThen,
        public ?float $phaseDegThen,
        public ?float $peakThen,
    ) {
    }

    /**
     * @param array<string, mixed>      $now  of LoopReport
     * @param array<string, mixed>|null $then
     */
    public static function of(array $now, ?array $then): self
    {
        $figure = static fn (mixed $v): ?float => \is_float($v) ? $v : null;
        $peak = static fn (?array $of): ?float => $figure(\is_array($of['step'] ?? null) ? $of['step']['peak'] ?? null : null);

        return new self(
            $figure($now['modulus_margin']) ?? 0.0,
            $figure($now['phase_margin_deg']),
            $peak($now),
            $figure($then['modulus_margin'] ?? null),
            $figure($then['phase_margin_deg'] ?? null),
            $peak($then),
        );
    }
}
