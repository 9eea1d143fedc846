<?php

declare(strict_types=1);

// PHP's own server stands behind bin/serve.mjs, which serves built files itself and lets nothing past that it has not looked at.
$front = (string) getenv('ORTHOLEX_FRONT');
if ('' === $front || !hash_equals($front, (string) ($_SERVER['HTTP_X_ORTHOLEX_FRONT'] ?? ''))) {
    http_response_code(403);
    header('Content-Type: text/plain; charset=utf-8');
    header("Content-Security-Policy: default-src 'none'");
    header('X-Content-Type-Options: nosniff');
    header('Cross-Origin-Resource-Policy: same-origin');
    echo "This is not the door of Ortholex.\n";

    return true;
}
$_SERVER['SCRIPT_FILENAME'] = __DIR__.'/index.php';
$_SERVER['SCRIPT_NAME'] = '/index.php';
require __DIR__.'/index.php';
