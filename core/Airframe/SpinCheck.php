<?php

declare(strict_types=1);

namespace Ortholex\Core\Airframe;

use Ortholex\Core\Fact\Fact;

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
     * @param list<Fact>         $clashes  of SpinCode
     * @param list<string>       $unsaid   places whose motor was named, and not which way it turned
     */
    private function __construct(
        public array $drives,
        public array $reverse,
        public array $missing,
        public array $clashes,
        public array $unsaid = [],
    ) {
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
                $clashes[] = Fact::of(SpinCode::NoMotorThere, pad: $pad, place: $answer->place);
                continue;
            }
            $byPlace[$answer->place][] = $pad;
        }
        foreach ($byPlace as $place => $here) {
            if (\count($here) > 1) {
                sort($here);
                $clashes[] = Fact::of(SpinCode::PadsShareMotor, pads: array_map(strval(...), $here), place: $place);
            }
        }
        $missing = array_values(array_diff($frame->places(), array_keys($byPlace)));
        if ([] !== $clashes || [] !== $missing || \count($last) !== \count($frame->motors) || [] !== array_diff(array_keys($last), $pads)) {
            return new self([], [], $missing, $clashes);
        }
        $unsaid = array_values(
            array_map(
                static fn (SpinAnswer $a): string => $a->place,
                array_filter($last, static fn (SpinAnswer $a): bool => 0 === $a->direction),
            ),
        );
        if ([] !== $unsaid) {
            return new self([], [], [], [], array_values(array_intersect($frame->places(), $unsaid)));
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
     * What is wrong, of SpinCode.
     *
     * @param array<int, string> $set pad => place as the settings have it
     */
    public function fact(array $set): Fact
    {
        if (!$this->isComplete()) {
            return $this->clashes[0]
                ?? ([] === $this->unsaid
                    ? Fact::of(SpinCode::StillToShow, places: $this->missing)
                    : Fact::of(SpinCode::DirectionsToShow, places: $this->unsaid));
        }
        $moved = \count(array_diff_assoc($this->drives, $set));

        return match (true) {
            0 === $moved && [] === $this->reverse => Fact::of(SpinCode::AllRight),
            0 === $moved => Fact::of(SpinCode::MotorsTurnWrong, places: $this->reverse, motors: \count($this->reverse)),
            [] === $this->reverse => Fact::of(SpinCode::OutputsMoved, outputs: $moved),
            default => Fact::of(
                SpinCode::OutputsMovedAndMotorsTurnWrong,
                outputs: $moved,
                places: $this->reverse,
                motors: \count($this->reverse),
            ),
        };
    }
}
