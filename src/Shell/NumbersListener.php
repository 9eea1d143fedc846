<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/** A number in an address that no row of the book can have names nothing; it must not come to a controller, which takes whole numbers. */
final readonly class NumbersListener
{
    /** Right after the router. */
    #[AsEventListener(priority: 31)]
    public function onRequest(RequestEvent $event): void
    {
        $given = $event->getRequest()->attributes->get('_route_params');
        foreach (\is_array($given) ? $given : [] as $value) {
            if (\is_string($value) && ctype_digit($value) && (string) (int) $value !== ltrim($value, '0') && '' !== ltrim($value, '0')) {
                throw new NotFoundHttpException("There is no number $value in this book.");
            }
        }
    }
}
