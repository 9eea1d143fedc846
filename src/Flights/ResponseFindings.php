<?php

declare(strict_types=1);

namespace Ortholex\App\Flights;

use Ortholex\Core\Analysis\Belief;
use Ortholex\Core\Analysis\StepRanking;
use Ortholex\Core\Analysis\StepVerdict;

/** Puts the step response's numbers into sentences, and names the setting behind them. */
final readonly class ResponseFindings
{
    /** A peak that moved less than this between two flights may be the flights. */
    private const MOVED = 0.05;

    /**
     * @param array<mixed> $report of the analysis
     * @param array<mixed> $other    of the log beside it, or empty
     *
     * @return array{string, list<ResponseFinding>}
     */
    public static function of(array $report, array $other, ?string $otherCode): array
    {
        $findings = [];
        $worst = null;
        $clean = [];
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            $step = Dig::map($report, 'step', $axis);
            $grade = Dig::text($step, 'grade');
            $peak = Dig::number($step, 'peak');
            $delay = Dig::number($step, 'delay_ms');
            if (Belief::NONE === $grade || null === $peak || null === $delay) {
                $findings[] = new ResponseFinding(ucfirst($axis).': the log does not tell', '', ucfirst(implode('; ', Dig::texts($step, 'reasons'))).'.', null, '');
                continue;
            }
            $interval = Dig::numbers(Dig::map($step, 'intervals'), 'peak');
            $spread = 2 === \count($interval) ? \sprintf(' (%.2f to %.2f)', $interval[0], $interval[1]) : '';
            $before = Dig::number(Dig::map($other, 'step', $axis), 'peak');
            $beforeText = null === $before || null === $otherCode ? '' : \sprintf(' In %s it peaked at %.2f.', $otherCode, $before);
            $reasons = Dig::texts($step, 'reasons');
            $caution = [] === $reasons ? '' : ' But '.implode('; ', $reasons).'.';
            if (StepVerdict::OVERSHOOTS === StepVerdict::of($peak)) {
                if (null === $worst || $peak > $worst[1]) {
                    $worst = [$axis, $peak];
                }
                $findings[] = new ResponseFinding(ucfirst($axis).' overshoots', "$grade", \sprintf('It peaks at %.2f%s of what was asked, %.0f ms after the stick, and is half there in %.1f ms.', $peak, $spread, Dig::number($step, 'peak_ms') ?? 0, $delay).$beforeText.$caution, '61', 'See a better P and D');
            } elseif (StepVerdict::FALLS_SHORT === StepVerdict::of($peak)) {
                $findings[] = new ResponseFinding(ucfirst($axis).' falls short', $grade, \sprintf('It peaks at %.2f%s and is half there in %.1f ms.', $peak, $spread, $delay).$beforeText.$caution, '61', 'See the gains');
            } else {
                $clean[] = $axis;
                $findings[] = new ResponseFinding(ucfirst($axis).' answers cleanly', $grade, \sprintf('It peaks at %.2f%s and is half there in %.1f ms.', $peak, $spread, $delay).$beforeText.$caution, null, '');
            }
        }
        $answer = self::comparison($report, $other, $otherCode) ?? match (true) {
            null !== $worst => \sprintf('%s overshoots by %.0f %%%s.', ucfirst($worst[0]), 100 * ($worst[1] - 1), [] === $clean ? '' : '; '.implode(' and ', $clean).(1 === \count($clean) ? ' is clean' : ' are clean')),
            [] !== $clean => ucfirst(implode(', ', $clean)).(1 === \count($clean) ? ' answers' : ' answer').' cleanly.',
            default => 'This log does not tell how the craft responds.',
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
                $parts[] = implode(' and ', array_map(static fn (StepRanking $r): string => $r->name, $first)).(1 === \count($first) ? ' follows' : ' follow')." best on $axis";
            }
        }
        if ([] !== $alike) {
            $parts[] = 'on '.implode(' and ', $alike).' all are alike';
        }

        return [] === $parts ? 'None of these flights tells how the craft responds.' : ucfirst(implode('; ', $parts)).'.';
    }

    /**
     * With another log beside it, the axis whose peak moved most is the answer.
     *
     * @param array<mixed> $report
     * @param array<mixed> $other
     */
    private static function comparison(array $report, array $other, ?string $otherCode): ?string
    {
        $most = null;
        foreach (['roll', 'pitch', 'yaw'] as $axis) {
            $now = Dig::number(Dig::map($report, 'step', $axis), 'peak');
            $then = Dig::number(Dig::map($other, 'step', $axis), 'peak');
            if (null !== $now && null !== $then && abs($now - $then) > max(self::MOVED, abs($most[1] ?? 0))) {
                $most = [$axis, $now - $then, $now, $then];
            }
        }

        return null === $most ? null : \sprintf('%s peaks at %.2f instead of %.2f in %s.', ucfirst($most[0]), $most[2], $most[3], $otherCode);
    }
}
