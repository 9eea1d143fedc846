<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Sheet;

/** One numbered sheet of a craft's book. */
final readonly class Sheet
{
    /**
     * @param string       $number   two digits, the first its part's
     * @param string       $will     what stands on it, or will stand on it once built
     * @param string       $route    of its page; takes the craft's slug
     * @param list<string> $settings first words of the names of settings that are changed on it
     */
    public function __construct(
        public string $number,
        public string $name,
        public string $will,
        public string $route,
        public array $settings = [],
        public bool $built = true,
    ) {
    }

    public function part(): Part
    {
        return Part::from($this->number[0]);
    }
}
