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
        return $this->urls->generate(
            $this->sheets->numbered($number)->route,
            ['slug' => $slug] + array_filter($query, static fn (mixed $v): bool => null !== $v),
        );
    }
}
