<?php

declare(strict_types=1);

require dirname(__DIR__).'/vendor/autoload.php';

putenv('ORTHOLEX_DATA='.dirname(__DIR__).'/var/test-data');
$_SERVER['ORTHOLEX_DATA'] = $_ENV['ORTHOLEX_DATA'] = dirname(__DIR__).'/var/test-data';
$_SERVER['ORTHOLEX_PACE'] = $_ENV['ORTHOLEX_PACE'] = '0.01';
