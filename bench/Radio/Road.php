<?php

declare(strict_types=1);

namespace Ortholex\Bench\Radio;

use Ortholex\Core\Control\ThrottleCurve;
use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LinkLoss\Manner;
use Ortholex\Core\Radio\Protocol\Crsf;
use Ortholex\Core\Radio\Protocol\Sbus;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\Switches\SwitchMap;

/** The way of a pilot's thumbs in flight: through the transmitter's memory and the receiver's frames to what the board looks at. */
final readonly class Road
{
    private function __construct(private RadioState $radio, private Rill $kind, private SettingSet $set)
    {
    }

    public static function of(RadioState $radio, Rill $kind, SettingSet $set): self
    {
        return new self($radio, $kind, $set);
    }

    /**
     * @param list<array{float, float, float, float}> $thumbs roll, pitch, yaw (−1 to 1), and the output that throttle is to give (0 to 1)
     *
     * @return list<array{float, float, float, float}> what the board has of roll, pitch, yaw and throttle, µs, one a frame
     */
    public function frames(array $thumbs): array
    {
        $memory = $this->radio->memory();
        $curve = ThrottleCurve::in($this->set);
        $numbers = [];
        foreach ([Channel::Roll, Channel::Pitch, Channel::Yaw, Channel::Throttle] as $stick) {
            $numbers[] = $this->set->whole("channel.$stick->value.number", $stick->usual()) - 1;
        }
        $controls = $this->radio->controls;
        $out = [];
        $last = null;
        $even = new \Random\Randomizer(new \Random\Engine\Xoshiro256StarStar($this->radio->seed));
        foreach ($thumbs as [$roll, $pitch, $yaw, $output]) {
            [$controls[0], $controls[1], $controls[2], $controls[3]] = [$roll, $pitch, 2 * self::found($curve, $output) - 1, $yaw];
            $us = [1500.0, 1500.0, 1500.0, 1000.0];
            foreach ($numbers as $i => $number) {
                $value = $memory->us($number, $controls);
                if ($this->radio->tremble > 0) {
                    $value += $this->radio->tremble * ($even->getInt(-1000, 1000) + $even->getInt(-1000, 1000)) / 816;
                }
                $us[$i] = round($this->carried($value));
            }
            // A frame that is lost leaves the one before it standing.
            $lost = null !== $last && $this->radio->drops > 0 && $even->getInt(0, 9999) < 1e4 * $this->radio->drops;
            $out[] = $last = $lost ? $last : $us;
        }

        return $out;
    }

    /** @return list<Action> what the levers turn on where they stand */
    public function on(): array
    {
        return SwitchMap::of($this->set, [])->on($this->channels($this->radio->controls));
    }

    /**
     * @param list<float> $controls −1 to 1
     *
     * @return array<int, float> what the board has of all channels, by number from 1, µs
     */
    public function channels(array $controls): array
    {
        $memory = $this->radio->memory();
        $us = [];
        for ($channel = 0; $channel < Model::CHANNELS; ++$channel) {
            $us[$channel + 1] = round($this->carried($memory->us($channel, $controls)));
        }

        return $us;
    }

    /** @return list<float> where the controls of the transmitter stand, −1 to 1 */
    public function controls(): array
    {
        return $this->radio->controls;
    }

    public function kind(): Rill
    {
        return $this->kind;
    }

    /** What the receiver does when its transmitter goes silent. */
    public function manner(): Manner
    {
        return $this->radio->manner ?? $this->kind->manner();
    }

    private function carried(float $us): float
    {
        return match ($this->kind) {
            Rill::C => Crsf::us(Crsf::value($us)),
            Rill::S => Sbus::us(Sbus::value($us)),
            default => $us,
        };
    }

    /** Where a thumb that knows its craft goes for an output, 0 to 1. */
    public function stick(float $output): float
    {
        return self::found(ThrottleCurve::in($this->set), $output);
    }

    /** @return array<int, float> what the receiver sends where it was told what to send without its transmitter, by channel, µs */
    public function presets(): array
    {
        $us = [];
        foreach ($this->radio->presets() as $i => $value) {
            $us[$i + 1] = round($this->carried($value));
        }

        return $us;
    }

    /** Halved until it is near enough. */
    private static function found(ThrottleCurve $curve, float $output): float
    {
        [$low, $high] = [0.0, 1.0];
        // Straight, as most fly: nothing to look for.
        if (abs($curve->output($output) - $output) < 1e-9) {
            return $output;
        }
        for ($i = 0; $i < 20; ++$i) {
            $middle = ($low + $high) / 2;
            $curve->output($middle) < $output ? ($low = $middle) : ($high = $middle);
        }

        return ($low + $high) / 2;
    }
}
