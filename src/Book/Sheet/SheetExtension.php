<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Sheet;

use Symfony\Component\Routing\Generator\UrlGeneratorInterface;
use Twig\Extension\AbstractExtension;
use Twig\TwigFunction;

/** Lets templates lead to a sheet by its number, and to where a setting is changed. */
final class SheetExtension extends AbstractExtension
{
    public function __construct(
        private readonly SettingSheets $settings,
        private readonly Sheets $sheets,
        private readonly UrlGeneratorInterface $urls,
    ) {
    }

    public function getFunctions(): array
    {
        return [new TwigFunction('setting_address', $this->settings->address(...)), new TwigFunction('sheet_address', $this->address(...))];
    }

    /** @param array<string, mixed> $query */
    public function address(string $slug, string $number, array $query = []): string
    {
        $sheet = $this->sheets->numbered($number);
        // One that is still planned stands with others on one route, and is told by its number.
        $place = ['slug' => $slug] + ($sheet->built ? [] : ['sheet' => $number]);

        return $this->urls->generate($sheet->route, $place + array_filter($query, static fn (mixed $v): bool => null !== $v));
    }
}
