<?php

declare(strict_types=1);

namespace Ortholex\App\Sticks;

use Ortholex\App\Book\Crafts;
use Ortholex\Core\Arming\Bar;
use Ortholex\Core\Switches\Action;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** What the sticks and levers mean at this moment, to the board as it is set. */
#[AsController]
final readonly class SticksController
{
    public function __construct(private Crafts $crafts, private Listening $listening)
    {
    }

    #[Route('/craft/{slug}/sticks.json', name: 'sticks_now', methods: ['GET'])]
    public function now(string $slug): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $reading = $this->listening->now($craft);
        $last = null === $reading ? [] : $reading->channels();

        return new JsonResponse([
            'heard' => $reading?->heard->value,
            'sticks' => null === $reading || [] === $last ? null : array_map(static fn (float $v): float => round($v, 4), $reading->mapped),
            'channels' => array_map(static fn (float $us): float => round($us, 1), $last),
            'on' => array_map(static fn (Action $a): string => $a->value, Action::ofBits($reading->actions ?? 0)),
            'armed' => $reading->guard->armed ?? false,
            'bars' => array_map(static fn (Bar $b): string => $b->name, Bar::in($reading->guard->bars ?? 0)),
            'capture' => $this->listening->capture($craft)?->kind->value ?? '',
        ]);
    }
}
