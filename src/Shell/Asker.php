<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Symfony\Component\HttpFoundation\Request;

/** Who asks, and what they can read. */
final readonly class Asker
{
    public const STREAM = 'text/vnd.turbo-stream.html';

    private function __construct(private Request $request)
    {
    }

    public static function of(Request $request): self
    {
        return new self($request);
    }

    /** A script or another program, as against a form. */
    public function wantsJson(): bool
    {
        $accept = (string) $this->request->headers->get('Accept', '');

        return str_contains($accept, 'application/json')
            || ('GET' !== $this->request->getMethod() && str_contains((string) $this->request->headers->get('Content-Type', ''), 'json'))
            || str_ends_with($this->request->getPathInfo(), '.json')
            || 'PUT' === $this->request->getMethod();
    }

    /** A page whose scripts show a problem where it belongs, and keep what was typed. */
    public function takesStreams(): bool
    {
        return str_contains((string) $this->request->headers->get('Accept', ''), self::STREAM);
    }

    /** A page is asked for, not a write and not a piece of a page. */
    public function visits(): bool
    {
        return 'GET' === $this->request->getMethod() && !$this->request->headers->has('Turbo-Frame');
    }

    /** The page of ours that it was asked from; the Workshop where that is not said. */
    public function page(): string
    {
        $from = parse_url((string) $this->request->headers->get('Referer', ''));
        if (!\is_array($from) || ($from['host'] ?? '').(isset($from['port']) ? ":{$from['port']}" : '') !== $this->request->getHttpHost()) {
            return '/';
        }

        return ($from['path'] ?? '/').(isset($from['query']) ? "?{$from['query']}" : '');
    }
}
