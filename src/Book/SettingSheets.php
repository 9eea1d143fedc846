<?php

declare(strict_types=1);

namespace Ortholex\App\Book;

/** Which sheet a setting is changed on: the one table of it. */
final readonly class SettingSheets
{
    /** First word of a name => sheet; what is not here stands among all settings. */
    private const SHEETS = [
        'uart' => '13',
        'motors' => '15',
        'esc' => '16',
        'gain' => '61',
        'rate_path' => '62',
        'd_path' => '62',
        'notch' => '62',
        'command_low_pass' => '62',
        'filter' => '62',
    ];

    private const ALL_SETTINGS = '71';

    public static function of(string $setting): string
    {
        return self::SHEETS[strstr($setting, '.', true)] ?? self::ALL_SETTINGS;
    }
}
