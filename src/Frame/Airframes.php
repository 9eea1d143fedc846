<?php

declare(strict_types=1);

namespace Ortholex\App\Frame;

use Ortholex\App\Craft\Craft;
use Ortholex\App\Craft\Worlds;
use Ortholex\App\Record\Staging;
use Ortholex\App\Tune\Chains;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\AirframeError;
use Ortholex\Core\Craft\SettingSet;

/** The airframe as the craft's settings describe it; as it was built, while no settings are known. */
final readonly class Airframes
{
    public function __construct(private Worlds $worlds, private Chains $chains, private Staging $staging)
    {
    }

    public function of(Craft $craft): Airframe
    {
        return $this->under($craft, $craft->settings) ?? $this->built($craft);
    }

    /** With what is staged; null when the staged arms make no frame. */
    public function staged(Craft $craft): ?Airframe
    {
        return $craft->settings->isEmpty() ? $this->built($craft) : $this->under($craft, $this->staging->preview($craft));
    }

    private function under(Craft $craft, SettingSet $settings): ?Airframe
    {
        if ($settings->isEmpty()) {
            return null;
        }
        try {
            return Airframe::of($this->chains->current($craft, $settings));
        } catch (AirframeError) {
            // Said where the arms are drawn, by the check of the staged settings.
            return null;
        }
    }

    private function built(Craft $craft): Airframe
    {
        return $this->worlds->of($craft)->physics->frame;
    }
}
