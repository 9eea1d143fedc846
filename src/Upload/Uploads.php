<?php

declare(strict_types=1);

namespace Ortholex\App\Upload;

use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Storage\NotWritable;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;

/** Files from disk, taken in piece by piece so that none is ever held whole in memory. */
final readonly class Uploads
{
    public const PIECE_BYTES = 4_194_304;

    public function __construct(private string $dataFolder, private int $mostUploadMb)
    {
    }

    /** @throws BadRequest when it is too large */
    public function begin(int $bytes): string
    {
        if ($bytes > $this->mostUploadMb * 1_000_000) {
            throw BadRequest::at(
                'file',
                \sprintf(
                    'The file has %.0f MB; at most %d MB are taken. Set ORTHOLEX_MOST_UPLOAD_MB to allow more.',
                    $bytes / 1e6,
                    $this->mostUploadMb,
                ),
            );
        }
        if ($bytes < 1) {
            throw BadRequest::at('file', 'The file is empty.');
        }
        $folder = "$this->dataFolder/uploads";
        if ((!is_dir($folder) && !@mkdir($folder, recursive: true)) || !is_writable($folder)) {
            throw NotWritable::folder($folder);
        }
        foreach (glob("$folder/*") ?: [] as $old) {
            if (filemtime($old) < time() - 86400) {
                unlink($old);
            }
        }
        $id = bin2hex(random_bytes(16));
        file_put_contents("$folder/$id", '');

        return $id;
    }

    /**
     * Adds a piece at its place; a piece sent twice is harmless.
     *
     * @param resource $stream
     *
     * @throws BadRequest
     */
    public function add(string $id, int $offset, $stream): int
    {
        $path = $this->path($id);
        clearstatcache(true, $path);
        if ($offset > filesize($path)) {
            throw BadRequest::at('offset', 'A piece before this one is missing. Send the file again.');
        }
        if ($offset + self::PIECE_BYTES > $this->mostUploadMb * 1_000_000 + self::PIECE_BYTES) {
            throw BadRequest::at('file', "More than $this->mostUploadMb MB are not taken.");
        }
        $file = fopen($path, 'c+b') ?: throw BadRequest::at('file', 'The upload could not be kept. Is the disk full?');
        fseek($file, $offset);
        $written = 0;
        $kept = true;
        while ($kept && $written <= self::PIECE_BYTES && '' !== ($bytes = (string) fread($stream, 65_536))) {
            $kept = @fwrite($file, $bytes) === \strlen($bytes);
            $written += \strlen($bytes);
        }
        $kept = @fflush($file) && $kept;
        fclose($file);
        if (!$kept) {
            throw BadRequest::at('file', "The upload was not kept: the disk is full in $this->dataFolder. Make room, send it again.");
        }
        if ($written > self::PIECE_BYTES) {
            throw BadRequest::at('file', \sprintf('A piece may have at most %d bytes.', self::PIECE_BYTES));
        }

        return $offset + $written;
    }

    /**
     * An upload that a form names, or the file that a form without scripts carries itself.
     *
     * @throws BadRequest when there is neither
     */
    public function ofForm(Request $request, string $field): string
    {
        $file = $request->files->get($field);
        if (!$file instanceof UploadedFile) {
            return Input::of($request)->text($field);
        }
        if (!$file->isValid()) {
            throw BadRequest::at('file', 'The file did not arrive: '.$file->getErrorMessage());
        }
        $id = $this->begin((int) $file->getSize());
        $file->move("$this->dataFolder/uploads", $id);

        return $id;
    }

    /** @throws BadRequest when there is no such upload */
    public function path(string $id): string
    {
        $path = "$this->dataFolder/uploads/$id";

        return 1 === preg_match('~^[0-9a-f]{32}$~', $id) && is_file($path)
            ? $path
            : throw BadRequest::at('upload', 'This upload is not known, or was cleared away. Choose the file again.');
    }
}
