<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\Core\Step\StepOutcome;

/**
 * Says in words what the predictions of a log mean.
 *
 * @phpstan-import-type AxisPrediction from Predictions
 */
final readonly class GainFindings
{
    /**
     * @param list<GainFinding> $all
     * @param list<string>      $overshooting axes
     */
    private function __construct(public string $answer, public array $all, public array $overshooting)
    {
    }

    /** @param array<string, AxisPrediction> $axes */
    public static function of(array $axes, string $log): self
    {
        $all = $short = $over = [];
        $told = 0;
        foreach ($axes as $axis => $a) {
            if (isset($a['why'])) {
                $all[] = new GainFinding($axis, ucfirst($axis).': cannot tell', '', $a['why']);
                continue;
            }
            $overshoots = null !== $a['measured_peak'] && StepOutcome::Overshoots === StepOutcome::ofPeak($a['measured_peak']);
            if ($overshoots) {
                $over[] = $axis;
            }
            ++$told;
            $standing = Standing::from($a['standing']);
            if (Standing::AsFlown !== $standing) {
                $short[$standing->value][] = self::inShort($axis, $a);
            }
            $all[] = new GainFinding(
                $axis,
                self::title($axis, $a, $overshoots),
                null === $a['measured_peak'] ? '' : \sprintf('peak %.2f', $a['measured_peak']),
                \sprintf('Worked out from %s; with the gains flown, the model peaks at %.2f.', $log, $a['modelled_peak']),
                Standing::AsFlown === $standing ? '' : self::asPredicted($a, $standing),
                self::better($a, $overshoots),
                null === $a['proposal'] ? [] : ["gain.$axis.p" => $a['proposal']['p'], "gain.$axis.d" => $a['proposal']['d']],
            );
        }

        return new self(0 === $told ? 'This flight cannot tell what the gains do.' : self::answer($short, $over), $all, $over);
    }

    /**
     * @param array<string, list<string>> $short by standing
     * @param list<string>                $over
     */
    private static function answer(array $short, array $over): string
    {
        $staged = $short[Standing::AsStaged->value] ?? [];
        $stands = $short[Standing::AsItStands->value] ?? [];

        return match (true) {
            [] !== $staged => 'As staged, '.implode('; ', $staged).'.',
            [] !== $stands => 'As the craft stands now, not yet flown, '.implode('; ', $stands).'.',
            [] === $over => 'With these gains the craft answers cleanly.',
            default => ucfirst(implode(' and ', $over)).(1 === \count($over) ? ' overshoots' : ' overshoot').' with these gains.',
        };
    }

    /** @param AxisPrediction $a */
    private static function title(string $axis, array $a, bool $overshoots): string
    {
        return ucfirst($axis).
            ($overshoots && isset($a['measured_peak'])
                ? \sprintf(' overshoots by %.0f %%', 100 * ($a['measured_peak'] - 1))
                : ' '.($a['verdict'] ?? 'was flown'));
    }

    /** @param AxisPrediction $a */
    private static function inShort(string $axis, array $a): string
    {
        return $a['stable'] ?? false
            ? \sprintf('%s would peak at %.2f', $axis, $a['predicted_peak']).
                (null === $a['measured_peak'] ? '' : \sprintf(' instead of %.2f', $a['measured_peak']))
            : "$axis would oscillate";
    }

    /** @param AxisPrediction $a */
    private static function asPredicted(array $a, Standing $standing): string
    {
        $as = Standing::AsStaged === $standing ? 'As staged' : 'As it stands now';

        return $a['stable'] ?? false
            ? \sprintf(
                '%s: peak %.2f, 50 %% in %s ms.',
                $as,
                $a['predicted_peak'],
                self::figure($a['numbers']['delay_ms'] ?? null, 1),
            )
            : "$as it would oscillate. Do not fly this.";
    }

    /** @param AxisPrediction $a */
    private static function better(array $a, bool $overshoots): string
    {
        $r = $a['proposal'] ?? null;
        if (null === $r) {
            return $overshoots ? 'No P and D in reach were found that better it without a good deal more noise or lag.' : '';
        }

        return \sprintf(
            'Better: P %s → %s, D %s → %s. It would peak at %.2f, reach 50 %% in %s ms; '.
                '%.0f %% more noise reaches the motors, so feel them after the flight.',
            $r['from_p'],
            $r['p'],
            $r['from_d'],
            $r['d'],
            $r['peak'],
            self::figure($r['delay_ms'], 1),
            100 * ($r['noise'] - 1),
        );
    }

    private static function figure(mixed $value, int $digits): string
    {
        return \is_float($value) ? number_format($value, $digits) : '–';
    }
}
