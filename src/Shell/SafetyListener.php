<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Symfony\Component\EventDispatcher\Attribute\AsEventListener;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\Event\ResponseEvent;
use Symfony\Component\HttpKernel\KernelEvents;

/**
 * Local by design: only loopback names are answered, and only our own pages may write.
 *
 * A foreign Host header is how a strange page reaches a local server by name (DNS rebinding); a cross-site write is
 * how it would act in the user's name. Both are refused before any controller runs.
 */
final readonly class SafetyListener
{
    private const HOSTS = '~^(localhost|127(\.\d{1,3}){3}|\[::1\])(:\d{1,5})?$~';
    private const NONCE = 'style_nonce';
    private const POLICY =
        "default-src 'self'; img-src 'self' data:; style-src 'self' 'nonce-%s'; script-src 'self'; object-src 'none'; base-uri 'none'; ".
        "form-action 'self'; frame-ancestors %s";

    /** A leaf of the printed book stands in a frame on our own page; nothing else stands in any. */
    private const LEAF = 'leaf';

    #[AsEventListener(event: KernelEvents::REQUEST, priority: 2048)]
    public function onRequest(RequestEvent $event): void
    {
        if (!$event->isMainRequest()) {
            return;
        }
        $headers = $event->getRequest()->headers;
        $host = (string) $headers->get('Host', '');
        if (1 !== preg_match(self::HOSTS, $host)) {
            $event->setResponse(
                new Response("Ortholex answers only on this machine, not as “{$host}”. Open it as 127.0.0.1.\n", 421, [
                    'Content-Type' => 'text/plain; charset=utf-8',
                ]),
            );

            return;
        }
        if (!\in_array($event->getRequest()->getMethod(), ['GET', 'HEAD'], true)) {
            $origin = $headers->get('Origin');
            $site = $headers->get('Sec-Fetch-Site');
            $ours =
                null !== $origin ? $origin === "http://$host" : (null !== $site ? 'same-origin' === $site : $headers->has('X-Ortholex'));
            if (!$ours || (null !== $site && 'same-origin' !== $site)) {
                $event->setResponse(
                    new Response(
                        "This write did not come from an Ortholex page and was refused. Other programs send the header X-Ortholex: 1.\n",
                        403,
                        ['Content-Type' => 'text/plain; charset=utf-8'],
                    ),
                );
            }
        }
    }

    /** For the one style that Turbo puts in; another for each page. */
    public static function nonce(Request $request): string
    {
        $nonce = $request->attributes->get(self::NONCE);
        if (!\is_string($nonce)) {
            $nonce = bin2hex(random_bytes(12));
            $request->attributes->set(self::NONCE, $nonce);
        }

        return $nonce;
    }

    #[AsEventListener(event: KernelEvents::RESPONSE)]
    public function onResponse(ResponseEvent $event): void
    {
        $headers = $event->getResponse()->headers;
        $request = $event->getRequest();
        $framed = $request->query->has(self::LEAF) ? "'self'" : "'none'";
        $headers->set('Content-Security-Policy', \sprintf(self::POLICY, self::nonce($request), $framed));
        $headers->set('X-Content-Type-Options', 'nosniff');
        $headers->set('Referrer-Policy', 'same-origin');
        $headers->set('Cross-Origin-Opener-Policy', 'same-origin');
        $headers->set('Cross-Origin-Resource-Policy', 'same-origin');
        if (!$headers->has('Cache-Control') || str_contains((string) $headers->get('Cache-Control'), 'private')) {
            $headers->set('Cache-Control', 'no-store');
        }
        // Told, so that a page is whole with its last byte and not only when its connection is closed.
        $content = $event->getResponse()->getContent();
        if (\is_string($content) && !$event->getResponse()->isEmpty()) {
            $headers->set('Content-Length', (string) \strlen($content));
        }
    }
}
