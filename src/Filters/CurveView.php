<?php

declare(strict_types=1);

namespace Ortholex\App\Filters;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Filters\Candidate;
use Ortholex\Core\Filters\TradeOff;

/** The curve of noise against delay, with what each point of it would stage. */
final readonly class CurveView
{
    /** What of a candidate is a setting that is staged. */
    private const MADE_BY = '~^(rate_path\.stage\.|notch\.(motor\.(orders|width_pct)|tracking\.peaks)$)~';

    /** Ends that hold no window do not count. */
    private const ALL = 0.99;

    /**
     * @param list<array{delay_ms: float, residual_dps: float, words: string, stage: array<string, float|int|bool|string>}> $front
     * @param array{delay_ms: float, residual_dps: float}|null                                                               $today
     * @param array{delay_ms: float, residual_dps: float}|null                                                               $staged
     * @param float|null                                                                                                     $partPct
     *        so much of the flight was run for the curve; null for all
     */
    private function __construct(
        public array $front,
        public ?int $knee,
        public ?array $today,
        public ?array $staged,
        public ?float $partPct,
    ) {
    }

    /**
     * @param SettingSet     $craft  settings by their names on the craft: what it has not, it is not offered
     * @param Candidate|null $staged null where it is the same chain
     */
    public static function of(TradeOff $curve, SettingSet $craft, ?Candidate $today, ?Candidate $staged): self
    {
        $takes = $craft->has('rate_path.stage.1.kind');
        $front = array_map(
            static fn (Candidate $one): array => self::point($one) + [
                'words' => ChainWords::inShort($one->chain),
                'stage' => $takes
                    ? $one->chain->where(static fn (string $n): bool => 1 === preg_match(self::MADE_BY, $n))->among($craft)->toArray()
                    : [],
            ],
            $curve->front,
        );

        return new self(
            $front,
            $curve->knee,
            null === $today ? null : self::point($today),
            null === $staged ? null : self::point($staged),
            $curve->part < self::ALL ? round(100 * $curve->part) : null,
        );
    }

    /** @return array{delay_ms: float, residual_dps: float} */
    private static function point(Candidate $one): array
    {
        return ['delay_ms' => round($one->delayMs, 3), 'residual_dps' => round($one->residualDps, 4)];
    }
}
