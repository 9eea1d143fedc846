<?php

declare(strict_types=1);

namespace Ortholex\App\Settings;

use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Airframe\AirframeError;
use Ortholex\Core\Craft\Place;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;

/** The airframe as the craft's settings describe it; as it was built, while no settings are known. */
final readonly class Airframes
{
    public function __construct(
        private Benches $benches,
        private CurrentNames $names,
        private Staging $staging,
        private Catalogue $catalogue,
    ) {
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

    /** @return array<int, string> places that outputs are set to drive and the frame has not, by output; no craft flies so */
    public function unfounded(Craft $craft): array
    {
        $frame = $this->of($craft);

        return array_filter(
            $craft->settings->drives(),
            static fn (string $place): bool => null !== Place::tryFrom($place) && null === $frame->at($place),
        );
    }

    private function under(Craft $craft, SettingSet $settings): ?Airframe
    {
        if ($settings->isEmpty()) {
            return null;
        }
        try {
            return Airframe::of($this->names->of($craft, $settings));
        } catch (AirframeError) {
            // Said where the arms are drawn, by the check of the staged settings.
            return null;
        }
    }

    private function built(Craft $craft): Airframe
    {
        return $this->benches->of($craft)->frame() ?? Airframe::of($this->catalogue->defaults(Version::parse(Catalogue::CURRENT)));
    }
}
