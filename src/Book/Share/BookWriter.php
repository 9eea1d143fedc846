<?php

declare(strict_types=1);

namespace Ortholex\App\Book\Share;

use Symfony\Component\Yaml\Yaml;

/** Writes a book: a zip of YAML and CSV, with a manifest of hashes. The same book gives the same bytes. */
final class BookWriter
{
    public const FORMAT = 'ortholex-book';
    public const VERSION = 1;

    /** Zip knows the time from 1980 on; ours are all of one moment, so that nothing tells when it was packed. */
    private const TIME = 315_532_800;

    /** How deep a map is written over several lines. */
    private const DEPTH = 4;

    /** @var array<string, array{sha256: string, bytes: int}> */
    private array $files = [];

    /** @var list<string> laid down until it is closed */
    private array $laid = [];

    private readonly \ZipArchive $zip;

    /** @throws BookError where no file can be written */
    public function __construct(private readonly string $path, public readonly ShareChoice $choice)
    {
        $this->zip = new \ZipArchive();
        if (true !== $this->zip->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE)) {
            throw BookError::of("No book can be written to $path. Check the permissions of its folder, and whether the disk is full.");
        }
    }

    /** @param array<mixed> $data */
    public function yaml(string $name, array $data): void
    {
        $this->text($name, Yaml::dump($data, self::DEPTH, 2, Yaml::DUMP_EMPTY_ARRAY_AS_SEQUENCE));
    }

    public function text(string $name, string $text): void
    {
        $this->zip->addFromString($name, $text);
        $this->put($name, hash('sha256', $text), \strlen($text));
    }

    /**
     * A file that is too large to be held.
     *
     * @param \Closure(resource): void $write
     */
    public function stream(string $name, \Closure $write): void
    {
        $path = "$this->path.".\count($this->files);
        $stream = @fopen($path, 'w') ?: throw BookError::of("$path cannot be written: the disk may be full.");
        $this->laid[] = $path;
        // A write that falls short is only warned of; half a log must not go out as a whole one.
        set_error_handler(static fn (int $level, string $why): never => throw BookError::of("$path could not be written: $why"));
        try {
            $write($stream);
        } finally {
            restore_error_handler();
            fclose($stream);
        }
        $this->zip->addFile($path, $name);
        $this->put($name, (string) hash_file('sha256', $path), (int) filesize($path));
    }

    /**
     * @param array<string, mixed> $about the craft
     *
     * @throws BookError when it could not be kept
     */
    public function close(array $about): void
    {
        $manifest = [
            'format' => self::FORMAT,
            'version' => self::VERSION,
            'craft' => $about,
            'left_out' => $this->choice->leftOut(),
            'files' => $this->files,
        ];
        $this->zip->addFromString('manifest.json', json_encode(
            $manifest,
            \JSON_PRETTY_PRINT | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_PRESERVE_ZERO_FRACTION | \JSON_THROW_ON_ERROR,
        )."\n");
        $this->zip->setMtimeName('manifest.json', self::TIME);
        $done = @$this->zip->close();
        $this->removeLaid();
        if (!$done) {
            @unlink($this->path);
            throw BookError::of("The book could not be written to $this->path: the disk may be full.");
        }
    }

    /** Nothing of it is left. */
    public function discard(): void
    {
        $this->zip->unchangeAll();
        @$this->zip->close();
        $this->removeLaid();
        @unlink($this->path);
    }

    private function removeLaid(): void
    {
        foreach ($this->laid as $path) {
            @unlink($path);
        }
        $this->laid = [];
    }

    private function put(string $name, string $sha256, int $bytes): void
    {
        $this->zip->setMtimeName($name, self::TIME);
        $this->files[$name] = ['sha256' => $sha256, 'bytes' => $bytes];
    }
}
