<?php

declare(strict_types=1);

namespace Ortholex\App\Feel;

use Ortholex\Core\Control\Feel;
use Ortholex\Core\Control\FeelError;
use Ortholex\Core\Control\FeelFigures;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Radio\ChannelSpan;
use Ortholex\Core\Radio\SpanError;
use Ortholex\Core\Settings\Setting;

/** What sheet 22 shows. */
final readonly class FeelView
{
    /** One step of a channel of eleven bits, µs. */
    private const STEP_US = 0.625;

    /**
     * @param list<Setting>                                                     $fields  that are typed where someone must
     * @param array<string, array{low: float, high: float}>                     $ranges
     * @param array<string, string>                                             $sources what each is called, by key
     * @param SettingSet|null                                                   $beside  the feel of the chosen one
     * @param SettingSet                                                        $putBack what stood before a test feel
     */
    public function __construct(
        public SettingSet $now,
        public SettingSet $staged,
        public SettingSet $preview,
        public array $fields,
        public array $ranges,
        public Trade $trade,
        public array $sources,
        public string $from,
        public ?SettingSet $beside,
        public SettingSet $putBack,
    ) {
    }

    public function isKnown(): bool
    {
        return $this->now->has('feel.roll.full_dps');
    }

    public function answer(): string
    {
        if (!$this->isKnown()) {
            return 'Link the craft once, so that its feel is known.';
        }
        $roll = $this->figures('roll');

        return match (true) {
            $this->isTest() => 'The test feel is on: strong around the centre, slow at the ends.',
            null === $roll => 'The rates at quarter, half and full stick do not rise, so there is no curve.',
            default => \sprintf(
                'Full roll stick turns it once round in %.2f s; half of the stick is %.0f %% of that.',
                $roll->turnS,
                100 * $roll->halfShare,
            ),
        };
    }

    public function figures(string $axis): ?FeelFigures
    {
        try {
            $span = ChannelSpan::in($this->preview, Channel::from($axis));

            return FeelFigures::of(Feel::in($this->preview, Axis::from($axis)), self::STEP_US, ($span->highUs - $span->lowUs) / 2);
        } catch (FeelError|SpanError) {
            return null;
        }
    }

    /** Hover by the last log, in % of output. */
    public function hover(): string
    {
        return \sprintf('%.0f ± %.0f %%', $this->trade->hoverPct ?? 0.0, $this->trade->hoverSpreadPct ?? 0.0);
    }

    /** Whether what is on, or staged, was put there for a test and differs from what is to come back. */
    public function isTest(): bool
    {
        return !$this->putBack->isEmpty();
    }

    /** @return array<string, mixed> for the drawing: what stands, what is staged, what is shown beside it */
    public function drawing(): array
    {
        $curves = static function (SettingSet $set): ?array {
            try {
                return Curves::of($set);
            } catch (\InvalidArgumentException) {
                return null;
            }
        };
        $points = [];
        foreach (Axis::cases() as $axis) {
            foreach (['quarter' => 25, 'half' => 50, 'full' => 100] as $part => $stick) {
                $name = "feel.$axis->value.{$part}_dps";
                $value = $this->preview->number($name);
                $points[] = ['name' => $name, 'axis' => $axis->value, 'stick' => $stick, 'value' => $value] + ($this->ranges[$name] ?? []);
            }
        }

        return [
            'now' => $curves($this->now),
            'staged' => $this->staged->where(self::isMine(...))->isEmpty() ? null : $curves($this->preview),
            'beside' => null === $this->beside ? null : $curves($this->now->with($this->beside)),
            'points' => $points,
            'ranges' => $this->ranges,
            'staged_names' => $this->staged->where(self::isMine(...))->names(),
            'hover' => [$this->preview->number('throttle.hover_stick_pct', 50), $this->preview->number('throttle.hover_output_pct', 50)],
            'limit' => $this->preview->number('throttle.limit_pct', 100),
            'trade' => ['curve' => $this->trade->curve, 'knee' => $this->trade->kneeHz],
            'cutoff' => $this->preview->number('command_low_pass.cutoff_hz', 40),
            'cutoff_now' => $this->now->number('command_low_pass.cutoff_hz', 40),
        ];
    }

    private static function isMine(string $name): bool
    {
        return 1 === preg_match('~^(feel|throttle|command_low_pass)\.~', $name);
    }
}
