<?php

declare(strict_types=1);

namespace Ortholex\Core\LinkLoss;

/**
 * What a rehearsal saw: the transmitter was switched off, and for some seconds the board told what it heard and what it did.
 *
 * Frames that go on: marked as failsafe they are flagged; unmarked and as they last were they are repeated; unmarked and otherwise they
 * are presets. Repeats and presets are only told apart where a control stood away from where presets put it.
 */
final readonly class Rehearsal
{
    /** Frames this much later than the last are gone, s. */
    private const STOPS_S = 0.5;

    /** A channel that differs by more was set elsewhere, µs. */
    private const ELSEWHERE_US = 40.0;

    /** A control this far from the middle and the ends' rest is worth comparing, µs. */
    private const ASIDE_US = 60.0;

    /**
     * @param Manner|null $manner   null where repeats and presets cannot be told apart
     * @param float|null  $noticedS from switching off to when the board left its last command for lost; null for never
     * @param float|null  $actsS    until it cuts, descends or returns; null for never
     * @param Stage       $ends     what it did at last
     * @param bool        $disarmed whether it ended disarmed by a channel that the receiver set itself
     */
    private function __construct(
        public ?Manner $manner,
        public ?float $noticedS,
        public ?float $actsS,
        public Stage $ends,
        public bool $disarmed,
    ) {
    }

    /**
     * @param list<float>        $before channels as they stood when it was switched off, µs
     * @param list<RehearsalLook> $looks  in their order, times from switching off
     * @param bool                $armsOn whether what the frames said at last leaves the arm action on
     */
    public static function of(array $before, array $looks, LossPlan $plan, bool $armsOn): self
    {
        $noticed = $acts = null;
        $ends = Stage::Heard;
        $flagged = $frames = false;
        $after = [];
        foreach ($looks as $look) {
            $ends = $look->stage;
            if (Stage::Heard !== $look->stage) {
                $noticed ??= max(0.0, $look->atS - max(0.0, $look->sinceS - LossPlan::NOTICE_S));
            }
            if (Stage::Heard !== $look->stage && Stage::Hold !== $look->stage) {
                $acts ??= max(0.0, $look->atS - max(0.0, $look->sinceS - max($plan->holdS, LossPlan::NOTICE_S)));
            }
            $flagged = $flagged || ($look->failsafe && $look->atS > self::STOPS_S);
            if ($look->frames && !$look->failsafe && $look->atS > self::STOPS_S) {
                $frames = true;
                $after = $look->channels;
            }
        }
        $manner = match (true) {
            $frames && self::differ($before, $after) => Manner::Presets,
            $frames => self::canTell($before) ? Manner::Repeats : null,
            $flagged => Manner::Flags,
            default => Manner::Stops,
        };

        // One that repeats what it heard last repeats its lever of arming, too.
        return new self($manner, $noticed, $acts, $ends, Manner::Presets === $manner && !$armsOn);
    }

    /** Whether nothing would ever be done about a lost link: frames come that mean nothing, and nobody notices. */
    public function neverNoticed(): bool
    {
        return null === $this->noticedS && !$this->disarmed;
    }

    /** Whether a control stands so that a receiver that sets its channels itself would be seen to. */
    public static function isAside(float $us): bool
    {
        return abs($us - 1500) > self::ASIDE_US && $us > 1000 + self::ASIDE_US;
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'manner' => $this->manner?->value,
            'noticed_s' => null === $this->noticedS ? null : round($this->noticedS, 3),
            'acts_s' => null === $this->actsS ? null : round($this->actsS, 3),
            'ends' => $this->ends->value,
            'disarmed' => $this->disarmed,
            'never_noticed' => $this->neverNoticed(),
        ];
    }

    /** @param list<float> $before */
    private static function canTell(array $before): bool
    {
        return [] !== array_filter($before, self::isAside(...));
    }

    /**
     * @param list<float> $before
     * @param list<float> $after
     */
    private static function differ(array $before, array $after): bool
    {
        foreach ($before as $i => $us) {
            if (isset($after[$i]) && abs($after[$i] - $us) > self::ELSEWHERE_US) {
                return true;
            }
        }

        return false;
    }
}
