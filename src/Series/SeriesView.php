<?php

declare(strict_types=1);

namespace Ortholex\App\Series;

use Ortholex\App\FlightLog\Log;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Series\AxisSeries;
use Ortholex\Core\Series\SeriesPlan;
use Ortholex\Core\Series\SeriesResult;
use Ortholex\Core\Settings\Setting;

/** What sheet 63 shows. */
final readonly class SeriesView
{
    /**
     * @param array<string, Variable> $variables what this craft can vary
     * @param list<float>             $remaining values still to be flown
     * @param list<Log>               $looked    flown, in the order of the points told
     * @param list<Log>               $left      flown, and not looked at: that was broken off
     * @param string                  $whyNot    why it cannot take off now; '' where it could
     * @param array<string, float>    $next      settings of the next flight
     * @param list<Log>               $strays    flown meanwhile, of no step
     * @param list<Series>            $all       of this craft, newest first
     * @param FamilyPlot|null         $family    the curves of all flights, laid over each other
     */
    public function __construct(
        public array $variables,
        public ?Series $series,
        public array $remaining,
        public array $looked,
        public array $left,
        public ?SeriesResult $result,
        public Axis $axis,
        public ?Setting $setting,
        public SettingSet $now,
        public string $whyNot,
        public array $next,
        public array $strays,
        public array $all,
        public ?FamilyPlot $family,
    ) {
    }

    /** A step in words. */
    public function step(float $value): string
    {
        return $this->series?->step($value) ?? (string) $value;
    }

    /** What is varied, with its unit, for the foot of the drawing. */
    public function varied(): string
    {
        return null === $this->setting || '' === $this->setting->unit ? $this->title() : "{$this->title()}, {$this->setting->unit}";
    }

    /** What is varied, in words, to stand within a sentence. */
    public function title(): string
    {
        return null === $this->series ? '' : $this->titleOf($this->series);
    }

    public function titleOf(Series $series): string
    {
        $settings = $series->settings;
        if ($series->plan()->isOfParts()) {
            return $series->part;
        }
        foreach ($this->variables ?: Variable::of($series->base) as $variable) {
            if ($variable->settings === $settings) {
                return 1 === preg_match('~^[A-Z] ~', $variable->title) ? $variable->title : lcfirst($variable->title);
            }
        }

        return implode(' and ', $settings);
    }

    public function isOfParts(): bool
    {
        return true === $this->series?->plan()->isOfParts();
    }

    /** @return list<string> */
    public function parts(): array
    {
        return Log::PARTS;
    }

    public function isOpen(): bool
    {
        return null !== $this->series && null === $this->series->endedAt;
    }

    /** @return list<Card> that a series can be flown with */
    public function cards(): array
    {
        return [Card::MixedSticks, Card::HoverAndClimb, Card::FlipSet, Card::Cruise];
    }

    public function told(): ?AxisSeries
    {
        $axes = $this->result->axes ?? [];

        return $axes[$this->axis->value] ?? array_values($axes)[0] ?? null;
    }

    public function plot(): ?SeriesPlot
    {
        $told = $this->told();

        return null === $told || null === $this->series ? null : new SeriesPlot($told, $this->series->plan()->flights());
    }

    /** @return array<string, float> what stood before the series and does not stand now: a flight was broken off */
    public function putBack(): array
    {
        $back = [];
        foreach ($this->isOpen() && !$this->isOfParts() ? $this->series->settings ?? [] : [] as $name) {
            $was = (float) ($this->series?->base->number($name) ?? 0.0);
            if (!SeriesPlan::same($was, $this->now->number($name))) {
                $back[$name] = $was;
            }
        }

        return $back;
    }

    /** @return array<string, float> what the proposal would stage; empty where it stands so already */
    public function proposal(): array
    {
        $told = $this->told();
        if (null === $told?->proposal || null === $this->series || $this->isOfParts() || [] === $this->variables) {
            return [];
        }
        $value = $told->proposal[0];
        $step = null === $this->setting ? 0.0 : $this->setting->step;
        $value = $step > 0 ? round(round($value / $step) * $step, 4) : $value;
        $stage = $this->series->plan()->at($value, $this->series->base);

        return array_filter(
            $stage,
            fn (float $v, string $name): bool => !SeriesPlan::same($v, $this->now->number($name)),
            \ARRAY_FILTER_USE_BOTH,
        );
    }

    public function answer(): string
    {
        if (null === $this->series) {
            return [] === $this->variables
                ? 'Link the craft once, so that what can be varied is known.'
                : 'Vary one setting in steps, with a flight at each, and let the flights tell which is best.';
        }
        $name = $this->title();
        $told = $this->told();
        if ($this->isOpen() && [] !== $this->remaining) {
            $n = \count($this->looked) + \count($this->left) + 1;

            $of = \count($this->series->plan()->flights());

            return $this->isOfParts()
                ? \sprintf('Flight %d of %d is next: %s, %s.', $n, $of, $name, $this->step($this->remaining[0]))
                : \sprintf('Flight %d of %d is next: %s at %s.', $n, $of, $name, $this->remaining[0] + 0);
        }
        if (null === $told?->proposal) {
            return null === $told ? 'No flight of this series tells yet.' : 'These flights do not tell which is best.';
        }
        [$value, $low, $high] = $told->proposal;
        if ($this->isOfParts()) {
            $best = $this->step($value);

            return $low === $high ? ucfirst("$name: $best shakes least.") : ucfirst("$name: $best shakes least, others hardly more.");
        }
        if ($told->allLag) {
            [$at, $on] = [round($value, 3), round($told->next ?? $value, 3)];

            return "With $name at $at it comes nearest, and still lags: go on, to $on.";
        }

        return $low === $high
            ? \sprintf('%s is best at %s.', ucfirst($name), round($value, 3))
            : \sprintf(
                '%s is best at %s; anything from %s to %s is as good.',
                ucfirst($name),
                round($value, 3),
                round($low, 3),
                round($high, 3),
            );
    }
}
