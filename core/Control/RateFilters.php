<?php

declare(strict_types=1);

namespace Ortholex\Core\Control;

use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Signal\FilterChain;
use Ortholex\Core\Signal\FilterStage;

/** The rate path and the D path that a set of settings describes, at a given loop rate. */
final readonly class RateFilters
{
    public const PATHS = ['rate_path', 'd_path'];
    public const STAGES = [1, 2, 3, 4];

    /** No filter stands above this share of the loop rate: at half of it, the bilinear transform has no frequency left. */
    private const HIGHEST_SHARE = 0.48;

    private function __construct(public FilterChain $ratePath, public FilterChain $dPath)
    {
    }

    /**
     * @param SettingSet  $set     names of the current catalogue
     * @param list<float> $rotorHz rotor speeds at which the motor notches stand; empty leaves them out
     */
    public static function of(SettingSet $set, float $loopHz, array $rotorHz = []): self
    {
        $rate = self::path('rate_path', $set, $loopHz);
        foreach (self::orders($set) as $order) {
            foreach ($rotorHz as $hz) {
                $centre = max($set->number('notch.motor.floor_hz', 80.0), $order * $hz);
                if ($centre < self::highestHz($loopHz)) {
                    $rate = $rate->then(FilterStage::notch($centre, $set->number('notch.motor.width_pct', 23.0), $loopHz));
                }
            }
        }

        return new self($rate, self::path('d_path', $set, $loopHz));
    }

    /** The D path alone. */
    public function withoutRatePath(): self
    {
        return new self(FilterChain::of($this->ratePath->rateHz), $this->dPath);
    }

    /** The highest frequency that a filter can stand at in a loop, Hz. */
    public static function highestHz(float $loopHz): float
    {
        return self::HIGHEST_SHARE * $loopHz;
    }

    /** @return list<int> harmonics of the motor notches; none when rpm feedback is off */
    public static function orders(SettingSet $set): array
    {
        $text = $set->text('notch.motor.orders');

        return '' === $text || !$set->flag('motors.rpm_feedback') ? [] : array_map('intval', explode(',', $text));
    }

    private static function path(string $path, SettingSet $set, float $loopHz): FilterChain
    {
        $chain = FilterChain::of($loopHz);
        foreach (self::STAGES as $n) {
            $hz = min($set->number("$path.stage.$n.cutoff_hz", 200.0), self::highestHz($loopHz));
            $chain = match (LowPass::of($set, $path, $n)) {
                LowPass::Off => $chain,
                LowPass::FirstOrder => $chain->then(FilterStage::firstOrder($hz, $loopHz)),
                LowPass::SecondOrder => $chain->then(FilterStage::secondOrder($hz, $loopHz)),
            };
        }

        return $chain;
    }
}
