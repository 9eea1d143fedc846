<?php

declare(strict_types=1);

require dirname(__DIR__).'/vendor/autoload.php';

// Runs beside each other have data of their own.
$data = 'test-'.(getenv('ORTHOLEX_TEST_DATA') ?: 'data');
// Each test lays the bench anew: in memory, where there is room, it costs no disk.
$memory = '/dev/shm';
$data = is_writable($memory) && disk_free_space($memory) > 2e9
    ? "$memory/ortholex-".substr(md5(dirname(__DIR__)), 0, 8)."-$data"
    : dirname(__DIR__)."/var/$data";
putenv("ORTHOLEX_DATA=$data");
$_SERVER['ORTHOLEX_DATA'] = $_ENV['ORTHOLEX_DATA'] = $data;
$_SERVER['ORTHOLEX_PACE'] = $_ENV['ORTHOLEX_PACE'] = '0.01';
// Whether what is kept outlasts this machine's own power is no matter here.
$_SERVER['ORTHOLEX_SYNC'] = $_ENV['ORTHOLEX_SYNC'] = '0';
