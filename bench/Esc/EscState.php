<?php

declare(strict_types=1);

namespace Ortholex\Bench\Esc;

use Ortholex\Bench\Power\Mode;
use Ortholex\Core\Esc\EndPoint;
use Ortholex\Core\Settings\Migration\FormerNames;

/** What one ESC's processor and memory hold; survives everything that its real one would. */
final class EscState
{
    public Mode $mode = Mode::Off;
    public string $family = '';
    public string $version = '';
    public int $switchingKhz = 0;
    public string $keptFamily = '';

    /** @var array<string, float|int|bool|string> by key */
    public array $settings = [];

    /** It is being taught, and took the upper end. */
    public bool $tookUpperEnd = false;

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'mode' => $this->mode->value,
            'family' => $this->family,
            'version' => $this->version,
            'switchingKhz' => $this->switchingKhz,
            'keptFamily' => $this->keptFamily,
            'settings' => $this->settings,
            'tookUpperEnd' => $this->tookUpperEnd,
        ];
    }

    /** From before ESCs got the names and figures of now. */
    public static function fromFormer(mixed $data): self
    {
        $state = self::fromMixed($data);
        $state->switchingKhz = FirstClocks::khz($state->switchingKhz);
        $state->settings = FormerNames::carry($state->settings);

        return $state;
    }

    public static function fromMixed(mixed $data): self
    {
        $state = new self();
        foreach (get_object_vars($state) as $name => $value) {
            $given = \is_array($data) ? $data[$name] ?? null : null;
            if (get_debug_type($given) === get_debug_type($value)) {
                $state->{$name} = $given;
            }
        }
        // End points that were not settings yet.
        foreach ([EndPoint::Low->value => 'lowUs', EndPoint::High->value => 'highUs'] as $key => $former) {
            $given = \is_array($data) ? $data[$former] ?? null : null;
            if (\is_float($given)) {
                $state->settings[$key] ??= $given;
            }
        }
        $mode = \is_array($data) ? $data['mode'] ?? null : null;
        $state->mode = Mode::tryFrom(\is_string($mode) ? $mode : '') ?? Mode::Off;

        return $state;
    }
}
