<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\File;

use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Migration\Migration;
use Ortholex\Core\Settings\SettingError;

/** Settings in a YAML file on disk, as the command line takes them: checked, and under current names. */
final readonly class SettingsFile
{
    private const MOST_BYTES = 1_000_000;

    public function __construct(private Catalogue $catalogue, private Words $words)
    {
    }

    /**
     * @param string|null $called what the file is called, where that is not its path
     *
     * @throws SettingsFileError that says what, in which file and line
     */
    public function read(string $path, ?string $called = null): SettingSet
    {
        $called ??= $path;
        $size = is_file($path) && is_readable($path) ? filesize($path) : false;
        if (false === $size) {
            throw SettingsFileError::of("$called is no file that can be read.");
        }
        if ($size > self::MOST_BYTES) {
            throw SettingsFileError::of("$called is larger than any file of settings: it has more than a megabyte.");
        }

        return $this->text((string) file_get_contents($path), $called);
    }

    /**
     * The same of a text.
     *
     * @throws SettingsFileError
     */
    public function text(string $yaml, string $called): SettingSet
    {
        $text = YamlText::read($yaml);
        if ([] !== $text->problems) {
            throw SettingsFileError::of("$called: ".implode("\n$called: ", $text->problems));
        }
        $current = Version::parse(Catalogue::CURRENT);
        $from = $text->release ?? $current;
        $values = [];
        foreach ($text->values as $name => $given) {
            try {
                // What belongs to an ESC is no matter of the board's, and stays as it is.
                $isEsc = str_starts_with($name, 'esc.') && (\is_string($given) || \is_int($given) || \is_float($given) || \is_bool($given));
                $values[$name] = $isEsc ? $given : $this->catalogue->get($name, $from)->check($given, $from);
            } catch (SettingError $e) {
                throw SettingsFileError::of("$called, line {$text->lines[$name]}: ".$this->words->ofProblem($e));
            }
        }
        $set = SettingSet::of($values);

        return Migration::carried($this->catalogue, $set, $from, $current);
    }
}
