<?php

declare(strict_types=1);

namespace Ortholex\Tests\House;

use PhpParser\NodeTraverser;
use PhpParser\NodeVisitor\NameResolver;
use PhpParser\ParserFactory;

/**
 * The measures of the house that no other tool takes: arrows between folders, sizes, and what core must not hold.
 * Run by `bin/test house`, which prints and holds them.
 */
final class House
{
    public const MOST_FILES = 14;
    public const LONGEST_LINE = 140;
    public const MOST_LINES_OF_A_FUNCTION = 60;
    public const MOST_LINES_OF_A_TEMPLATE = 120;
    public const MOST_LONG_FUNCTIONS = 5;

    /** Folders of src that every sheet family may use; all others are families, or stand over all. */
    public const SHARED = [
        'Words',
        'Storage',
        'Shell',
        'Book',
        'Work',
        'Link',
        'Settings',
        'FlightLog',
        'Report',
        'RoadMap',
        'Shelf',
        'Upload',
        'Page',
        'Sticks',
        'Proof',
    ];

    /** @var array<string, array<string, Findings>> by room, then by path from the root */
    private array $read = [];

    private function __construct(private readonly string $root)
    {
    }

    public static function at(string $root): self
    {
        return new self($root);
    }

    /**
     * @param string|null $named how the room is called in namespaces, where not as its folder
     *
     * @return list<string> folders of a room that use each other in a ring, with the files that do it
     */
    public function cycles(string $room, ?string $named = null): array
    {
        $arrows = [];
        foreach ($this->php($room) as $path => $found) {
            $from = explode('/', $path)[1];
            foreach ($found->uses as $class) {
                $parts = explode('\\', $class);
                if (
                    'Ortholex' === $parts[0]
                    && ($named ?? ucfirst($room)) === ($parts[1] ?? '')
                    && \count($parts) > 3
                    && $parts[2] !== $from
                ) {
                    $arrows[$from][$parts[2]][] = basename($path);
                }
            }
        }
        $rings = [];
        foreach ($arrows as $from => $targets) {
            foreach ($targets as $to => $files) {
                if (self::reaches($arrows, $to, $from)) {
                    $rings[] = "$room/$from uses $to, which uses it in turn: ".implode(', ', array_unique($files));
                }
            }
        }

        return $rings;
    }

    /**
     * Sheet families that know each other, or the shared folders that know a family.
     *
     * @param list<string> $shared folders that all families may use
     * @param list<string> $over   folders that stand over all and may use any
     *
     * @return list<string>
     */
    public function familiesThatKnowEachOther(string $room, string $namespace, array $shared, array $over = []): array
    {
        $found = [];
        foreach ($this->php($room) as $path => $file) {
            $from = explode('/', $path)[1];
            foreach ($file->uses as $class) {
                $parts = explode('\\', $class);
                if (!str_starts_with($class, $namespace.'\\') || \in_array($from, $over, true)) {
                    continue;
                }
                $to = $parts[substr_count($namespace, '\\') + 1];
                if ($to !== $from && !\in_array($to, $shared, true)) {
                    $found["$path uses $to"] = "$path uses $to";
                }
            }
        }

        return array_values($found);
    }

    /** @return list<string> folders with more files of their own than can be overlooked */
    public function crowded(string ...$rooms): array
    {
        $crowded = [];
        foreach ($rooms as $room) {
            $counts = array_count_values(array_map(dirname(...), array_keys($this->php($room))));
            foreach ($counts as $folder => $count) {
                if ($count > self::MOST_FILES) {
                    $crowded[] = "$folder has $count files";
                }
            }
        }

        return $crowded;
    }

    /** @return list<string> places of lines that do not fit */
    public function longLines(string ...$rooms): array
    {
        $places = [];
        foreach ($rooms as $room) {
            foreach ($this->files($room, '~\.(php|mjs|js|scss|twig|neon)$~') as $path) {
                foreach (file("$this->root/$path", \FILE_IGNORE_NEW_LINES) ?: [] as $i => $line) {
                    if (mb_strlen($line) > self::LONGEST_LINE) {
                        $places[] = \sprintf('%s:%d has %d characters', $path, $i + 1, mb_strlen($line));
                    }
                }
            }
        }

        return $places;
    }

    /** @return list<string> templates that are no outline any more */
    public function longTemplates(string $room): array
    {
        $long = [];
        foreach ($this->files($room, '~\.twig$~') as $path) {
            $lines = \count(file("$this->root/$path") ?: []);
            if ($lines > self::MOST_LINES_OF_A_TEMPLATE) {
                $long[] = "$path has $lines lines";
            }
        }

        return $long;
    }

    /**
     * Places where a source says what none may say.
     *
     * @return list<string>
     */
    public function said(string $pattern, string $named, string ...$rooms): array
    {
        $places = [];
        foreach ($rooms as $room) {
            foreach ($this->files($room, $named) as $path) {
                foreach (file("$this->root/$path", \FILE_IGNORE_NEW_LINES) ?: [] as $i => $line) {
                    if (1 === preg_match($pattern, $line)) {
                        $places[] = \sprintf('%s:%d %s', $path, $i + 1, trim($line));
                    }
                }
            }
        }

        return $places;
    }

    /** @return array<string, string> reason by function, '' where none is written ("Long because …" in its comment) */
    public function longFunctions(string ...$rooms): array
    {
        $long = [];
        foreach ($rooms as $room) {
            foreach ($this->php($room) as $found) {
                $long += array_filter($found->long, \is_string(...));
            }
        }
        ksort($long);

        return $long;
    }

    /** @return list<string> where a string stands for one of several kinds: constants, unions of literals, and comparisons */
    public function stringKinds(string ...$rooms): array
    {
        return array_merge(
            ...array_map(fn (string $r): array => array_merge(...array_column(array_values($this->php($r)), 'kinds')), $rooms),
        );
    }

    /** @return list<string> sentences in core outside exceptions */
    public function sentences(string $room): array
    {
        return array_merge(...array_column(array_values($this->php($room)), 'sentences'));
    }

    /** @return list<string> numbers of sheets in core */
    public function sheets(string $room): array
    {
        return array_merge(...array_column(array_values($this->php($room)), 'sheets'));
    }

    /** @return array<string, Findings> by path from the root */
    private function php(string $room): array
    {
        if (!isset($this->read[$room])) {
            $parser = (new ParserFactory())->createForHostVersion();
            $all = [];
            foreach ($this->files($room, '~\.php$~') as $path) {
                $findings = new Findings($path);
                $traverser = new NodeTraverser(new NameResolver(), $findings);
                $traverser->traverse($parser->parse((string) file_get_contents("$this->root/$path")) ?? []);
                $all[$path] = $findings;
            }
            $this->read[$room] = $all;
        }

        return $this->read[$room];
    }

    /** @return list<string> */
    private function files(string $room, string $named): array
    {
        $files = [];
        $tree = new \RecursiveDirectoryIterator("$this->root/$room", \FilesystemIterator::SKIP_DOTS);
        foreach (new \RecursiveIteratorIterator($tree) as $file) {
            if ($file instanceof \SplFileInfo && 1 === preg_match($named, $file->getFilename())) {
                $files[] = substr($file->getPathname(), \strlen($this->root) + 1);
            }
        }
        sort($files);

        return $files;
    }

    /** @param array<string, array<string, list<string>>> $arrows */
    private static function reaches(array $arrows, string $from, string $to): bool
    {
        $seen = [];
        $open = [$from];
        while ([] !== $open) {
            $at = array_pop($open);
            if ($at === $to) {
                return true;
            }
            if (!isset($seen[$at])) {
                $seen[$at] = true;
                array_push($open, ...array_keys($arrows[$at] ?? []));
            }
        }

        return false;
    }
}
