<?php

declare(strict_types=1);

namespace Ortholex\Bench\Esc;

/** What one ESC's processor and memory hold; survives everything that its real one would. */
final class EscState
{
    public const OFF = 'off';
    public const FIRMWARE = 'firmware';
    public const BOOTLOADER = 'bootloader';
    public const DEAD = 'dead';

    public string $mode = self::OFF;
    public string $family = '';
    public string $version = '';
    public int $switchingKhz = 0;
    public string $keptFamily = '';

    /** @var array<string, float|int|bool|string> by key */
    public array $settings = [];

    /** End points it was taught for analogue signals, µs; from the factory they are rough. */
    public float $lowUs = 1060.0;

    public float $highUs = 1860.0;

    /** '' when it is not being taught; 'high' once it took the upper end. */
    public string $teaching = '';

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'mode' => $this->mode,
            'family' => $this->family,
            'version' => $this->version,
            'switchingKhz' => $this->switchingKhz,
            'keptFamily' => $this->keptFamily,
            'settings' => $this->settings,
            'lowUs' => $this->lowUs,
            'highUs' => $this->highUs,
            'teaching' => $this->teaching,
        ];
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

        return $state;
    }
}
