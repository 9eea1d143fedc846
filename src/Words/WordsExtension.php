<?php

declare(strict_types=1);

namespace Ortholex\App\Words;

use Ortholex\Core\Step\Exclusion;
use Twig\Extension\AbstractExtension;
use Twig\TwigFilter;
use Twig\TwigFunction;

/** Words in templates: `fact|words`, `'rear_left'|name`. */
final class WordsExtension extends AbstractExtension
{
    public function __construct(private readonly Words $words)
    {
    }

    public function getFunctions(): array
    {
        return [
            new TwigFunction('exclusion', Exclusion::from(...)),
            new TwigFunction('part_about', $this->words->about(...)),
            new TwigFunction('exclusion_words', $this->exclusionWords(...)),
            new TwigFunction('glossary', $this->words->glossary(...)),
        ];
    }

    /** @return array<string, string> words by code, for the drawing of the windows */
    public function exclusionWords(): array
    {
        $words = [];
        foreach (Exclusion::cases() as $case) {
            $words[$case->value] = $this->words->of($case);
        }

        return $words;
    }

    /** A place on the craft, as it is said. */
    public static function place(string $place): string
    {
        return str_replace('_', ' ', $place);
    }

    /** @param list<string> $places */
    public static function places(array $places, string $last = ' and '): string
    {
        $names = array_map(self::place(...), $places);
        $end = array_pop($names);

        return [] === $names ? (string) $end : implode(', ', $names).$last.$end;
    }

    public function getFilters(): array
    {
        return [
            new TwigFilter('words', $this->words->of(...)),
            // Only the first letter: Twig's own makes “Hz” of a sentence small.
            new TwigFilter('capital', ucfirst(...)),
            new TwigFilter('name', $this->words->name(...)),
            new TwigFilter('label', $this->words->label(...)),
            new TwigFilter('help', $this->words->help(...)),
            new TwigFilter('purpose', $this->words->purpose(...)),
            new TwigFilter('place', self::place(...)),
            new TwigFilter('places', self::places(...)),
        ];
    }
}
