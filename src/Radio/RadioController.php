<?php

declare(strict_types=1);

namespace Ortholex\App\Radio;

use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Benches;
use Ortholex\App\Link\LinkService;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Proof\Proofs;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Sticks\CaptureKind;
use Ortholex\App\Sticks\Evidence;
use Ortholex\App\Sticks\Listening;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\Channel;
use Ortholex\Core\Proof\Proved;
use Ortholex\Core\Radio\Wire\Identification;
use Ortholex\Core\Radio\Wire\ProtocolFinder;
use Ortholex\Core\Radio\Wire\Speaker;
use Ortholex\Core\Settings\Catalogue;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Settings\SettingGroup;
use Ortholex\Core\Wiring\BoardPads;
use Ortholex\Core\Wiring\PartRole;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 21: the sticks as they are held; what they mean is shown, not typed. */
#[AsController]
final class RadioController extends SheetController
{
    public function __construct(
        private readonly Listening $listening,
        private readonly LinkService $links,
        private readonly Benches $benches,
        private readonly Staging $staging,
        private readonly Words $words,
        private readonly Cause $cause,
        private readonly Catalogue $catalogue,
        private readonly Proofs $proofs,
    ) {
    }

    #[Route('/craft/{slug}/21', name: 'radio', methods: ['GET'])]
    public function sheet(string $slug): Response
    {
        $craft = $this->crafts->named($slug);
        $state = $this->state($craft);

        return $this->show($craft, '21', 'Radio/radio.html.twig', new RadioView(
            $state,
            $this->listening->capture($craft),
            $this->words,
            TelemetryView::of($craft, $state->preview, $state->reading?->told()),
            $this->staging->of($craft),
            $craft->isKnown(),
            $this->cause->of($craft, $state->reading?->heard),
            $this->fields($craft),
        ));
    }

    /** The moment, polled; frames newer than the given are told. */
    #[Route('/craft/{slug}/radio/now.json', name: 'radio_now', methods: ['GET'])]
    public function now(string $slug, Request $request): JsonResponse
    {
        $craft = $this->crafts->named($slug);
        $state = $this->state($craft, max(0, $request->query->getInt('since')));

        return new JsonResponse(RadioMoment::of($state, $this->listening->capture($craft)));
    }

    /** Listens at every UART of the board, and stages what is heard: role, rate, polarity and protocol together. */
    #[Route('/craft/{slug}/radio/find', name: 'radio_find', methods: ['POST'])]
    public function find(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->links->demandLinked($craft);
        $board = BoardPads::of($craft->hardwareId ?? '') ?? throw BadRequest::at('board', 'The board is not known: link it on 11.');
        $client = $this->benches->client($craft);
        $other = [];
        foreach ($board->uarts as $uart) {
            $heard = ProtocolFinder::of($client->edges($uart->id));
            if ($heard->speaker->isReceiver()) {
                if ($heard->inverted && null !== $heard->baud && !$uart->inverts) {
                    throw BadRequest::at('uart', Cause::said($heard)." is heard on UART $uart->id, which cannot invert the signal. ".
                        'Solder it to another UART, on 13.');
                }
                $this->staging->stage($craft, $this->follows($craft, $board, $uart->id, $heard));

                $where = $this->words->name("uart_$uart->id");

                return Answer::said(Cause::said($heard)." on $where. What the board needs for it is staged.");
            }
            if (Speaker::Silent !== $heard->speaker) {
                $other[] = $this->words->name("uart_$uart->id").(Speaker::Nmea === $heard->speaker ? ' (a position receiver)' : '');
            }
        }
        $else = [] === $other ? '' : '; '.implode(', ', $other).' has something else';
        throw BadRequest::at('uart', "No receiver is heard on any UART$else.".
            ' It has no power, is on a wrong pad, or has not heard its transmitter since power-on: switch the transmitter on.');
    }

    /** @return array<string, float|int|bool|string> */
    private function follows(Craft $craft, BoardPads $board, string $uart, Identification $heard): array
    {
        $set = $this->staging->preview($craft);
        $follows = ['receiver.protocol' => $heard->speaker->value];
        foreach ($board->uarts as $id => $other) {
            // One receiver has one port: another that had its job loses it.
            if ((string) $id !== $uart && PartRole::Receiver->value === $set->text("uart.$id.role")) {
                $follows["uart.$id.role"] = 'none';
            }
        }
        $follows["uart.$uart.role"] = PartRole::Receiver->value;
        $follows["uart.$uart.half_duplex"] = false;
        if (null !== $heard->baud) {
            $follows["uart.$uart.baud"] = (string) $heard->baud;
            $follows["uart.$uart.inverted"] = $heard->inverted;
        }

        return $follows;
    }

    #[Route('/craft/{slug}/radio/capture', name: 'radio_capture', methods: ['POST'])]
    public function capture(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        if ($input->flag('again')) {
            $this->listening->again($craft);

            return Answer::of();
        }
        $kind = CaptureKind::tryFrom($input->text('kind', 20));
        $this->listening->begin($craft, $kind ?? throw BadRequest::at('kind', 'What is to be captured: order, spans or levers.'));

        return Answer::of();
    }

    #[Route('/craft/{slug}/radio/capture/end', name: 'radio_capture_end', methods: ['POST'])]
    public function end(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        Input::of($request)->flag('drop') ? $this->listening->stop($craft) : $this->listening->finish($craft);

        return Answer::of();
    }

    /** Another radio: what was shown of the one before does not count for it. */
    #[Route('/craft/{slug}/radio/forget', name: 'radio_forget', methods: ['POST'])]
    public function forget(string $slug): Answer
    {
        $craft = $this->crafts->named($slug);
        $this->listening->stop($craft);
        $this->listening->keep($craft, Evidence::of([]));

        return Answer::said('What was shown of the radio is forgotten. What the board is told stays as it is.');
    }

    /** Stages what was shown: the order, the spans, or the dead band; or goes back to stock spans and touches nothing else. */
    #[Route('/craft/{slug}/radio/stage', name: 'radio_stage', methods: ['POST'])]
    public function stage(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $state = $this->state($craft);
        $what = RadioPart::tryFrom(Input::of($request)->text('what', 20))
            ?? throw BadRequest::at('what', 'There is nothing of that name to stage.');
        $values = match ($what) {
            RadioPart::Order => $this->order($state),
            RadioPart::Spans => $this->spans($state),
            RadioPart::DeadBand => ['channel.dead_band_us' => $state->neededDeadBand()],
            RadioPart::Stock => self::stock(),
            RadioPart::Telemetry => TelemetryView::of($craft, $state->preview, null)->toStage->toArray(),
        };
        $this->staging->stage($craft, $values);
        if (RadioPart::Spans === $what) {
            $this->proofs->prove($craft, Proved::Spans, $this->staging->preview($craft));
        }
        $short = RadioPart::Spans === $what ? $state->shortSpans() : [];
        if ([] !== $short) {
            $each = array_map(static fn (string $s, float $us): string => \sprintf('%s by %.0f µs', $s, $us), array_keys($short), $short);

            return Answer::said('Staged; but was each pushed all the way? From end to end '.implode(', ', $each).
                ' is shorter than any transmitter makes it. Capture once more if not.');
        }

        return Answer::of();
    }

    /** @return array<string, int|bool> */
    private function order(RadioState $state): array
    {
        $order = $state->evidence->channelOrder();
        if (null !== $order->clash) {
            throw BadRequest::at('order', $this->words->of($order->clash));
        }

        return $order->settings();
    }

    /** @return array<string, float> */
    private function spans(RadioState $state): array
    {
        $wanted = $state->wantedSpans();
        if ([] === $wanted) {
            $left = array_map(static fn (Channel $s): string => $s->value, $state->notShown());
            throw BadRequest::at('spans', [] === $left
                ? 'No span was captured yet: move all sticks to their ends, and let go.'
                : 'Not seen at both ends, or not let go: '.implode(', ', $left).'. Capture once more.');
        }

        return $wanted + ['channel.dead_band_us' => max($state->preview->number('channel.dead_band_us'), $state->neededDeadBand())];
    }

    /** @return array<string, float> */
    private static function stock(): array
    {
        $stock = [];
        foreach (Channel::cases() as $stick) {
            $stock["channel.$stick->value.low_us"] = 1000.0;
            $stock["channel.$stick->value.middle_us"] = 1500.0;
            $stock["channel.$stick->value.high_us"] = 2000.0;
        }

        return $stock;
    }

    /** @return list<Setting> */
    private function fields(Craft $craft): array
    {
        $is = static fn (Setting $s): bool => SettingGroup::Radio === $s->group
            && !str_starts_with($s->name, 'telemetry.')
            && $craft->settings->has($s->name);

        return array_values(array_filter($this->catalogue->of($craft->version()), $is));
    }

    private function state(Craft $craft, int $since = 0): RadioState
    {
        $reading = $this->listening->now($craft, $since);

        return RadioState::of($craft, $reading, $this->listening->evidence($craft), $this->staging);
    }
}
