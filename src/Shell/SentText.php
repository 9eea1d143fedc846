<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\HttpFoundation\Request;

/** A short text that a form sends, as a file or as typed. */
final class SentText
{
    private function __construct()
    {
    }

    /**
     * @param string $file  field that a file comes in
     * @param string $typed field that it may be typed in instead
     * @param string $none  what is never longer, as in “list of settings”
     *
     * @return string '' where nothing was sent
     *
     * @throws BadRequest at the field that it may be typed in, when it did not arrive whole or is longer than any such text
     */
    public static function of(Request $request, string $file, string $typed, int $mostBytes, string $none): string
    {
        $sent = $request->files->get($file);
        if (!$sent instanceof UploadedFile) {
            return Input::of($request)->text($typed, $mostBytes);
        }
        if (!$sent->isValid() || $sent->getSize() > $mostBytes) {
            $kilobytes = intdiv($mostBytes, 1000);
            throw BadRequest::at($typed, "The file did not arrive whole, or is longer than $kilobytes kB: no $none is.");
        }

        return $sent->getContent();
    }
}
