<?php

declare(strict_types=1);

namespace Ortholex\Bench\Board;

use Ortholex\Bench\Camera\TiltServo;
use Ortholex\Bench\Flight\Airframe\CraftPhysics;
use Ortholex\Bench\Overlay\ScryChip;
use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Time\Pace;
use Ortholex\Core\Camera\ServoLaw;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Overlay\Chip\ChipFit;
use Ortholex\Core\Overlay\ItemText;
use Ortholex\Core\Overlay\Layout;
use Ortholex\Core\Overlay\Layouts;
use Ortholex\Core\Overlay\OverlayMoment;
use Ortholex\Core\Overlay\OverlayReadings;
use Ortholex\Core\Overlay\Source\VoltageFrom;
use Ortholex\Core\Radio\Heard;

/** What the board has its overlay chip draw over the picture: the layout of the moment, each item from its source. */
final readonly class Picture
{
    /** What the regulator of the video rail holds, V. */
    private const RAIL_V = 5.02;

    /** Own electronics, A. */
    private const OWN_A = 0.6;

    public function __construct(private CraftPhysics $physics, private WorldState $state, private Pace $pace)
    {
    }

    /**
     * Rows of letters, as they stand in the chip's memory; garbled where its firmware does not suit the board's.
     *
     * @return array{int|null, list<string>} number of the layout that is shown
     */
    public function drawn(ScryChip $chip, OverlayReadings $readings, OverlayMoment $moment): array
    {
        $set = SettingSet::of($this->state->running);
        $version = $chip->version();
        $layouts = Layouts::in($set);
        $number = $layouts->shown($moment);
        $rows = array_fill(0, $layouts->raster->rows(), str_repeat(' ', $layouts->raster->columns()));
        if (null === $version || null === $number || !$set->flag('overlay.enabled')) {
            return [$number, $rows];
        }
        $rows = self::written($rows, $layouts->layouts[$number], $readings);
        $suits = ChipFit::of(Version::parse($this->state->runningVersion), Version::parse($version))->suits;

        // Another release numbers its letters otherwise.
        return [$number, $suits ? $rows : array_map(static fn (string $r): string => strtr($r, '0123456789.', '?.5:1-8=3 7'), $rows)];
    }

    /**
     * @param list<string> $rows
     *
     * @return list<string>
     */
    private static function written(array $rows, Layout $layout, OverlayReadings $readings): array
    {
        foreach ($layout->items() as $item) {
            [$column, $row] = $layout->at[$item->value];
            foreach (ItemText::of($item, $readings) as $i => $text) {
                $rows[$row + $i] = substr_replace($rows[$row + $i], $text, $column, \strlen($text));
            }
        }

        return array_values($rows);
    }

    /**
     * @param array{float, float, float}                     $attitude
     * @param array{float, float, float, int, float}|null $fix
     * @param float                                          $reportedV what the divider gives
     */
    public function readings(
        array $attitude,
        ?array $fix,
        float $reportedV,
        ?float $headingDeg,
        ?BoardRadio $radio,
        string $name,
    ): OverlayReadings {
        $s = $this->state;
        $set = SettingSet::of($s->running);
        $volts = match (VoltageFrom::tryFrom($set->text('overlay.voltage_from')) ?? VoltageFrom::Pack) {
            VoltageFrom::Pack => $reportedV,
            VoltageFrom::Escs => $s->pack ? $this->physics->restVoltage($s->chargeUsed) : 0.0,
            VoltageFrom::VideoRail => self::RAIL_V,
        };
        $link = null === $radio ? null : $radio->read($this->pace->now(), \PHP_INT_MAX, Knowledge::sound());

        return new OverlayReadings(
            packV: $volts,
            cells: $set->whole('pack.cells', 4),
            currentA: $s->pack ? self::OWN_A : 0.0,
            usedAh: $this->physics->packAh * $s->chargeUsed,
            linkPct: null === $link?->link ? null : (float) $link->link->qualityPct,
            signalDbm: null === $link?->link ? null : (float) $link->link->rssiDbm,
            throttlePct: 100 * ($link->mapped['throttle'] ?? 0.0),
            heightM: 0.0,
            climbMs: 0.0,
            speedMs: null === $fix ? null : 0.0,
            homeM: null === $fix ? null : 0.0,
            latDeg: $fix[0] ?? null,
            lonDeg: $fix[1] ?? null,
            satellites: $fix[3] ?? null,
            headingDeg: $headingDeg,
            rollDeg: $attitude[0],
            pitchDeg: $attitude[1],
            cameraDeg: $this->cameraDeg($attitude[1]),
            mhz: $set->flag('video.enabled') ? $set->number('video.mhz', 5788) : null,
            name: $name,
            modes: true === ($s->arming['armed'] ?? false) ? 'armed' : 'disarmed',
            warnings: Heard::Frames === $link?->heard ? [] : ['no radio'],
        );
    }

    /** Where the board believes the camera to point; null without a servo. */
    private function cameraDeg(float $pitch): ?float
    {
        $us = $this->servoUs($pitch);

        return null === $us ? null : ServoLaw::in(SettingSet::of($this->state->running))->deg($us);
    }

    /** The pulse that goes to the servo; null where no output drives one. */
    public function servoUs(float $pitch, ?float $knobUs = null, bool $levels = false): ?float
    {
        $s = $this->state;
        $set = SettingSet::of($s->running);
        if (!\in_array('camera_tilt', $set->drives(), true) || (!$s->pack && !$s->cable)) {
            return null;
        }
        if (is_numeric($s->servo['until'] ?? null) && is_numeric($s->servo['us'] ?? null) && $this->pace->now() < $s->servo['until']) {
            return (float) $s->servo['us'];
        }
        $law = ServoLaw::in($set);

        return $law->us($law->asked($pitch, $knobUs, $levels));
    }

    public function servo(): ?TiltServo
    {
        return TiltServo::of($this->physics->camera);
    }
}
