<?php

declare(strict_types=1);

namespace Ortholex\Core\Settings;

use Ortholex\Core\Craft\SettingSet;

/** One setting that stands otherwise in a book than on its craft. */
final readonly class Difference
{
    public function __construct(
        public string $name,
        public float|int|bool|string $book,
        public float|int|bool|string $craft,
    ) {
    }

    /**
     * Of what both have: what only one of them has came or went with the firmware or an ESC.
     *
     * @return list<self> in the book's order
     */
    public static function between(SettingSet $book, SettingSet $craft): array
    {
        $out = [];
        foreach ($book->among($craft) as $name => $value) {
            if (!Setting::same($value, $craft[$name])) {
                $out[] = new self($name, $value, $craft[$name]);
            }
        }

        return $out;
    }
}
