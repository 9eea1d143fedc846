<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Ortholex\App\Book\SettingSheets;
use Ortholex\Bench\World\World;
use Ortholex\Core\Settings\Setting;
use Twig\Extension\AbstractExtension;
use Twig\TwigFilter;
use Twig\TwigFunction;

/** The few helpers that templates need: built file names, and values as text. */
final class ShellExtension extends AbstractExtension
{
    /** @var array<string, string>|null */
    private ?array $manifest = null;

    public function __construct(private readonly string $projectFolder)
    {
    }

    public function getFunctions(): array
    {
        return [
            new TwigFunction('built', $this->built(...)),
            new TwigFunction('bench_faults', static fn (): array => World::FAULTS),
            new TwigFunction('bench_mishaps', static fn (): array => World::MISHAPS),
            new TwigFunction('parts', static fn (): array => Sheets::PARTS),
            new TwigFunction('sheet_of_setting', SettingSheets::of(...)),
            new TwigFunction('first_sheet', static fn (string $part): string => "{$part}1"),
        ];
    }

    public function getFilters(): array
    {
        return [new TwigFilter('value', $this->value(...)), new TwigFilter('plain', $this->plain(...))];
    }

    public function built(string $name): string
    {
        if (null === $this->manifest) {
            $data = json_decode((string) @file_get_contents("$this->projectFolder/public/build/manifest.json"), true);
            $this->manifest = [];
            foreach (\is_array($data) ? $data : [] as $key => $path) {
                $this->manifest[(string) $key] = \is_string($path) ? $path : '';
            }
        }

        return '/build/'.($this->manifest[$name] ?? $name);
    }

    /** A setting's value as it is shown: digits of its step, words for switches and choices. */
    public function value(mixed $value, Setting $setting): string
    {
        return match (true) {
            \is_bool($value) => $value ? 'on' : 'off',
            \is_int($value), \is_float($value) => number_format((float) $value, $setting->digits(), '.', "\u{2009}"),
            '' === $value => 'none',
            default => str_replace('_', ' ', \is_scalar($value) ? (string) $value : '?'),
        };
    }

    /** Any scalar, shortest sensible form. */
    public function plain(mixed $value): string
    {
        return match (true) {
            \is_bool($value) => $value ? 'on' : 'off',
            \is_float($value) => rtrim(rtrim(number_format($value, 3, '.', ''), '0'), '.'),
            '' === $value => 'none',
            null === $value => '–',
            default => \is_scalar($value) ? (string) $value : '?',
        };
    }
}
