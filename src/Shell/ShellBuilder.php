<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Doctrine\DBAL\Connection;
use Ortholex\App\Craft\Craft;
use Ortholex\App\Craft\Crafts;
use Ortholex\App\Frame\Airframes;
use Ortholex\App\Live\LiveState;
use Ortholex\App\Tray\TrayBuilder;
use Ortholex\App\Tray\TrayItem;
use Ortholex\App\Tray\TrayView;
use Ortholex\Core\Settings\SettingGroup;

/** Builds the frame for a sheet. */
final readonly class ShellBuilder
{
    public function __construct(
        private Crafts $crafts,
        private TrayBuilder $trays,
        private LiveState $live,
        private Airframes $frames,
        private Connection $db,
    ) {
    }

    public function of(Craft $craft, string $sheet): ShellView
    {
        $sheets = Sheets::all();
        $live = $this->live->of($craft);
        $tray = $this->trays->of($craft);

        return new ShellView(
            $craft,
            $sheets[(int) $sheet],
            $this->crafts->all(),
            Sheets::ofPart($sheet[0]),
            $this->marks($craft, $tray),
            $tray,
            $live,
            date('Y-m-d'),
            $this->frames->of($craft),
        );
    }

    /** @return array<int, string> by part */
    private function marks(Craft $craft, TrayView $tray): array
    {
        $count = function (string $table) use ($craft): int {
            $n = $this->db->fetchOne("SELECT COUNT(*) FROM $table WHERE craft_id = ?", [$craft->id]);

            return is_numeric($n) ? (int) $n : 0;
        };
        $logs = $count('log');
        $tune = \count(
            array_filter(
                $tray->items,
                static fn (TrayItem $i): bool => \in_array($i->setting->group, [SettingGroup::Gains, SettingGroup::Filters], true),
            ),
        );

        return [
            '1' => $craft->inBootloader ? '!' : ($craft->isKnown() ? '✓' : '○'),
            '5' => $logs > 0 ? (string) $logs : '○',
            '6' => $tune > 0 ? (string) $tune : '',
            '7' => $craft->revision > 0 ? (string) $craft->revision : '',
        ];
    }
}
