<?php

declare(strict_types=1);

namespace Ortholex\App\Wiring;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Radio\Wire\Identification;
use Ortholex\Core\Radio\Wire\ProtocolFinder;
use Ortholex\Core\Radio\Wire\Speaker;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\Heard;
use Ortholex\Core\Wiring\Hearing;
use Ortholex\Core\Wiring\Part;
use Ortholex\Core\Wiring\PartRole;
use Ortholex\Core\Wiring\Wiring;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 13: wires drawn from pad to pad, checked as they are drawn; the UART settings follow. */
#[AsController]
final class WiringController extends SheetController
{
    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Staging $staging,
        private readonly LinkService $links,
        private readonly Benches $benches,
        private readonly Catalogue $catalogue,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/13', name: 'wiring', methods: ['GET'])]
    public function sheet(string $slug): Response
    {
        $craft = $this->crafts->named($slug);
        $board = BoardPads::of($craft->hardwareId ?? '');
        $state = $this->benches->of($craft)->state();
        $wiring = null === $board ? null : $this->wiring($craft, $board);

        return $this->show(
            $craft,
            '13',
            'Wiring/wiring.html.twig',
            new WiringView(
                $wiring,
                null === $wiring ? SettingSet::none() : $this->toStage($craft, $wiring),
                null === $wiring ? SettingSet::none() : $this->staging->of($craft)->among($wiring->settings($craft->settings)),
                $this->links->isLinked($craft),
                $state->cable,
                $state->pack,
                null !== $wiring && $state->soldered !== $wiring->wires,
                $craft->wires['bridged'] ?? [],
                array_values(array_diff_key(Part::all(), array_flip($craft->wires['parts'] ?? []))),
            ),
        );
    }

    /** Draws or takes away one wire, part or jumper; answers with what is wrong now. */
    #[Route('/craft/{slug}/wiring/draw', name: 'wiring_draw', methods: ['POST'])]
    public function draw(string $slug, Request $request): Answer
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
            'wire' => ($wires = $this->wired($board, $parts, $wires, $from, $to)),
            'cut' => ($wires = array_values(
                array_filter($wires, static fn (array $w): bool => !\in_array($w, [[$from, $to], [$to, $from]], true)),
            )),
            'part' => ($parts = isset(Part::all()[$from])
                ? array_values(array_unique([...$parts, $from]))
                : throw BadRequest::at('from', "There is no part “{$from}”.")),
            'no_part' => ([$parts, $wires] = [
                array_values(array_diff($parts, [$from])),
                array_values(
                    array_filter(
                        $wires,
                        static fn (array $w): bool => !str_starts_with($w[0], "$from.") && !str_starts_with($w[1], "$from."),
                    ),
                ),
            ]),
            'bridge' => ($bridged = \in_array($from, $bridged, true) ? array_values(array_diff($bridged, [$from])) : [...$bridged, $from]),
            default => throw BadRequest::at('what', 'A wire is drawn or cut, a part put down or taken away, a jumper bridged.'),
        };
        $craft->wires = ['parts' => $parts, 'wires' => $wires, 'bridged' => $bridged];
        $this->entities->flush();

        return Answer::of([
            'refused' => $this->words->all(array_column(Wiring::of($board, $parts, $wires, $bridged)->refusals(), 'what')),
        ]);
    }

    #[Route('/craft/{slug}/wiring/stage', name: 'wiring_stage', methods: ['POST'])]
    public function stage(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $wiring = $this->wiring($craft, $this->board($craft));
        $this->staging->stage($craft, $this->toStage($craft, $wiring)->toArray());

        return Answer::said('What follows from the wiring is staged. One Commit does it, features first.');
    }

    /** Hands on the iron: what is drawn is soldered, on the bench. */
    #[Route('/craft/{slug}/wiring/solder', name: 'wiring_solder', methods: ['POST'])]
    public function solder(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $state = $this->benches->of($craft)->state();
        if ($state->cable || $state->pack) {
            throw BadRequest::at('solder', 'Never solder on a board with power: take the cable and the pack off first.');
        }
        $wires = $this->wiring($craft, $this->board($craft))->wires;
        $this->benches->of($craft)->solder($wires, $craft->wires['bridged'] ?? []);

        return Answer::said('Soldered as drawn. Link it, and listen to each part.');
    }

    /** Listens to a part: at its rate as set or, when asked, at each rate in turn. */
    #[Route('/craft/{slug}/wiring/listen', name: 'wiring_listen', methods: ['POST'])]
    public function listen(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $wiring = $this->wiring($craft, $this->board($craft));
        $input = Input::of($request);
        $part = $wiring->parts[$input->text('part', 40)] ?? throw BadRequest::at('part', 'There is no such part on this craft.');
        $uart = $wiring->uarts[$part->id] ?? throw BadRequest::at('part', "{$part->name} is on no UART yet.");
        if (!$part->role->speaks()) {
            throw BadRequest::at('part', "{$part->name} only listens; there is nothing to hear from it.");
        }
        $client = $this->benches->client($craft);
        if (PartRole::Receiver === $part->role) {
            return Answer::of($this->heardOf($craft, $part, $uart, ProtocolFinder::of($client->edges($uart))));
        }
        $inverted = $craft->settings->flag("uart.$uart.inverted");
        $set = $craft->settings->whole("uart.$uart.baud", 115200);
        $rates = $input->flag('every') ? array_map('intval', $this->catalogue->get("uart.$uart.baud", $craft->version())->choices) : [$set];
        $heard = [];
        foreach ($rates as $rate) {
            $one = Heard::of($client->listen($uart, $rate, $inverted), $part->role);
            $heard[$rate] = $one;
            if (Hearing::Understood === $one->verdict) {
                return Answer::of([
                    'verdict' => $one->verdict->value,
                    'baud' => $rate,
                    'said' => $rate === $set
                            ? "{$part->name} is understood: {$one->whole} messages whole."
                            : "{$part->name} speaks at $rate baud; UART $uart is set to $set.",
                ]);
            }
        }
        $silent = [] === array_filter($heard, static fn (Heard $h): bool => Hearing::Silent !== $h->verdict);

        return Answer::of([
            'verdict' => ($silent ? Hearing::Silent : Hearing::Rubbish)->value,
            'baud' => null,
            'said' => $silent
                ? "{$part->name} is silent. No power, no ground, or its wire is not soldered: ".$this->whySilent($craft, $part)
                : "{$part->name} speaks, but what arrives is rubbish".
                    ($input->flag('every')
                        ? ' at every rate: is the signal inverted?'
                        : " at $set baud: find its rate, or is the signal inverted?"),
        ]);
    }

    /**
     * A receiver is heard as it is, whatever its UART is set to.
     *
     * @return array{verdict: string, baud: int|null, said: string}
     */
    private function heardOf(Craft $craft, Part $part, string $uart, Identification $heard): array
    {
        if (!$heard->speaker->isReceiver()) {
            return [
                'verdict' => (Speaker::Silent === $heard->speaker ? Hearing::Silent : Hearing::Rubbish)->value,
                'baud' => null,
                'said' => Speaker::Silent === $heard->speaker
                        ? "{$part->name} is silent. No power, no ground, not bound, or its wire is not soldered: ".
                            $this->whySilent($craft, $part)
                        : "Something speaks on UART $uart that is no receiver: look at the wires against the drawing.",
            ];
        }
        $at = null === $heard->baud ? 'in pulses' : "at $heard->baud baud".($heard->inverted ? ', inverted' : '');
        $set = $craft->settings->whole("uart.$uart.baud", 115200);
        $sets = null !== $heard->baud && $set !== $heard->baud ? "; UART $uart is set to $set." : '.';

        return [
            'verdict' => Hearing::Understood->value,
            'baud' => $heard->baud,
            'said' => "{$part->name} is understood: {$heard->frames} messages whole, ".strtoupper($heard->speaker->value)." $at$sets",
        ];
    }

    private function whySilent(Craft $craft, Part $part): string
    {
        $state = $this->benches->of($craft)->state();
        foreach ($craft->wires['wires'] ?? [] as $wire) {
            $pad = BoardPads::of($craft->hardwareId ?? '')?->pads()[$wire[1]] ?? null;
            if ($wire[0] === "$part->id.v" && null !== $pad && !$state->pack && !$pad->aliveOnUsb) {
                return "its rail $pad->label is dead on USB alone; connect the pack.";
            }
        }

        return 'look at its wires against the drawing, and solder what is drawn.';
    }

    /** What follows from the wiring and is neither so nor staged. */
    private function toStage(Craft $craft, Wiring $wiring): SettingSet
    {
        $now = $this->staging->preview($craft);
        $follows = $wiring->settings($craft->settings);

        return $follows->where(static fn (string $name): bool => !isset($now[$name]) || $now[$name] !== $follows[$name]);
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
        return BoardPads::of($craft->hardwareId ?? '') ??
            throw BadRequest::at('board', 'The board is not known yet, so there is no drawing of it. Link it on sheet 11.');
    }
}
