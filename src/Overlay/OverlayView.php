<?php

declare(strict_types=1);

namespace Ortholex\App\Overlay;

use Ortholex\App\Shelf\ChipShelfItem;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Link\Aids\ChipIdentity;
use Ortholex\Core\Link\Aids\DrawnPicture;
use Ortholex\Core\Overlay\Chip\ChipFit;
use Ortholex\Core\Overlay\Font\Font;
use Ortholex\Core\Overlay\Layout;
use Ortholex\Core\Overlay\LayoutCheck;
use Ortholex\Core\Overlay\Layouts;
use Ortholex\Core\Overlay\OverlayItem;
use Ortholex\Core\Overlay\Raster;
use Ortholex\Core\Overlay\ShownWhen;
use Ortholex\Core\Overlay\Source\SourceVerdict;
use Ortholex\Core\Overlay\Source\VoltageFrom;

/** What sheet 42 shows. */
final readonly class OverlayView
{
    public Layout $layout;

    /**
     * @param list<ShownItem>       $items   of the layout that is looked at
     * @param list<string>          $sensors
     * @param list<ChipShelfItem>   $shelf
     * @param array<string, string> $others  names of other craft that have an overlay, by slug
     * @param array{int, int}       $cursor  column and row
     * @param bool                  $live    whether what is drawn comes from the craft now
     */
    public function __construct(
        public bool $known,
        public bool $linked,
        public int $number,
        public Layouts $layouts,
        public array $items,
        public Font $font,
        public bool $shippedFont,
        public SettingSet $settings,
        public SettingSet $preview,
        private array $sensors,
        private Version $board,
        public ?ChipIdentity $chip,
        public ?DrawnPicture $picture,
        public SourceVerdict $verdict,
        private array $shelf,
        public ?Job $written,
        public array $others,
        public array $cursor,
        public bool $live,
        private Words $words,
    ) {
        $this->layout = $layouts->layouts[$number];
    }

    public function answer(): string
    {
        return match (true) {
            !$this->known => 'Link the craft once, so that its overlay is known.',
            !$this->preview->flag('overlay.enabled') => 'The overlay is off.',
            $this->isWrong() && $this->isMended() => 'The true source of the voltage is staged: commit it.',
            $this->isWrong() => SourceVerdict::Stuck === $this->verdict
                ? 'The voltage shown stands still: it comes from the wrong source.'
                : 'The voltage shown is not the pack’s.',
            null !== $this->chip && !$this->suits() => 'The chip’s firmware does not suit the board’s: figures are garbled.',
            $this->linked && null === $this->chip => 'No overlay chip answers.',
            [] === $this->items => 'An empty picture. Click a cell to put something there.',
            [] !== $this->remarks() => \sprintf('%s to check on this picture.', ucfirst(self::count(\count($this->remarks())))),
            default => 'What the pilot sees.',
        };
    }

    public function under(): string
    {
        return match (true) {
            !$this->known => 'Then what is drawn over its picture appears here.',
            $this->live && $this->picture?->layout !== $this->number => 'With live values; the chip draws another layout now.',
            $this->live => 'Live, as its chip draws it.',
            default => 'With made-up values, as no craft that draws is linked.',
        };
    }

    public function isWrong(): bool
    {
        return SourceVerdict::Stuck === $this->verdict || SourceVerdict::Wrong === $this->verdict;
    }

    /** Whether another source is staged already. */
    private function isMended(): bool
    {
        return $this->source() !== $this->settings->text('overlay.voltage_from');
    }

    public function suits(): bool
    {
        return null !== $this->chip?->version && ChipFit::of($this->board, $this->chip->version)->suits;
    }

    /** @return array{string, string} versions of the chip that suit: from, and before */
    public function wanted(): array
    {
        $fit = ChipFit::of($this->board, $this->chip->version ?? Version::parse('0.0'));

        return [$fit->from, $fit->before];
    }

    /** @return list<array{item: ChipShelfItem, suits: bool}> images for this kind of chip */
    public function images(): array
    {
        $mine = array_filter($this->shelf, fn (ChipShelfItem $i): bool => $i->manifest->kind === $this->chip?->kind);

        return array_values(array_map(
            fn (ChipShelfItem $i): array => ['item' => $i, 'suits' => ChipFit::of($this->board, $i->manifest->version)->suits],
            $mine,
        ));
    }

    /** @return list<string> what is to be minded, in sentences */
    public function remarks(): array
    {
        return array_map($this->words->capital(...), (new LayoutCheck($this->preview, $this->sensors))->of($this->layout));
    }

    /** @return array<string, string> items that do not stand here yet: what each is, by name */
    public function free(): array
    {
        $free = [];
        foreach (OverlayItem::cases() as $item) {
            if (!isset($this->layout->at[$item->value])) {
                $need = $item->needs();
                $met = null === $need || $need->isMet($this->preview, $this->sensors);
                $free[$item->value] = $this->words->of($item).($met ? '' : ' ('.$this->words->name($need->value).')');
            }
        }
        asort($free);

        return $free;
    }

    /** @return list<Raster> */
    public function rasters(): array
    {
        return Raster::cases();
    }

    /** @return list<ShownWhen> */
    public function times(): array
    {
        return ShownWhen::cases();
    }

    /** @return list<VoltageFrom> */
    public function sources(): array
    {
        return VoltageFrom::cases();
    }

    public function source(): string
    {
        return $this->preview->text('overlay.voltage_from', VoltageFrom::Pack->value);
    }

    /** @return array<int, array{string, string}> pictures of the letters that can stand here: white and black, by code */
    public function glyphs(): array
    {
        $glyphs = [];
        foreach (array_keys($this->font->glyphs) as $code) {
            $glyphs[$code] = $this->font->paths($code);
        }

        return $glyphs;
    }

    /** @return array<string, string> kinds of chip and releases of Loam: what suits what */
    public function pairs(): array
    {
        $pairs = [];
        foreach (ChipFit::pairs() as $loam => [$from, $before]) {
            $pairs["from Loam $loam"] = "$from to before $before";
        }

        return $pairs;
    }

    private static function count(int $n): string
    {
        return ['nothing', 'one thing', 'two things', 'three things', 'four things', 'five things'][$n] ?? "$n things";
    }
}
