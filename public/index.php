<?php

declare(strict_types=1);

use Ortholex\App\Kernel;
use Symfony\Component\HttpFoundation\Request;

require dirname(__DIR__).'/vendor/autoload.php';

$kernel = new Kernel((string) ($_SERVER['APP_ENV'] ?? 'prod'), '1' === ($_SERVER['APP_DEBUG'] ?? '0'));
$request = Request::createFromGlobals();
$response = $kernel->handle($request);
$response->send();
$kernel->terminate($request, $response);
