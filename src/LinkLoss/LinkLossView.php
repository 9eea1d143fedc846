<?php

declare(strict_types=1);

namespace Ortholex\App\LinkLoss;

use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LinkLoss\HoverOutput;
use Ortholex\Core\LinkLoss\LossPlan;
use Ortholex\Core\LinkLoss\Manner;
use Ortholex\Core\LinkLoss\RangeWalk;
use Ortholex\Core\LinkLoss\SinkSpeed;
use Ortholex\Core\LinkLoss\Stage;
use Ortholex\Core\LinkLoss\Then;
use Ortholex\Core\Proof\Proof;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\World\Radio;

/** What sheet 32 shows. */
final readonly class LinkLossView
{
    /** What a flight is flown with where the receiver does not tell, mW. */
    public const FLOWN_MW = 100.0;

    /** A fresh cell, V. */
    private const FULL_CELL_V = 4.15;

    public LossPlan $plan;
    public LossDrawing $drawing;
    public ?SinkPlot $sink;
    public ?SinkPlot $sinkWas;

    /**
     * @param list<Setting>                   $fields
     * @param array{HoverOutput, string}|null $hover  from which log
     * @param Radio|null                      $radio  on the bench
     * @param list<array{float, float, float}> $walked distance in m, link quality in %, power in mW
     * @param int                             $wanted how far it is to be flown, m
     */
    public function __construct(
        public bool $known,
        public bool $linked,
        private SettingSet $settings,
        public SettingSet $staged,
        public SettingSet $preview,
        public array $fields,
        public ?Proof $proof,
        public ?Job $tried,
        public ?array $hover,
        public ?PathPlot $path,
        public ?Radio $radio,
        public array $walked,
        public int $wanted,
        private Words $words,
    ) {
        $this->plan = LossPlan::in($preview);
        $this->drawing = new LossDrawing($this->plan, $hover[0]->hoverPct ?? 45.0);
        $this->sink = $this->sinkOf($this->plan->descendPct);
        $was = LossPlan::in($settings)->descendPct;
        $this->sinkWas = $was === $this->plan->descendPct ? null : $this->sinkOf($was);
    }

    public function answer(): string
    {
        $plan = match ($this->plan->then) {
            Then::Cut => 'the motors stop',
            Then::Descend => \sprintf('it descends at %.0f %% for %.0f s', $this->plan->descendPct, $this->plan->descendS),
            Then::Return => 'it comes back',
        };
        $says = \sprintf('Link lost: held for %.1f s, then %s', max($this->plan->holdS, LossPlan::NOTICE_S), $plan);

        return match (true) {
            !$this->known => 'Link the craft once, so that its link-loss plan is known.',
            $this->neverNoticed() => 'A lost link would never be noticed: the receiver goes on as if nothing had happened.',
            !$this->holds() => "$says. Not rehearsed".(null === $this->proof ? ' yet.' : ' as it is now.'),
            default => "$says. Rehearsed.",
        };
    }

    public function holds(): bool
    {
        return null !== $this->proof && $this->proof->holds($this->settings);
    }

    public function neverNoticed(): bool
    {
        return $this->holds() && true === ($this->proof->found['never_noticed'] ?? false);
    }

    /** Why a rehearsal holds no more. */
    public function lapsed(): string
    {
        if (null === $this->proof || $this->holds()) {
            return '';
        }
        $changed = $this->proof->changed($this->settings);

        return '' !== $this->proof->undone
            ? 'It no longer holds: '.$this->words->name("replaced_{$this->proof->undone}").' was replaced.'
            : 'It no longer holds, as these changed since: '.implode(', ', $changed).'.';
    }

    /** @return list<string> what the rehearsal found, in sentences */
    public function verdict(): array
    {
        $found = $this->proof->found ?? [];
        $manner = \is_string($found['manner'] ?? null) ? Manner::tryFrom($found['manner']) : null;
        if (null === $manner) {
            return [];
        }
        $seconds = static fn (string $name): string => is_numeric($found[$name] ?? null) ? \sprintf('%.2f s', (float) $found[$name]) : '';
        $ends = \is_string($found['ends'] ?? null) ? Stage::tryFrom($found['ends']) : null;

        return array_values(array_filter([
            $this->words->capital($manner).'.',
            '' === $seconds('noticed_s')
                ? (true === ($found['disarmed'] ?? false)
                    ? 'The board never knows, but the values the receiver sets turn arming off: the motors stop.'
                    : 'The board never notices.')
                : "The board notices after {$seconds('noticed_s')}.",
            '' === $seconds('acts_s') || null === $ends ? '' : "After {$seconds('acts_s')}: ".$this->words->of($ends).'.',
        ]));
    }

    /** Where the receiver cannot tell, a throttle below what it ever sends otherwise can. */
    public function thresholdUs(): float
    {
        $low = $this->settings->number('channel.throttle.low_us', 1000);

        return max(820.0, min(1100.0, round($low - 30)));
    }

    public function walk(): RangeWalk
    {
        return RangeWalk::of($this->walked, self::FLOWN_MW, max(1, $this->wanted));
    }

    /** What was told of the last try that could not tell. */
    public function cannotTell(): bool
    {
        return null !== $this->tried && null === ($this->tried->result['manner'] ?? null);
    }

    public function isStaged(string $name): bool
    {
        return $this->staged->has($name);
    }

    /** The setting that holds, by the release of the board. */
    public function holdName(): string
    {
        return $this->settings->has('link_loss.hold_s') ? 'link_loss.hold_s' : 'link_loss.hold_ms';
    }

    /** @return array<string, array{low: float, high: float, step: float}> by name */
    public function ranges(): array
    {
        $ranges = [];
        foreach ($this->fields as $setting) {
            $range = [] === $setting->ranges ? [0.0, 0.0] : $setting->ranges[array_key_last($setting->ranges)];
            $ranges[$setting->name] = ['low' => $range[0], 'high' => $range[1], 'step' => $setting->step];
        }

        return $ranges;
    }

    /** @return array{float, float} volts: from the fullest to the emptiest at which a loss may come */
    private function volts(): array
    {
        $cells = $this->preview->whole('pack.cells', 1);

        return [$cells * self::FULL_CELL_V, $cells * $this->preview->number('pack.flight_end_cell_v', 3.4)];
    }

    private function sinkOf(float $throttle): ?SinkPlot
    {
        if (null === $this->hover || $this->hover[0]->packV <= 0) {
            return null;
        }
        $idle = $this->preview->flag('motors.still_when_armed') ? 0.0 : $this->preview->number('motors.idle_pct', 5);
        $top = $this->preview->number('motors.top_pct', 100);
        [$full, $empty] = $this->volts();
        $law = SinkSpeed::of($this->hover[0]->hoverPct, $this->hover[0]->packV);

        return new SinkPlot($law, $full, $empty, $idle + ($throttle * ($top - $idle)) / 100, $idle);
    }
}
