<?php

declare(strict_types=1);

namespace Ortholex\App\Response;

use Ortholex\App\Report\ResponseFinding;
use Ortholex\App\Words\Words;
use Ortholex\Core\Report\Report;
use Ortholex\Core\Step\Confidence\Grade;
use Ortholex\Core\Step\StepOutcome;
use Ortholex\Core\Step\StepRanking;

/** Puts the step response's numbers into sentences, and names the setting behind them. */
final readonly class ResponseFindings
{
    /** A peak that moved less than this between two flights may be the flights. */
    private const MOVED = 0.05;

    public function __construct(private Words $words)
    {
    }

    /**
     * @param Report|null $other of the log beside it
     *
     * @return array{string, list<ResponseFinding>}
     */
    public function of(Report $report, ?Report $other, ?string $otherCode): array
    {
        $findings = [];
        $worst = null;
        $clean = [];
        foreach ($report->steps as $axis => $step) {
            $grade = $this->words->of($step->confidence->grade);
            $peak = $step->numbers?->peak;
            $delay = $step->numbers?->delayMs;
            $reasons = $this->words->all($step->confidence->reasons);
            if (Grade::None === $step->confidence->grade || null === $step->numbers || null === $peak || null === $delay) {
                $findings[] = new ResponseFinding(
                    ucfirst($axis).': the log does not tell',
                    '',
                    ucfirst(implode('; ', $reasons)).'.',
                    null,
                    '',
                );
                continue;
            }
            $interval = $step->intervals['peak'] ?? null;
            $spread = null !== $interval ? \sprintf(' (%.2f to %.2f)', $interval[0], $interval[1]) : '';
            $before = ($other->steps[$axis] ?? null)?->numbers?->peak;
            $beforeText = null === $before || null === $otherCode ? '' : \sprintf(' In %s it peaked at %.2f.', $otherCode, $before);
            $caution = [] === $reasons ? '' : ' But '.implode('; ', $reasons).'.';
            if (StepOutcome::Overshoots === StepOutcome::ofPeak($peak)) {
                if (null === $worst || $peak > $worst[1]) {
                    $worst = [$axis, $peak];
                }
                $findings[] = new ResponseFinding(
                    ucfirst($axis).' overshoots',
                    $grade,
                    \sprintf(
                        'It peaks at %.2f%s of what was asked, %.0f ms after the stick, and reaches 50 %% in %.1f ms.',
                        $peak,
                        $spread,
                        $step->numbers->peakMs,
                        $delay,
                    ).
                        $beforeText.
                        $caution,
                    '61',
                    'See a better P and D',
                );
            } elseif (StepOutcome::FallsShort === StepOutcome::ofPeak($peak)) {
                $findings[] = new ResponseFinding(
                    ucfirst($axis).' falls short',
                    $grade,
                    \sprintf('It peaks at %.2f%s and reaches 50 %% in %.1f ms.', $peak, $spread, $delay).$beforeText.$caution,
                    '61',
                    'See the gains',
                );
            } else {
                $clean[] = $axis;
                $findings[] = new ResponseFinding(
                    ucfirst($axis).' answers cleanly',
                    $grade,
                    \sprintf('It peaks at %.2f%s and reaches 50 %% in %.1f ms.', $peak, $spread, $delay).$beforeText.$caution,
                    null,
                    '',
                );
            }
        }
        $answer =
            self::comparison($report, $other, $otherCode) ??
            match (true) {
                null !== $worst => \sprintf(
                    '%s overshoots by %.0f %%%s.',
                    ucfirst($worst[0]),
                    100 * ($worst[1] - 1),
                    [] === $clean ? '' : '; '.implode(' and ', $clean).(1 === \count($clean) ? ' is clean' : ' are clean'),
                ),
                [] !== $clean => ucfirst(implode(', ', $clean)).(1 === \count($clean) ? ' answers' : ' answer').' cleanly.',
                default => 'This log does not show how the craft responds.',
            };

        return [$answer, $findings];
    }

    /**
     * Which of several flights follows best, axis by axis.
     *
     * @param array<string, list<StepRanking>> $ranked
     */
    public static function ranking(array $ranked): string
    {
        $parts = $alike = [];
        foreach ($ranked as $axis => $rows) {
            $told = array_values(array_filter($rows, static fn (StepRanking $r): bool => null !== $r->place));
            $first = array_values(array_filter($told, static fn (StepRanking $r): bool => 1 === $r->place));
            if (\count($first) > 1 && \count($first) === \count($told)) {
                $alike[] = $axis;
            } elseif ([] !== $first) {
                $parts[] =
                    implode(' and ', array_map(static fn (StepRanking $r): string => $r->name, $first)).
                    (1 === \count($first) ? ' follows' : ' follow').
                    " best on $axis";
            }
        }
        if ([] !== $alike) {
            $parts[] = 'on '.implode(' and ', $alike).' all are alike';
        }

        return [] === $parts ? 'None of these flights shows how the craft responds.' : ucfirst(implode('; ', $parts)).'.';
    }

    /**
     * With another log beside it, the axis whose peak moved most is the answer.
     */
    private static function comparison(Report $report, ?Report $other, ?string $otherCode): ?string
    {
        $most = null;
        foreach ($report->steps as $axis => $step) {
            $now = $step->numbers?->peak;
            $then = ($other->steps[$axis] ?? null)?->numbers?->peak;
            if (null !== $now && null !== $then && abs($now - $then) > max(self::MOVED, abs($most[1] ?? 0))) {
                $most = [$axis, $now - $then, $now, $then];
            }
        }

        return null === $most
            ? null
            : \sprintf('%s peaks at %.2f instead of %.2f in %s.', ucfirst($most[0]), $most[2], $most[3], $otherCode);
    }
}
