<?php

declare(strict_types=1);

namespace Ortholex\App\Pack;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Pack\Cells;
use Ortholex\Core\Pack\Discharge;
use Ortholex\Core\Pack\PackCard;
use Ortholex\Core\Pack\PackFit;
use Ortholex\Core\Proof\Proof;
use Ortholex\Core\Settings\Setting;

/** What sheet 33 shows. */
final readonly class PackView
{
    public ?DischargePlot $plot;

    /**
     * @param list<Setting>                              $fields
     * @param float|null                                 $reportedV as the board takes the pack; null without one
     * @param list<PackCard>                             $cards
     * @param array<int, list<array{Log, PackFit}>>      $flights   by card
     * @param array{float, float}|null                   $first     first point of a calibration by two: meter and reported
     * @param float|null                                 $countedAh by the newest log
     */
    public function __construct(
        public bool $known,
        public bool $linked,
        public SettingSet $settings,
        public SettingSet $staged,
        public SettingSet $preview,
        public array $fields,
        public ?float $reportedV,
        public ?Discharge $discharge,
        public ?Fact $wrong,
        public array $cards,
        public array $flights,
        public ?Proof $proof,
        public ?array $first,
        public ?float $countedAh,
        private Words $words,
    ) {
        $this->plot = null === $discharge ? null : new DischargePlot($discharge);
    }

    public function answer(): string
    {
        if (!$this->known) {
            return 'Link the craft once, so that its pack is known.';
        }
        if (null !== $this->wrong) {
            return $this->words->capital($this->wrong);
        }
        if (!$this->isCalibrated() && true === $this->proof?->holds($this->preview)) {
            return 'Held against a meter; it counts once the tray is committed.';
        }
        if (!$this->isCalibrated()) {
            return null === $this->discharge
                ? 'The voltage was never held against a meter.'
                : \sprintf('%s from full to flight end; the voltage was never held against a meter.', $this->span(0.0, $this->end()));
        }

        return null === $this->discharge
            ? 'Calibrated. A flight tells how long a pack lasts.'
            : $this->span(0.0, $this->end()).' from full to flight end.';
    }

    public function isCalibrated(): bool
    {
        return null !== $this->proof && $this->proof->holds($this->settings);
    }

    public function warn(): float
    {
        return $this->preview->number('pack.warn_cell_v', 3.6);
    }

    public function end(): float
    {
        return $this->preview->number('pack.flight_end_cell_v', 3.4);
    }

    public function cells(): int
    {
        return $this->preview->whole('pack.cells', 1);
    }

    /** Minutes from a charge used to a level, with their spread. */
    public function span(float $fromAh, float $toCellV): string
    {
        if (null === $this->discharge) {
            return '';
        }
        [$median, $low, $high] = $this->discharge->minutes($fromAh, $toCellV);

        return $high - $low < 0.1 ? \sprintf('%.1f min', $median) : \sprintf('%.1f min (%.1f to %.1f)', $median, $low, $high);
    }

    /** Charge that is left at flight end, Ah, and as a share. */
    public function leftAtEnd(): string
    {
        if (null === $this->plot || null === $this->discharge) {
            return '';
        }
        $left = $this->discharge->fullAh - $this->plot->usedAt($this->end());

        return \sprintf('%.2f Ah, %.0f %%', $left, (100 * $left) / $this->discharge->fullAh);
    }

    /** @return list<int> how many cells the pack can have by what is reported; none where that fits what is set, or its card says so */
    public function cellsToAsk(): array
    {
        $card = array_values(array_filter($this->cards, static fn (PackCard $c): bool => $c->inUse))[0] ?? null;
        if (null === $this->reportedV || $this->reportedV < 2 || $card?->cells === $this->cells()) {
            return [];
        }
        $fit = Cells::of($this->reportedV);

        return \in_array($this->cells(), $fit, true) && 1 === \count($fit) ? [] : $fit;
    }

    public function ages(PackCard $card): bool
    {
        return PackCard::ages(array_column($this->flights[$card->id] ?? [], 1));
    }

    /** How its resistance rose, in percent. */
    public function rise(PackCard $card): ?float
    {
        $rise = PackCard::rise(array_column($this->flights[$card->id] ?? [], 1));

        return null === $rise ? null : 100 * ($rise - 1);
    }

    /** @return list<array{x: float, y: float, top: float, foot: float, says: string}> resistance of a pack over its flights, 200 by 60 */
    public function resistances(PackCard $card): array
    {
        $flights = $this->flights[$card->id] ?? [];
        $most = max([0.001, ...array_map(static fn (array $f): float => $f[1]->high, $flights)]);
        $y = static fn (float $ohm): float => round(56 - (50 * max(0.0, $ohm)) / $most, 1);
        $out = [];
        foreach ($flights as $i => [$log, $fit]) {
            $out[] = [
                'x' => round(10 + (180 * $i) / max(1, \count($flights) - 1), 1),
                'y' => $y($fit->ohm),
                'top' => $y($fit->high),
                'foot' => $y($fit->low),
                'says' => \sprintf('%s: %.1f mΩ a cell, %.1f to %.1f', $log->code, 1000 * $fit->ohm, 1000 * $fit->low, 1000 * $fit->high),
            ];
        }

        return $out;
    }

    public function isStaged(string $name): bool
    {
        return $this->staged->has($name);
    }

    /** @return array<string, array{low: float, high: float}> */
    public function ranges(): array
    {
        $ranges = [];
        foreach ($this->fields as $setting) {
            $range = [] === $setting->ranges ? [0.0, 0.0] : $setting->ranges[array_key_last($setting->ranges)];
            $ranges[$setting->name] = ['low' => $range[0], 'high' => $range[1]];
        }

        return $ranges;
    }
}
