<?php

declare(strict_types=1);

namespace Ortholex\App\Location;

use Ortholex\App\FlightLog\Log;
use Ortholex\App\Location\Compass\CompassPlot;
use Ortholex\App\Location\Compass\Disturbed;
use Ortholex\App\Location\Compass\Turned;
use Ortholex\App\Location\Home\ReturnDrawing;
use Ortholex\App\Location\Home\ReturnPath;
use Ortholex\App\Location\Sky\SeenSky;
use Ortholex\App\Location\Sky\SkyPlot;
use Ortholex\App\Location\Sky\WanderPlot;
use Ortholex\App\Words\Words;
use Ortholex\App\Work\Job;
use Ortholex\Core\Compass\CompassFit;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Homing\Gift;
use Ortholex\Core\Homing\GiftNeed;
use Ortholex\Core\Homing\HomeCondition;
use Ortholex\Core\Homing\HoverAmperes;
use Ortholex\Core\Homing\ReturnForecast;
use Ortholex\Core\Position\Magnetic\MagneticField;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Wiring\Hearing;
use Ortholex\Core\Wiring\Part;

/** What sheet 41 shows. */
final readonly class LocationView
{
    public SkyPlot $skyPlot;
    public ?WanderPlot $wander;

    /**
     * @param array{Part, string}|null         $port      the receiver and its UART; null where none is drawn
     * @param array<string, list<Setting>>     $fields    by look
     * @param list<string>                     $sensors
     * @param array{HoverAmperes, string}|null $hover
     * @param list<Log>                        $tracks  flights that tell where they went
     */
    public function __construct(
        public LocationLook $look,
        public bool $known,
        public bool $linked,
        public bool $outdoors,
        public bool $railDead,
        public bool $tumbles,
        public ?array $port,
        public SeenSky $sky,
        public SettingSet $settings,
        public SettingSet $staged,
        public SettingSet $preview,
        public array $fields,
        private array $sensors,
        public ?Job $found,
        public ?Turned $turned,
        public ?Job $turning,
        public ?Disturbed $disturbed,
        public ?MagneticField $earth,
        public ?ReturnPath $path,
        public ?ReturnDrawing $drawing,
        public ?ReturnForecast $forecast,
        public ?array $hover,
        public float $ah,
        public array $tracks,
        private Words $words,
    ) {
        $this->skyPlot = new SkyPlot($sky->satellites);
        $wander = $sky->wander();
        $this->wander = null === $wander ? null : new WanderPlot($wander);
    }

    /** @return list<LocationLook> */
    public function looks(): array
    {
        return LocationLook::cases();
    }

    public function answer(): string
    {
        return match (true) {
            !$this->known => 'Link the craft once, so that what hangs on it is known.',
            null === $this->port => 'No position receiver is drawn on 13 Wiring: it cannot know where it is.',
            LocationLook::Compass === $this->look => $this->compassAnswer(),
            LocationLook::Home === $this->look => $this->homeAnswer(),
            default => $this->skyAnswer(),
        };
    }

    public function under(): string
    {
        $sky = $this->sky;

        return match (true) {
            !$this->known => 'Where it is, how certain that is, and what it can do with it.',
            null === $this->port => 'Draw one there, or do without: nothing else needs it.',
            LocationLook::Compass === $this->look => 'Hold and return need to know which way the nose points.',
            LocationLook::Home === $this->look => 'Rehearsed here before it is ever needed.',
            $sky->isFixed() && null !== $sky->firstS => \sprintf('The first fix took %.0f s.', $sky->firstS),
            default => 'Where it is, how certain that is, and what it can do with it.',
        };
    }

    private function skyAnswer(): string
    {
        $sky = $this->sky;
        $name = $this->port[0]->name ?? '';

        return match (true) {
            !$this->linked => 'Link the craft, and it is listened to.',
            $this->railDead => "$name is dark: its rail is dead on USB alone. Connect the pack.",
            null === $sky->heard => "Listening to $name …",
            Hearing::Silent === $sky->heard => "$name is silent.",
            Hearing::Rubbish === $sky->heard => "$name speaks, but not at the rate its port is set to.",
            !$sky->isFixed() && !$this->outdoors => "$name is heard. No fix under a roof: go outside.",
            !$sky->isFixed() => "$name is heard, and looks for satellites: half a minute from cold.",
            [] !== $this->homeUnmet() => \sprintf('It knows where it is, but not well enough for a home yet (%d satellites).', $sky->used),
            default => \sprintf('It knows where it is: %d satellites%s.', $sky->used, $this->cep()),
        };
    }

    private function cep(): string
    {
        return null === $this->wander ? '' : \sprintf(', and wanders by %.1f m', $this->wander->wander->cep50M);
    }

    private function compassAnswer(): string
    {
        $turned = $this->turned;

        return match (true) {
            !$this->hasCompass() => 'This board has no compass: position gives it figures only.',
            !$this->settings->flag('compass.enabled') => 'The compass is off. Switch it on first.',
            $this->isTurning() => \sprintf('Turn it on: %.0f %% of the sphere is shown.', 100 * ($this->sphere()?->share() ?? 0.0)),
            null !== $this->disturbed && $this->disturbed->isStop() => \sprintf(
                'Stop: at hover the motors turn its heading by %.0f°. Mount it farther from the pack’s wires.',
                $this->disturbed->atHoverDeg,
            ),
            $this->isCalibrated() => 'The compass is calibrated.',
            null === $turned => 'Turn the craft through all poses, and the compass is calibrated.',
            null !== $turned->flaw => 'These poses do not calibrate it yet.',
            default => 'Found. Stage it, and commit.',
        };
    }

    private function homeAnswer(): string
    {
        $path = $this->path;
        $needs = $this->needs(Gift::Return);

        return match (true) {
            [] !== array_diff(
                array_column($needs, 'value'),
                [GiftNeed::Rehearsal->value, GiftNeed::Lever->value],
            ) => 'It cannot come home yet: '.
                'see what it needs.',
            null === $path => 'Never rehearsed: nobody knows whether it comes home.',
            !$path->holds($this->preview) && !$this->isDemonstration() => 'Not rehearsed as it is set now.',
            $path->fell() => \sprintf('It falls: it met the ground at %.0f m/s, %.0f m from home.', $path->impactMs, $path->missedM()),
            $this->isDemonstration() && !$path->cameHome() => \sprintf('It came down %.0f m from home.', $path->missedM()),
            !$path->cameHome() => \sprintf('It does not come home: it came down %.0f m away.', $path->missedM()),
            default => \sprintf('It comes home: %.0f s, and down %.1f m from where it began.', $path->seconds(), $path->missedM()),
        };
    }

    /** Whether the flight that is drawn had something go wrong on purpose. */
    public function isDemonstration(): bool
    {
        return null !== $this->path && 'nothing' !== ($this->path->told['wrong'] ?? 'nothing');
    }

    public function hasCompass(): bool
    {
        return \in_array('compass', $this->sensors, true);
    }

    /** Whether it is being turned now. */
    public function isTurning(): bool
    {
        return null !== $this->turning && $this->turning->isOpen();
    }

    public function isCalibrated(): bool
    {
        return Turned::isSet($this->turning->result['settings'] ?? null, $this->settings);
    }

    /** @return list<HomeCondition> */
    public function homeUnmet(): array
    {
        return HomeCondition::unmet($this->settings, $this->sky->mode, $this->sky->used, $this->sky->hdop);
    }

    /** @return list<array{gift: string, needs: list<array{says: string, sheet: string}>}> the four things, and what each still needs */
    public function gifts(): array
    {
        $gifts = [];
        foreach (Gift::cases() as $gift) {
            $gifts[] = [
                'gift' => $this->words->of($gift),
                'needs' => array_map(
                    fn (GiftNeed $n): array => ['says' => $this->words->of($n), 'sheet' => self::mended($n)],
                    $this->needs($gift),
                ),
            ];
        }

        return $gifts;
    }

    /** @return list<GiftNeed> */
    private function needs(Gift $gift): array
    {
        return $gift->needs(
            $this->settings,
            $this->sensors,
            $this->isCalibrated(),
            null !== $this->path && $this->path->holds($this->settings) && $this->path->cameHome(),
        );
    }

    private static function mended(GiftNeed $need): string
    {
        return match ($need) {
            GiftNeed::Lever => '22',
            GiftNeed::LossPlan => '32',
            GiftNeed::Position => '13',
            default => '41',
        };
    }

    /** @return array<string, float|int|bool|string> what follows of the receiver that was found, and is not so */
    public function toStage(): array
    {
        $baud = $this->found->result['baud'] ?? null;
        $uart = $this->port[1] ?? '';
        if (!\is_int($baud) || ($this->found->result['uart'] ?? '') !== $uart) {
            return [];
        }
        $wanted = [
            'location.enabled' => true,
            "uart.$uart.role" => 'gps',
            "uart.$uart.baud" => (string) $baud,
            "uart.$uart.inverted" => false,
            "uart.$uart.half_duplex" => false,
        ];

        return array_filter(
            $wanted,
            fn (bool|string $value, string $name): bool => $this->preview->has($name) && $this->preview[$name] !== $value,
            \ARRAY_FILTER_USE_BOTH,
        );
    }

    /** Whether its rate is still to be found: it speaks, is not understood, and nothing of it waits. */
    public function mustFind(): bool
    {
        return Hearing::Rubbish === $this->sky->heard && [] === $this->toStage() && !$this->staged->has(
            'uart.'.($this->port[1] ?? '').'.baud',
        );
    }

    public function setBaud(): int
    {
        return $this->settings->whole('uart.'.($this->port[1] ?? '').'.baud', 0);
    }

    /** Where declination would be another than is set, deg; null where it is right, or not known. */
    public function declination(): ?float
    {
        $is = null === $this->earth ? null : round($this->earth->declinationDeg(), 1);

        return null === $is || abs($this->preview->number('compass.declination_deg') - $is) < 0.051 ? null : $is;
    }

    public function sphere(): ?CompassPlot
    {
        return null === $this->turned ? null : new CompassPlot($this->turned->coverage());
    }

    public function leastCovered(): float
    {
        return CompassFit::LEAST_COVERED;
    }

    /** Iron that moves with the compass, µT. */
    public function iron(): string
    {
        return implode(', ', array_map(static fn (float $ut): string => \sprintf('%.0f', $ut), $this->turned->fit->offset ?? []));
    }

    /** Why it is not calibrated by these readings; '' where it is. */
    public function flaw(): string
    {
        return null === $this->turned?->flaw ? '' : $this->words->of($this->turned->flaw);
    }

    /** @return array<string, array{low: float, high: float, step: float}> by name */
    public function ranges(): array
    {
        $ranges = [];
        foreach (array_merge(...array_values($this->fields)) as $setting) {
            $range = [] === $setting->ranges ? [0.0, 0.0] : $setting->ranges[array_key_last($setting->ranges)];
            $ranges[$setting->name] = ['low' => $range[0], 'high' => $range[1], 'step' => $setting->step];
        }

        return $ranges;
    }

    /** By which the page is drawn anew. */
    public function mark(): string
    {
        return substr(hash('xxh64', json_encode($this->sky->toArray(), \JSON_THROW_ON_ERROR)), 0, 10);
    }
}
