<?php

declare(strict_types=1);

namespace Ortholex\App\Wiring;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Craft\Craft;
use Ortholex\App\Craft\LinkService;
use Ortholex\App\Craft\Worlds;
use Ortholex\App\Record\Staging;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Shell\SheetController;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\Wiring\Wiring;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 13: wires drawn from pad to pad, checked as they are drawn; the UART settings follow. */
#[AsController]
final class WiringController extends SheetController
{
    public function __construct(private readonly EntityManagerInterface $entities, private readonly Staging $staging, private readonly LinkService $links, private readonly Worlds $worlds)
    {
    }

    #[Route('/craft/{slug}/13', name: 'wiring', methods: ['GET'])]
    public function sheet(string $slug): Response
    {
        $craft = $this->crafts->named($slug);
        $board = BoardPads::of($craft->hardwareId ?? '');
        $state = $this->worlds->of($craft)->store->peek();
        $wiring = null === $board ? null : $this->wiring($craft, $board);

        return $this->show($craft, '13', 'Wiring/wiring.html.twig', new WiringView(
            $wiring, null === $wiring ? [] : $this->toStage($craft, $wiring), null === $wiring ? [] : array_intersect_key($this->staging->of($craft), $wiring->settings($craft->settings)),
            $this->links->isLinked($craft), $state->cable, $state->pack, $craft->wires['bridged'] ?? [], array_values(array_diff_key(Part::all(), array_flip($craft->wires['parts'] ?? []))),
        ));
    }

    /** Draws or takes away one wire, part or jumper; answers with what is wrong now. */
    #[Route('/craft/{slug}/wiring/draw', name: 'wiring_draw', methods: ['POST'])]
    public function draw(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $board = $this->board($craft);
        $input = Input::of($request);
        $what = $input->text('what', 20);
        $wires = $craft->wires['wires'] ?? [];
        $parts = $craft->wires['parts'] ?? [];
        $bridged = $craft->wires['bridged'] ?? [];
        $from = $input->text('from', 40);
        $to = $input->text('to', 40);
        match ($what) {
            'wire' => $wires = $this->wired($board, $parts, $wires, $from, $to),
            'cut' => $wires = array_values(array_filter($wires, static fn (array $w): bool => $w !== [$from, $to] && $w !== [$to, $from])),
            'part' => $parts = isset(Part::all()[$from]) ? array_values(array_unique([...$parts, $from])) : throw BadRequest::at('from', "There is no part “{$from}”."),
            'no_part' => [$parts, $wires] = [array_values(array_diff($parts, [$from])), array_values(array_filter($wires, static fn (array $w): bool => !str_starts_with($w[0], "$from.") && !str_starts_with($w[1], "$from.")))],
            'bridge' => $bridged = \in_array($from, $bridged, true) ? array_values(array_diff($bridged, [$from])) : [...$bridged, $from],
            default => throw BadRequest::at('what', 'A wire is drawn or cut, a part put down or taken away, a jumper bridged.'),
        };
        $craft->wires = ['parts' => $parts, 'wires' => $wires, 'bridged' => $bridged];
        $this->entities->flush();

        return new JsonResponse(['refused' => array_map(static fn ($f): string => $f->text, Wiring::of($board, $parts, $wires, $bridged)->refusals())]);
    }

    #[Route('/craft/{slug}/wiring/stage', name: 'wiring_stage', methods: ['POST'])]
    public function stage(string $slug): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $wiring = $this->wiring($craft, $this->board($craft));
        $this->staging->stage($craft, $this->toStage($craft, $wiring));

        return new JsonResponse(['said' => 'What follows from the wiring is staged. One Commit does it, features first.']);
    }

    /** @return array<string, float|int|bool|string> what follows from the wiring and is neither so nor staged */
    private function toStage(Craft $craft, Wiring $wiring): array
    {
        $now = $this->staging->preview($craft);

        return array_filter($wiring->settings($craft->settings), static fn (mixed $value, string $name): bool => !isset($now[$name]) || $now[$name] !== $value, \ARRAY_FILTER_USE_BOTH);
    }

    /**
     * @param list<string>                $parts
     * @param list<array{string, string}> $wires
     *
     * @return list<array{string, string}>
     */
    private function wired(BoardPads $board, array $parts, array $wires, string $from, string $to): array
    {
        $pads = $board->pads();
        [$pin, $pad] = isset($pads[$to]) ? [$from, $to] : [$to, $from];
        $part = Part::all()[explode('.', $pin)[0]] ?? null;
        if (!isset($pads[$pad]) || null === $part || !\in_array($part->id, $parts, true) || null === $part->pin($pin)) {
            throw BadRequest::at('to', 'A wire goes from a pin of a part to a pad of the board. Drop it on one.');
        }
        // A pin has one wire: drawing it anew moves it.
        $wires = array_values(array_filter($wires, static fn (array $w): bool => !\in_array($pin, $w, true)));
        $wires[] = [$pin, $pad];

        return $wires;
    }

    private function wiring(Craft $craft, BoardPads $board): Wiring
    {
        return Wiring::of($board, $craft->wires['parts'] ?? [], $craft->wires['wires'] ?? [], $craft->wires['bridged'] ?? []);
    }

    private function board(Craft $craft): BoardPads
    {
        return BoardPads::of($craft->hardwareId ?? '') ?? throw BadRequest::at('board', 'The board is not known yet, so there is no drawing of it. Link it on sheet 11.');
    }
}
