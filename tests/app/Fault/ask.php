<?php

declare(strict_types=1);

// Asks the application, in a process of its own, for each address given as JSON: [method, address, fields]. Prints status and answer.

use Ortholex\App\Kernel;
use Symfony\Component\HttpFoundation\Request;

require dirname(__DIR__, 3).'/vendor/autoload.php';

foreach (array_slice($_SERVER['argv'], 1) as $asked) {
    $order = is_string($asked) ? json_decode($asked, true) : null;
    if (!is_array($order) || !is_string($order[0] ?? null) || !is_string($order[1] ?? null)) {
        exit("[\"GET\", \"/address\", {}]\n");
    }
    [$method, $address] = $order;
    $kernel = new Kernel('test', false);
    $server = ['HTTP_HOST' => '127.0.0.1:8787', 'HTTP_X_ORTHOLEX' => '1', 'CONTENT_TYPE' => 'application/json'];
    $server['HTTP_ACCEPT'] = 'GET' === $method ? 'text/html' : 'application/json';
    $answer = $kernel->handle(Request::create($address, $method, [], [], [], $server, (string) json_encode($order[2] ?? [])));
    echo json_encode([$answer->getStatusCode(), mb_scrub(substr((string) $answer->getContent(), 0, 600))]), "\n";
}
