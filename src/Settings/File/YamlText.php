<?php

declare(strict_types=1);

namespace Ortholex\App\Settings\File;

use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Firmware\Version;
use Symfony\Component\Yaml\Exception\ParseException;
use Symfony\Component\Yaml\Yaml;

/**
 * Settings as a person writes them: a YAML mapping, one setting a line. Each line is read by itself, so that a fault has its line and
 * column, and the lines after it are read all the same.
 */
final readonly class YamlText
{
    /**
     * @param array<string, mixed> $values   by name
     * @param array<string, int>   $lines    by name, from 1
     * @param list<string>         $problems each with line and column
     * @param Version|null         $release  of Loam that the head names
     */
    private function __construct(public array $values, public array $lines, public array $problems, public ?Version $release)
    {
    }

    /** What a craft was last read to hold, as a file that can be read again. */
    public static function ofCraft(Craft $craft): string
    {
        return self::write($craft->name, $craft->board ?? '', $craft->version ?? '', $craft->revision, $craft->settings);
    }

    /** With a head that names the release of Loam, as its settings are named by that. */
    public static function write(string $craft, string $board, string $release, int $revision, SettingSet $settings): string
    {
        return "# $craft, $board, Loam $release, revision $revision\n".Yaml::dump($settings->toArray());
    }

    public static function read(string $text): self
    {
        $values = $lines = $problems = [];
        $text = str_replace(["\r\n", "\r"], "\n", (string) preg_replace('~^\xEF\xBB\xBF~', '', $text));
        $release = 1 === preg_match('~^#.*\bLoam (\d\d\.\d\d\S*?)(?:,|\s|$)~', $text, $m) ? self::release($m[1]) : null;
        foreach (explode("\n", $text) as $i => $line) {
            $n = $i + 1;
            $line = rtrim($line);
            if ('' === $line || 1 === preg_match('~^\s*(#|---$|\.\.\.$)~', $line)) {
                continue;
            }
            $fault = self::fault($line);
            if (null !== $fault) {
                $problems[] = "Line $n, column $fault[0]: $fault[1].";
                continue;
            }
            preg_match('~^\s*["\']?([^\s:"\']+)["\']?\s*:\s*(.*)$~', $line, $m);
            [, $name, $written] = $m + ['', '', ''];
            $at = mb_strlen($line) - mb_strlen($written) + 1;
            if (isset($lines[$name])) {
                $problems[] = "Line $n, column 1: $name stands in line $lines[$name] already.";
                continue;
            }
            try {
                $parsed = Yaml::parse("value: $written");
                $value = \is_array($parsed) ? $parsed['value'] ?? null : null;
            } catch (ParseException) {
                $problems[] = "Line $n, column $at: ".self::unreadable($written).'.';
                continue;
            }
            if (null === $value) {
                $problems[] = "Line $n, column $at: $name has no value.";
                continue;
            }
            $values[$name] = $value;
            $lines[$name] = $n;
        }

        return new self($values, $lines, $problems, $release);
    }

    /** @return array{int, string}|null column and what is wrong there, of a line that is no setting with its value */
    private static function fault(string $line): ?array
    {
        $tab = strpos($line, "\t");
        if (false !== $tab && '' === trim(substr($line, 0, $tab))) {
            return [$tab + 1, 'a tab stands before the name; YAML wants spaces, or nothing'];
        }
        if (1 === preg_match('~^\s*-\s~', $line)) {
            return [1, 'this is an item of a list; each line should be a setting, a colon and a value'];
        }
        $colon = mb_strpos($line, ':');
        if (false === $colon) {
            return [mb_strlen($line) + 1, 'the colon after the name of the setting is missing'];
        }
        if (1 !== preg_match('~^\s*["\']?[\w.*]+["\']?\s*$~', mb_substr($line, 0, $colon))) {
            return [1, 'the name of one setting should stand before the colon'];
        }
        $after = mb_substr($line, $colon + 1, 1);

        return '' !== $after && ' ' !== $after && "\t" !== $after ? [$colon + 2, 'a space is missing after the colon'] : null;
    }

    private static function unreadable(string $written): string
    {
        return match (true) {
            str_starts_with($written, '[') => 'the list is not closed as it should be',
            str_starts_with($written, '{') => 'the mapping is not closed as it should be',
            str_starts_with($written, '"'), str_starts_with($written, "'") => 'the quotation mark is not closed',
            default => 'the value cannot be read; put it into quotation marks',
        };
    }

    private static function release(string $written): ?Version
    {
        try {
            return Version::parse($written);
        } catch (\Throwable) {
            return null;
        }
    }
}
