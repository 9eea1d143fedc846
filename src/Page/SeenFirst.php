<?php

declare(strict_types=1);

namespace Ortholex\App\Page;

use Ortholex\App\Book\Craft;
use Ortholex\App\Book\Crafts;
use Ortholex\App\Book\Live\LiveState;
use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\RequestStack;
use Symfony\Component\HttpKernel\Event\ControllerEvent;

/**
 * The moment a sheet was asked for, read before anything else of it: what changes while the sheet is put together is then otherwise
 * than this, and the page is drawn anew for it. Read last, a change in between would be on half of the sheet for good.
 */
final readonly class SeenFirst
{
    private const KEPT = '_seen_first';

    public function __construct(private LiveState $live, private Crafts $crafts, private RequestStack $requests)
    {
    }

    #[AsEventListener]
    public function onController(ControllerEvent $event): void
    {
        $request = $event->getRequest();
        $slug = $request->attributes->get('slug');
        $controller = $event->getController();
        $controller = \is_array($controller) ? $controller[0] : $controller;
        if ($controller instanceof SheetController && $request->isMethodSafe() && \is_string($slug)) {
            $request->attributes->set(self::KEPT, $this->live->of($this->crafts->glance($slug)));
        }
    }

    /** @return array<string, mixed> */
    public function of(Craft $craft): array
    {
        $request = $this->requests->getMainRequest();
        /** @var ?array<string, mixed> $seen */
        $seen = $request?->attributes->get(self::KEPT);

        return null !== $seen && $request?->attributes->get('slug') === $craft->slug ? $seen : $this->live->of($craft);
    }
}
