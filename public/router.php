<?php

declare(strict_types=1);

// Built files are served as they are, with a long life: their names change with their contents.
$path = (string) parse_url((string) $_SERVER['REQUEST_URI'], \PHP_URL_PATH);
if (1 === preg_match('~^/(build/[\w./-]+|favicon\.(?:svg|ico))$~', $path) && !str_contains($path, '..') && is_file(__DIR__.$path)) {
    $types = ['css' => 'text/css', 'js' => 'text/javascript', 'woff2' => 'font/woff2', 'svg' => 'image/svg+xml', 'ico' => 'image/x-icon', 'json' => 'application/json'];
    header('Content-Type: '.($types[pathinfo($path, \PATHINFO_EXTENSION)] ?? 'application/octet-stream'));
    header('Cache-Control: public, max-age=31536000, immutable');
    header('X-Content-Type-Options: nosniff');
    readfile(__DIR__.$path);

    return true;
}
$_SERVER['SCRIPT_FILENAME'] = __DIR__.'/index.php';
$_SERVER['SCRIPT_NAME'] = '/index.php';
require __DIR__.'/index.php';
