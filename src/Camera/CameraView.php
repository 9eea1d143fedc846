<?php

declare(strict_types=1);

namespace Ortholex\App\Camera;

use Ortholex\App\Words\Words;
use Ortholex\Core\Camera\CruiseTilt;
use Ortholex\Core\Craft\PadLoad;
use Ortholex\Core\Craft\Place;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Video\ChannelPlan;
use Ortholex\Core\Video\PlaceLaw;
use Ortholex\Core\Video\Wire\HeronState;
use Ortholex\Core\Wiring\Part;

/** What sheet 43 shows. */
final readonly class CameraView
{
    /** Faster pulses need a servo that says so, Hz. */
    private const USUAL_HZ = 60.0;

    /** At which tilt it was told to point last, µs; 0 for none. */
    public ?CameraDrawing $drawing;

    public ?int $pad;

    /**
     * @param array<string, list<Setting>>   $fields  by look
     * @param array{CruiseTilt, string}|null $cruise
     * @param array{Part, string}|null       $port    of the transmitter
     * @param array<string, PlaceLaw>        $laws    by place
     * @param list<float>                    $powers  that the transmitter takes, mW
     */
    public function __construct(
        public CameraLook $look,
        public bool $known,
        public bool $linked,
        public SettingSet $settings,
        public SettingSet $staged,
        public SettingSet $preview,
        public array $fields,
        public ?float $seenDeg,
        public bool $buzzes,
        float $askedDeg,
        public ?array $cruise,
        public bool $listed,
        public ?array $port,
        public bool $dark,
        public ?HeronState $now,
        public bool $tableRead,
        public array $powers,
        public BandPlot $band,
        public ?ChannelPlan $plan,
        public string $planProblem,
        public int $pilots,
        public string $takenText,
        public string $place,
        public array $laws,
        public string $lawText,
        public HeatPlot $heat,
        private Words $words,
    ) {
        $pads = array_keys($preview->drives(), PadLoad::CameraTilt->value, true);
        $this->pad = [] === $pads ? null : (int) $pads[0];
        $this->drawing = null === $this->pad ? null : new CameraDrawing(
            \Ortholex\Core\Camera\ServoLaw::in($preview),
            $askedDeg,
            $seenDeg,
        );
    }

    /** @return list<CameraLook> */
    public function looks(): array
    {
        return CameraLook::cases();
    }

    public function answer(): string
    {
        return match (true) {
            !$this->known => 'Link the craft once, so that what it carries is known.',
            CameraLook::Video === $this->look => $this->videoAnswer(),
            null === $this->drawing => null === $this->cruise
                ? 'The camera is fixed.'
                : \sprintf('The camera is fixed: tilt it by %+.0f° for a level view at cruise.', $this->cruise[0]->cameraDeg()),
            $this->buzzes => 'The servo buzzes: it strains, or gets its pulses faster than it follows.',
            default => \sprintf('The camera looks from %.0f° to %+.0f°.', ...$this->drawing->law->reach()),
        };
    }

    public function under(): string
    {
        return match (true) {
            CameraLook::Video === $this->look => 'Which frequency, how strong, and how warm on the bench.',
            null === $this->drawing => 'No output drives a servo for it.',
            default => 'Drag it to where it binds, and say so.',
        };
    }

    private function videoAnswer(): string
    {
        $mhz = $this->preview->number('video.mhz', 5788);
        $most = $this->mostMw();
        $power = $this->preview->number('video.power_mw', 1);

        return match (true) {
            null === $this->port && !$this->preview->flag('video.enabled') => 'No video transmitter is drawn on 13 Wiring.',
            '' === $this->place => 'Where will it be flown? Power is held to the law of the place.',
            null !== $most && $most <= 0 => \sprintf('%.0f MHz is in no band of that place.', $mhz),
            null !== $most && $power > $most => \sprintf('%.0f mW is more than the law lets: %g mW at %.0f MHz.', $power, $most, $mhz),
            true === $this->now?->protects => 'It is too warm and protects itself: give it air, or less power.',
            $this->band->channels->clashes() > 0 => \sprintf('%.0f MHz disturbs, or is disturbed.', $mhz),
            default => \sprintf('%.0f MHz at %g mW.', $mhz, $power),
        };
    }

    /** The best set, in words. */
    public function best(): string
    {
        return implode(', ', array_map(static fn (float $f): string => \sprintf('%.0f', $f), $this->plan?->mhz() ?? []));
    }

    /** What the law of the place lets at its frequency, mW; null while no place is said. */
    public function mostMw(): ?float
    {
        return isset($this->laws[$this->place]) ? $this->laws[$this->place]->mostMw($this->preview->number('video.mhz', 5788)) : null;
    }

    /** @return array<int, array{says: string, free: bool, own: bool}> outputs that could drive the servo */
    public function pads(): array
    {
        $drives = $this->preview->drives();
        $pads = [];
        for ($pad = 1; $pad <= SettingSet::PADS; ++$pad) {
            if ($this->preview->has("pad.$pad.drives")) {
                $does = $drives[$pad] ?? '';
                $motor = '' !== $does && PadLoad::CameraTilt->value !== $does;
                $pads[$pad] = [
                    'says' => "output $pad".($motor ? ', drives '.$this->words->name($does) : ''),
                    'free' => !$motor,
                    'own' => $pad === $this->pad,
                ];
            }
        }

        return $pads;
    }

    /** Whether its pulses come faster than usual servos follow. */
    public function isFast(): bool
    {
        return $this->preview->number('camera.pulse_hz', 50) > self::USUAL_HZ;
    }

    /** Where it would rest for a level view at cruise, deg; null where it does, or that is not known. */
    public function restForCruise(): ?float
    {
        $deg = null === $this->cruise ? null : round($this->cruise[0]->cameraDeg());

        return null === $deg || null === $this->drawing || abs($this->preview->number('camera.rest_deg') - $deg) < 1 ? null : $deg;
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
}
