<?php

declare(strict_types=1);

namespace Ortholex\App\Camera;

use Ortholex\Core\Video\PlaceLaw;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Yaml\Exception\ParseException;
use Symfony\Component\Yaml\Yaml;

/** The table of what the law of a place allows: that of this installation, or the one that ships with Ortholex. */
final readonly class PlaceLaws
{
    public const FILE = 'video_law.yaml';

    public function __construct(private string $dataFolder, private string $projectFolder)
    {
    }

    /** Where the table stands that is used. */
    public function path(): string
    {
        $own = "$this->dataFolder/".self::FILE;

        return is_file($own) ? $own : "$this->projectFolder/config/".self::FILE;
    }

    public function text(): string
    {
        return (string) file_get_contents($this->path());
    }

    /**
     * @return array<string, PlaceLaw> by place
     *
     * @throws \InvalidArgumentException with what cannot be read
     */
    public function all(): array
    {
        return self::read($this->text());
    }

    /** @return array<string, PlaceLaw> */
    public static function read(string $text): array
    {
        try {
            return PlaceLaw::table(Yaml::parse($text));
        } catch (ParseException $e) {
            throw new \InvalidArgumentException(
                'The table of places is not YAML, line '.$e->getParsedLine().': '.$e->getMessage(),
                previous: $e,
            );
        }
    }

    /** The place that was said; '' while none was. It is asked, never guessed. */
    public function place(): string
    {
        return trim((string) @file_get_contents($this->placePath()));
    }

    public function choose(string $place): void
    {
        (new Filesystem())->dumpFile($this->placePath(), $place);
    }

    /** Null for a place that is not in the table, or a table that cannot be read. */
    public function of(string $place): ?PlaceLaw
    {
        try {
            return $this->all()[$place] ?? null;
        } catch (\InvalidArgumentException) {
            return null;
        }
    }

    /**
     * Keeps another table; what cannot be read changes nothing.
     *
     * @return array<string, PlaceLaw>
     *
     * @throws \InvalidArgumentException with what cannot be read
     */
    public function write(string $text): array
    {
        $laws = self::read($text);
        (new Filesystem())->dumpFile("$this->dataFolder/".self::FILE, $text);

        return $laws;
    }

    private function placePath(): string
    {
        return "$this->dataFolder/video_place.txt";
    }
}
