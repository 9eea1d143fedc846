<?php

declare(strict_types=1);

namespace Ortholex\App\Report;

use Symfony\Contracts\Cache\CacheInterface;
use Symfony\Contracts\Cache\ItemInterface;

/** Works something out once: what follows from the same inputs is kept, until the code changes or a month has gone. */
final readonly class WorkedOut
{
    private const KEPT_S = 2_592_000;

    public function __construct(private CacheInterface $cache)
    {
    }

    /**
     * @template T
     *
     * @param string       $what a name of what is worked out
     * @param list<mixed>  $from all that it follows from
     * @param \Closure():T $work
     *
     * @return T
     */
    public function once(string $what, array $from, \Closure $work): mixed
    {
        return $this->cache->get("$what.".hash('xxh128', serialize($from)), static function (ItemInterface $item) use ($work): mixed {
            $item->expiresAfter(self::KEPT_S);

            return $work();
        });
    }
}
