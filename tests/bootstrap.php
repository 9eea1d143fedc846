<?php

declare(strict_types=1);

require dirname(__DIR__).'/vendor/autoload.php';

// Runs beside each other have data of their own.
$data = dirname(__DIR__).'/var/test-'.(getenv('ORTHOLEX_TEST_DATA') ?: 'data');
putenv("ORTHOLEX_DATA=$data");
$_SERVER['ORTHOLEX_DATA'] = $_ENV['ORTHOLEX_DATA'] = $data;
$_SERVER['ORTHOLEX_PACE'] = $_ENV['ORTHOLEX_PACE'] = '0.01';
// Whether what is kept outlasts this machine's own power is no matter here.
$_SERVER['ORTHOLEX_SYNC'] = $_ENV['ORTHOLEX_SYNC'] = '0';
