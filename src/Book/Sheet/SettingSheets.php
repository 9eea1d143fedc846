<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Sheet;

use Symfony\Component\Routing\Generator\UrlGeneratorInterface;

/** Which sheet a setting is changed on, as the sheets say themselves. */
final readonly class SettingSheets
{
    /** Where all settings stand, and those that no other sheet claims. */
    private const ALL_SETTINGS = '71';

    public function __construct(private Sheets $sheets, private UrlGeneratorInterface $urls)
    {
    }

    public function of(string $setting): Sheet
    {
        $word = strstr($setting, '.', true);
        foreach ($this->sheets->all() as $sheet) {
            if ($sheet->built && \in_array($word, $sheet->settings, true)) {
                return $sheet;
            }
        }

        return $this->sheets->numbered(self::ALL_SETTINGS);
    }

    /** The address that opens the sheet at this setting. */
    public function address(string $slug, string $setting): string
    {
        return $this->urls->generate($this->of($setting)->route, ['slug' => $slug, 'setting' => $setting]);
    }
}
