<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Share;

use Ortholex\App\Storage\PassingFile;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\Fact\StoredDataUnreadable;
use Symfony\Component\Yaml\Exception\ParseException;
use Symfony\Component\Yaml\Yaml;

/**
 * Reads a book that anybody may have made: nothing in it decides where a file comes to lie, how much is unpacked, or what is built.
 *
 * Each file is measured as it is unpacked, and held against the manifest; one that fails is left out, with its reason.
 */
final class BookReader
{
    private const MOST_FILES = 3000;
    private const MOST_MANIFEST = 2_000_000;
    private const MOST_TEXT = 4_000_000;

    /** A year of flights unpacks to less. */
    private const MOST_BYTES = 4_000_000_000;

    private const MOST_LOG = 1_000_000_000;
    private const NAME = '~^(?:manifest\.json|(?:[a-z]+/)?[A-Za-z0-9][A-Za-z0-9-]{0,40}\.(?:yaml|csv|geojson))$~';
    private const QUOTED = '~"(?:[^"\\\\]|\\\\.)*"|\'(?:[^\']|\'\')*\'~';
    private const PIECE = 65_536;

    /** @var array<string, string> what was left out, and why, by file */
    public array $left = [];

    /** @var array<string, int> what was read, and how much of it, in words of its family */
    public array $taken = [];

    /** @var \Closure(float, string): void|null told how far the reading is, 0 to 1, and with what */
    public ?\Closure $tells = null;

    private int $bytes = 0;

    /**
     * @param array<string, array{sha256: string, bytes: int}> $files of the manifest that are there
     * @param array<string, mixed>                             $about the craft
     * @param list<string>                                     $without what was left out when it was made
     */
    private function __construct(
        private readonly \ZipArchive $zip,
        private readonly array $files,
        public readonly array $about,
        public readonly array $without,
    ) {
    }

    /**
     * @throws BookError when it is no book, or one of a version to come
     */
    public static function open(string $path): self
    {
        $zip = new \ZipArchive();
        if (true !== @$zip->open($path, \ZipArchive::RDONLY | \ZipArchive::CHECKCONS)) {
            throw BookError::of('This is not a whole zip file, so it is not a book. Was it cut short on the way? Copy it again.');
        }
        if ($zip->numFiles > self::MOST_FILES) {
            throw BookError::of(\sprintf('It holds %d files; no book holds more than %d.', $zip->numFiles, self::MOST_FILES));
        }
        $there = [];
        for ($i = 0; $i < $zip->numFiles; ++$i) {
            $name = (string) $zip->getNameIndex($i);
            $there[$name] = 1 + ($there[$name] ?? 0);
        }
        $manifest = self::manifest($zip);
        if (BookWriter::FORMAT !== ($manifest['format'] ?? null)) {
            throw BookError::of('Its manifest does not say that it is a book of Ortholex.');
        }
        if (BookWriter::VERSION !== ($manifest['version'] ?? null)) {
            throw BookError::of('It was made by another version of Ortholex, whose books this one cannot read.');
        }
        $files = $left = [];
        $listed = \is_array($manifest['files'] ?? null) ? $manifest['files'] : [];
        foreach ($listed as $name => $of) {
            $name = (string) $name;
            $hash = \is_array($of) && \is_string($of['sha256'] ?? null) ? $of['sha256'] : '';
            $bytes = \is_array($of) && \is_int($of['bytes'] ?? null) ? $of['bytes'] : -1;
            $why = match (true) {
                1 !== preg_match(self::NAME, $name) => 'no file of a book has this name',
                1 !== preg_match('~^[0-9a-f]{64}$~', $hash) || $bytes < 0 => 'the manifest gives no hash and length of it',
                1 !== ($there[$name] ?? 0) => isset($there[$name]) ? 'it is there more than once' : 'it is not there',
                default => null,
            };
            null === $why ? ($files[$name] = ['sha256' => $hash, 'bytes' => $bytes]) : ($left[self::printable($name)] = $why);
        }
        foreach (array_keys(array_diff_key($there, $listed, ['manifest.json' => 1])) as $name) {
            $left[self::printable((string) $name)] = 'the manifest does not name it';
        }
        $about = \is_array($manifest['craft'] ?? null) ? $manifest['craft'] : [];
        $without = \is_array($manifest['left_out'] ?? null) ? array_values(array_filter($manifest['left_out'], \is_string(...))) : [];
        $named = [];
        foreach ($about as $key => $value) {
            $named[(string) $key] = $value;
        }
        $reader = new self($zip, $files, $named, $without);
        $reader->left = $left;

        return $reader;
    }

    public function tell(float $share, string $doing): void
    {
        null === $this->tells || ($this->tells)($share, $doing);
    }

    /** @return list<string> names of the files under a folder, "" for those in none, in order */
    public function names(string $folder): array
    {
        $begin = '' === $folder ? '' : "$folder/";
        $names = array_filter(
            array_map(strval(...), array_keys($this->files)),
            static fn (string $n): bool => str_starts_with($n, $begin) && !str_contains(substr($n, \strlen($begin)), '/'),
        );
        sort($names);

        return $names;
    }

    public function has(string $name): bool
    {
        return isset($this->files[$name]);
    }

    /** Null where it is not there or not sound; why is told then. */
    public function text(string $name): ?string
    {
        if (!isset($this->files[$name])) {
            return null;
        }
        $text = '';
        $sound = $this->unpacked($name, self::MOST_TEXT, static function (string $piece) use (&$text): void {
            $text .= $piece;
        });
        if ($sound && !mb_check_encoding($text, 'UTF-8')) {
            return $this->refuse($name, 'it is not readable text: it must be UTF-8');
        }

        return $sound ? $text : null;
    }

    /** The map that a YAML file holds; null where it is not there or not sound; why is told then. */
    public function yaml(string $name): ?Stored
    {
        $text = $this->text($name);
        if (null === $text) {
            return null;
        }
        // Ours have none of these; a few lines of them can stand for gigabytes.
        $unquoted = (string) preg_replace(self::QUOTED, '', $text);
        if (1 === preg_match('~(?:^|[\s\[{,:-])[&*!][A-Za-z0-9_!<]~m', $unquoted)) {
            return $this->refuse($name, 'it has anchors, aliases or tags, which no book has');
        }
        try {
            $data = Yaml::parse($text);
        } catch (ParseException $e) {
            return $this->refuse($name, 'line '.max(1, $e->getParsedLine()).' cannot be read');
        }

        return \is_array($data) ? Stored::of($data) : $this->refuse($name, 'it holds no map');
    }

    /** Path of a file with what it holds, to be removed by who asks; null where it is not there or not sound; why is told then. */
    public function file(string $name): ?string
    {
        if (!isset($this->files[$name])) {
            return null;
        }
        $path = PassingFile::named('book');
        $stream = @fopen($path, 'w');
        if (false === $stream) {
            throw BookError::of("Nothing can be written to $path: the disk may be full.");
        }
        $sound = $this->unpacked($name, self::MOST_LOG, static function (string $piece) use ($stream, $path): void {
            if (\strlen($piece) !== fwrite($stream, $piece)) {
                throw BookError::of("$path could not be written: the disk may be full.");
            }
        });
        fclose($stream);
        if ($sound) {
            return $path;
        }
        unlink($path);

        return null;
    }

    /**
     * What a file holds, read by its family; what it cannot be is told.
     *
     * @template T
     *
     * @param \Closure(): T $read
     *
     * @return T|null
     */
    public function reading(string $name, \Closure $read): mixed
    {
        try {
            return $read();
        } catch (StoredDataUnreadable|\InvalidArgumentException|\TypeError|\ValueError $e) {
            return $this->refuse($name, $e instanceof \TypeError ? 'a value in it is of the wrong kind' : $e->getMessage());
        }
    }

    /** @return null so that who refuses has nothing to give */
    public function refuse(string $name, string $why): null
    {
        $this->left[self::printable($name)] = $why;

        return null;
    }

    public function took(string $what, int $number = 1): void
    {
        $this->taken[$what] = $number + ($this->taken[$what] ?? 0);
    }

    /** @param \Closure(string): void $take */
    private function unpacked(string $name, int $most, \Closure $take): bool
    {
        ['sha256' => $wanted, 'bytes' => $bytes] = $this->files[$name];
        if ($bytes > $most || $this->bytes + $bytes > self::MOST_BYTES) {
            $this->refuse($name, 'it is longer than anything in a book may be');

            return false;
        }
        $stream = $this->zip->getStream($name);
        $hash = hash_init('sha256');
        $read = 0;
        while (false !== $stream && !feof($stream) && $read <= $bytes) {
            $piece = @fread($stream, self::PIECE);
            if (false === $piece) {
                break;
            }
            $read += \strlen($piece);
            if ($read <= $bytes) {
                hash_update($hash, $piece);
                $take($piece);
            }
        }
        if (false !== $stream) {
            fclose($stream);
        }
        $this->bytes += $read;
        if ($read !== $bytes || !hash_equals($wanted, hash_final($hash))) {
            $this->refuse($name, 'it is not what its manifest says: it was changed or damaged');

            return false;
        }

        return true;
    }

    /**
     * @return array<mixed>
     *
     * @throws BookError
     */
    private static function manifest(\ZipArchive $zip): array
    {
        $stream = $zip->getStream('manifest.json');
        $text = false === $stream ? '' : (string) @stream_get_contents($stream, self::MOST_MANIFEST + 1);
        if ('' === $text || \strlen($text) > self::MOST_MANIFEST) {
            throw BookError::of('It holds no manifest.json, so it is not a book of Ortholex.');
        }
        $data = json_decode($text, true, 8);

        return \is_array($data) ? $data : throw BookError::of('Its manifest.json cannot be read.');
    }

    private static function printable(string $name): string
    {
        return mb_substr((string) preg_replace('~[^\x20-\x7E]~', '?', $name), 0, 80);
    }
}
