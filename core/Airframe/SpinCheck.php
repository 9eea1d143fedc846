<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

/**
 * From answers (pad → place, direction) to the pad map and the ESCs to reverse.
 *
 * Nothing follows until the answers are a bijection between pads and the frame's motors; until then it says which
 * clash and which are missing.
 */
final readonly class SpinCheck
{
    /**
     * @param array<int, string> $drives   pad => place it really drives; empty until complete
     * @param list<string>       $reverse  places whose motor turns the wrong way
     * @param list<string>       $missing  places no answer names yet
     * @param list<string>       $clashes  in words
     */
    private function __construct(public array $drives, public array $reverse, public array $missing, public array $clashes)
    {
    }

    /**
     * @param list<SpinAnswer> $answers the last answer for a pad counts
     * @param list<int>        $pads    pads that motors hang on
     */
    public static function of(Airframe $frame, array $pads, array $answers): self
    {
        $last = [];
        foreach ($answers as $answer) {
            $last[$answer->pad] = $answer;
        }
        $byPlace = [];
        $clashes = [];
        foreach ($last as $pad => $answer) {
            if (!\in_array($answer->place, $frame->places(), true)) {
                $clashes[] = "Pad $pad is said to turn “{$answer->place}”, where this frame has no motor.";
                continue;
            }
            $byPlace[$answer->place][] = $pad;
        }
        foreach ($byPlace as $place => $here) {
            if (\count($here) > 1) {
                sort($here);
                $clashes[] =
                    'Pads '.
                    implode(' and ', $here).
                    ' are both said to turn the '.
                    str_replace('_', ' ', $place).
                    ' motor. Spin them again.';
            }
        }
        $missing = array_values(array_diff($frame->places(), array_keys($byPlace)));
        if ([] !== $clashes || [] !== $missing || \count($last) !== \count($frame->motors) || [] !== array_diff(array_keys($last), $pads)) {
            return new self([], [], $missing, $clashes);
        }
        $wanted = [];
        foreach ($frame->motors as $motor) {
            $wanted[$motor->place] = $motor->spin;
        }
        $drives = $reverse = [];
        foreach ($last as $pad => $answer) {
            $drives[$pad] = $answer->place;
            if ($answer->direction !== $wanted[$answer->place]) {
                $reverse[] = $answer->place;
            }
        }
        ksort($drives);

        return new self($drives, array_values(array_intersect($frame->places(), $reverse)), [], []);
    }

    public function isComplete(): bool
    {
        return [] !== $this->drives;
    }

    /**
     * What is wrong, in one sentence.
     *
     * @param array<int, string> $set pad => place as the settings have it
     */
    public function inWords(array $set): string
    {
        if (!$this->isComplete()) {
            return [] !== $this->clashes
                ? $this->clashes[0]
                : 'Still to show: '.
                        implode(', ', array_map(static fn (string $p): string => str_replace('_', ' ', $p), $this->missing)).
                        '.';
        }
        $moved = array_filter(
            $this->drives,
            static fn (string $place, int $pad): bool => ($set[$pad] ?? '') !== $place,
            \ARRAY_FILTER_USE_BOTH,
        );
        $words = [];
        if ([] !== $moved) {
            $words[] = \count($moved).' outputs go to other motors than the settings say';
        }
        if ([] !== $this->reverse) {
            $words[] =
                implode(' and ', array_map(static fn (string $p): string => str_replace('_', ' ', $p), $this->reverse)).
                (1 === \count($this->reverse) ? ' turns' : ' turn').
                ' the wrong way';
        }

        return [] === $words
            ? 'Every output drives its motor, and every motor turns as it should.'
            : ucfirst(implode(', and ', $words)).'.';
    }
}
