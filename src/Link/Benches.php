<?php

declare(strict_types=1);

namespace Ortholex\App\Link;

use Ortholex\App\Book\Craft;
use Ortholex\App\Storage\Trouble;
use Ortholex\Core\Link\BoardClient;
use Ortholex\Core\World\Bench;
use Ortholex\Core\World\Benches as AllBenches;
use Ortholex\Core\World\CannotKeep;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Contracts\Service\ResetInterface;

/** The world around each craft of the book, and the cable to its board. */
final class Benches implements ResetInterface
{
    /** @var array<string, bool> by craft: whether its bench can be read, asked once */
    private array $sound = [];

    public function __construct(
        private readonly AllBenches $benches,
        private readonly RequestStack $requests,
        private readonly Trouble $trouble,
    ) {
    }

    /** Where it cannot be read, a page is shown as if nothing lay there, and says so; who acts is told what is wrong. */
    public function of(Craft $craft): Bench
    {
        $bench = $this->benches->of($craft->slug);
        if (true !== $this->requests->getMainRequest()?->isMethodSafe()) {
            return $bench;
        }
        if (!isset($this->sound[$craft->slug])) {
            try {
                $bench->state();
                $this->sound[$craft->slug] = true;
            } catch (CannotKeep $e) {
                $this->sound[$craft->slug] = false;
                $this->trouble->meet("What lies on the bench of $craft->name cannot be read. {$e->getMessage()}");
            }
        }

        return $this->sound[$craft->slug] ? $bench : $this->benches->of('');
    }

    public function reset(): void
    {
        $this->sound = [];
    }

    public function client(Craft $craft): BoardClient
    {
        return new BoardClient($this->of($craft)->link());
    }
}
