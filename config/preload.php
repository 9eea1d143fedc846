<?php

declare(strict_types=1);

// Loaded once, when the server starts: what the framework names, and what the pages were seen to use.
$cache = dirname(__DIR__).'/var/cache/prod';
require $cache.'/Ortholex_App_KernelProdContainer.preload.php';
foreach (is_file($cache.'/used_files.php') ? require $cache.'/used_files.php' : [] as $file) {
    try {
        is_file($file) && require_once $file;
    } catch (Throwable) {
        // It is loaded when it is needed, then.
    }
}
