<?php

declare(strict_types=1);

namespace Ortholex\App\Gains;

use Ortholex\Core\Step\StepOutcome;

/**
 * Says in words what the predictions of a log mean.
 *
 * @phpstan-import-type AxisPrediction from Predictions
 * @phpstan-import-type Proposal from Predictions
 * @phpstan-import-type Told from Predictions
 */
final readonly class GainFindings
{
    /** By so much a peak must change to be spoken of. */
    private const NEWS = 0.03;

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
                $short[$standing->value] ??= [];
                if (self::isNews($a)) {
                    $short[$standing->value][] = self::inShort($axis, $a);
                }
            }
            $all[] = new GainFinding(
                $axis,
                self::title($axis, $a, $overshoots),
                null === $a['measured_peak'] ? '' : \sprintf('peak %.2f', $a['measured_peak']),
                \sprintf('Worked out from %s; with the gains flown, the model peaks at %.2f.', $log, $a['modelled_peak']),
                Standing::AsFlown === $standing ? '' : self::asPredicted($a, $standing),
                self::better($a, $overshoots),
                self::proposed($axis, $a['proposal']),
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
        $staged = $short[Standing::AsStaged->value] ?? null;
        $stands = $short[Standing::AsItStands->value] ?? null;

        return match (true) {
            [] === $staged => 'As staged, every axis would answer as it does now.',
            [] === $stands => 'As the craft stands now, not yet flown, every axis would answer as it did.',
            null !== $staged => 'As staged, '.implode('; ', $staged).'.',
            null !== $stands => 'As the craft stands now, not yet flown, '.implode('; ', $stands).'.',
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

    /**
     * Whether a step would be another than the one that was measured.
     *
     * @param Told $a
     */
    private static function isNews(array $a): bool
    {
        return !$a['stable'] || null === $a['measured_peak'] || abs($a['predicted_peak'] - $a['modelled_peak']) >= self::NEWS;
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
            return $overshoots ? 'No gains within reach do better and keep the loop calm. Lighter filters would give room.' : '';
        }

        $changes = [];
        foreach (['p' => 'P', 'i' => 'I', 'd' => 'D'] as $term => $name) {
            if ($r["from_$term"] !== $r[$term]) {
                $changes[] = "$name {$r["from_$term"]} → {$r[$term]}";
            }
        }
        $noise = 100 * ($r['noise'] - 1);

        return \sprintf(
            'Better: %s. It would peak at %.2f, reach 50 %% in %s ms and keep a modulus margin of %.2f; %s.',
            implode(', ', $changes),
            $r['peak'],
            self::figure($r['delay_ms'], 1),
            $r['modulus'],
            match (true) {
                $noise > 2 => \sprintf('%.0f %% more noise reaches the motors, so feel them after the flight', $noise),
                $noise < -2 => \sprintf('%.0f %% less noise reaches the motors', -$noise),
                default => 'no more noise reaches the motors than now',
            },
        );
    }

    /**
     * @param Proposal|null $proposal
     *
     * @return array<string, float> by setting, of what becomes other
     */
    private static function proposed(string $axis, ?array $proposal): array
    {
        if (null === $proposal) {
            return [];
        }
        $values = [];
        foreach (['p', 'i', 'd'] as $term) {
            if ($proposal["from_$term"] !== $proposal[$term]) {
                $values["gain.$axis.$term"] = $proposal[$term];
            }
        }

        return $values;
    }

    private static function figure(mixed $value, int $digits): string
    {
        return \is_float($value) ? number_format($value, $digits) : '–';
    }
}
