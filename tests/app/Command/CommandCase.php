<?php

declare(strict_types=1);

namespace Ortholex\Tests\app\Command;

use Ortholex\Tests\app\AppCase;

/** Part 2, driven as its pages drive it. */
abstract class CommandCase extends AppCase
{
    protected function move(string $slug, string $thing, string $to): void
    {
        $this->post("/craft/$slug/bench", ['thing' => $thing, 'to' => $to]);
    }

    /** Linked, with its transmitter on and heard. */
    protected function heard(string $slug = 'curlew'): void
    {
        $this->link($slug);
        $this->move($slug, 'transmitter', '1');
        usleep(60_000);
    }

    /** Looks at the sticks for a while, as an open page does. */
    protected function look(string $slug, float $seconds, string $page = 'radio/now.json'): void
    {
        for ($end = microtime(true) + $seconds; microtime(true) < $end;) {
            $this->json("/craft/$slug/$page");
            usleep(40_000);
        }
    }
}
