<?php

declare(strict_types=1);

namespace Ortholex\App\Tray;

use Ortholex\App\Craft\Craft;
use Ortholex\App\Craft\LinkService;
use Ortholex\App\Frame\Airframes;
use Ortholex\App\Record\Staging;
use Ortholex\App\Tune\Chains;
use Ortholex\App\Tune\Predictions;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\LoopLoad;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\CommitPlan;
use Ortholex\Core\Settings\Consistency\Circumstances;
use Ortholex\Core\Settings\Consistency\Consistency;
use Ortholex\Core\Settings\EscTable;

/** Gathers what the tray shows. */
final readonly class TrayBuilder
{
    public const DELAY_AT_HZ = 30.0;

    public function __construct(
        private Staging $staging,
        private Catalogue $catalogue,
        private LinkService $links,
        private Airframes $frames,
        private Chains $chains,
        private Predictions $predictions,
    ) {
    }

    public function of(Craft $craft): TrayView
    {
        $staged = $this->staging->of($craft)->among($craft->settings);
        $linked = $this->links->isLinked($craft);
        if ($staged->isEmpty()) {
            return new TrayView([], [], [], 0, $linked);
        }
        $base = $this->staging->base($craft);
        $items = [];
        foreach ($staged as $name => $value) {
            if ($this->catalogue->has($name, $craft->version())) {
                $setting = $this->catalogue->get($name, $craft->version());
                $items[] = new TrayItem($setting, $base[$name] ?? $craft->settings[$name], $value);
            }
        }
        $after = $craft->settings->with($staged);
        $motors = \count(($this->frames->staged($craft) ?? $this->frames->of($craft))->motors);

        return new TrayView(
            $items,
            Consistency::of($after, $craft->version(), new Circumstances($motors, $craft->processor ?? 'F4', $craft->leftOut)),
            $this->effects($craft, $after, $motors),
            CommitPlan::of(EscTable::without($staged), $this->catalogue, $craft->version())->restarts(),
            $linked,
        );
    }

    /**
     * @return list<array{label: string, unit: string, from: float, to: float, digits: int}>
     */
    private function effects(Craft $craft, SettingSet $after, int $motors): array
    {
        $rotorHz = $this->chains->rotorHz($craft);
        $measure = function (SettingSet $settings) use ($craft, $motors, $rotorHz): array {
            $now = $this->chains->current($craft, $settings);
            $filters = $this->chains->filters($now, $rotorHz);

            return [
                [
                    'label' => 'delay of the rate path at 30 Hz',
                    'unit' => 'ms',
                    'value' => 1e3 * $filters->ratePath->phaseDelay(self::DELAY_AT_HZ),
                    'digits' => 2,
                ],
                [
                    'label' => 'delay of the D path at 30 Hz',
                    'unit' => 'ms',
                    'value' => 1e3 * ($filters->ratePath->phaseDelay(self::DELAY_AT_HZ) + $filters->dPath->phaseDelay(self::DELAY_AT_HZ)),
                    'digits' => 2,
                ],
                [
                    'label' => 'loop load',
                    'unit' => '%',
                    'value' => LoopLoad::of($now, $motors, $craft->processor ?? 'F4', $craft->leftOut)->percent,
                    'digits' => 0,
                ],
            ];
        };
        $from = $measure($craft->settings);
        $to = $measure($after);
        $effects = [];
        foreach ($from as $i => $one) {
            if (abs($to[$i]['value'] - $one['value']) > 0.005) {
                $effects[] = [
                    'label' => $one['label'],
                    'unit' => $one['unit'],
                    'from' => $one['value'],
                    'to' => $to[$i]['value'],
                    'digits' => $one['digits'],
                ];
            }
        }

        foreach ($this->predictions->peaks($craft) as $axis => $peak) {
            $effects[] = ['label' => "peak of {$axis}'s step", 'unit' => '', 'from' => $peak['from'], 'to' => $peak['to'], 'digits' => 2];
        }

        return $effects;
    }
}
