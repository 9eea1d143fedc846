<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

use Symfony\Component\HttpFoundation\RequestStack;

/** What the page that sends something had been showing. */
final readonly class Seen
{
    public function __construct(private RequestStack $requests)
    {
    }

    /**
     * Number of the last step of staging that it showed; null for who has no page.
     *
     * @throws BadRequest when it is no number
     */
    public function step(): ?int
    {
        $request = $this->requests->getMainRequest();
        if (null === $request || $request->isMethodSafe()) {
            return null;
        }
        $input = Input::of($request);

        return '' === $input->text('seen', 20) ? null : $input->whole('seen', 0, \PHP_INT_MAX);
    }

    /** Which tab sent it; '' for who has none, or no scripts. */
    public function tab(): string
    {
        $request = $this->requests->getMainRequest();

        return null === $request || $request->isMethodSafe() ? '' : Input::of($request)->text('tab', 40);
    }
}
