<?php

declare(strict_types=1);

namespace Ortholex\App\Switches;

use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Page\SheetController;
use Ortholex\App\Settings\Fields;
use Ortholex\App\Settings\Staging;
use Ortholex\App\Shell\Answer;
use Ortholex\App\Shell\BadRequest;
use Ortholex\App\Shell\Input;
use Ortholex\App\Sticks\CaptureKind;
use Ortholex\App\Sticks\Listening;
use Ortholex\App\Words\Words;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\Switches\Cell;
use Ortholex\Core\Switches\FoundSwitch;
use Ortholex\Core\Switches\MapCheck;
use Ortholex\Core\Switches\SwitchMap;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpKernel\Attribute\AsController;
use Symfony\Component\Routing\Attribute\Route;

/** Sheet 23: the table of what is on in every position of every lever; each cell is set by a click, a key, or by flicking the lever. */
#[AsController]
final class SwitchesController extends SheetController
{
    private const FIELDS = [
        'arming.by',
        'arming.off_needs_low_throttle',
        'angle.full_tilt_deg',
        'angle.strength_per_s',
        'angle.throttle_lift',
        'horizon.level_until_pct',
    ];
    private const MOST_CUTS = 8;

    public function __construct(
        private readonly Listening $listening,
        private readonly Staging $staging,
        private readonly Fields $fields,
        private readonly LogBook $logs,
        private readonly Words $words,
    ) {
    }

    #[Route('/craft/{slug}/23', name: 'switches', methods: ['GET'])]
    public function sheet(string $slug, Request $request): Response
    {
        $craft = $this->crafts->named($slug);
        $map = $this->map($craft);
        $now = $this->moment($craft, $map);
        $set = $this->staging->preview($craft);

        return $this->show($craft, '23', 'Switches/switches.html.twig', new SwitchesView(
            $craft->settings->has(Action::Arm->setting()),
            $map,
            SwitchMap::of($craft->settings, array_values($map->switches)),
            MapCheck::of($map, $set, $craft->sensors, $this->logs->countAll($craft) > 0),
            $now,
            $this->words,
            $this->staging->of($craft),
            $set,
            $this->listening->capture($craft)?->kind,
            Action::tryFrom($request->query->getString('choose')),
            $request->query->getString('from'),
            $request->query->getString('cell'),
            $this->fields($craft),
            $this->listening->stickChannels($craft),
        ));
    }

    #[Route('/craft/{slug}/switches/now.json', name: 'switches_now', methods: ['GET'])]
    public function now(string $slug): JsonResponse
    {
        $craft = $this->crafts->named($slug);

        return new JsonResponse($this->moment($craft, $this->map($craft))->toArray($this->words));
    }

    /** Turns one action on or off in one position of a lever; on, it may be together with a position of another. */
    #[Route('/craft/{slug}/switches/cell', name: 'switches_cell', methods: ['POST'])]
    public function cell(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $map = $this->map($craft);
        $input = Input::of($request);
        // A button of the table says both at once: which cell, and what it becomes.
        [$cell, $to] = [...explode(':', $input->text('set', 60), 2), ''];
        [$action, $channel, $position] = $this->place($map, '' === $cell ? $input->text('cell', 60) : $cell);
        $turn = '' === $cell ? $input->flag('on') : '1' === $to;
        $with = $input->text('with', 20);
        $together = [];
        if ('' !== $with) {
            [$other, $at] = [...explode('.', $with), ''];
            $lever = $map->switches[(int) $other] ?? null;
            if (null === $lever || !isset($lever->positions[(int) $at]) || (int) $other === $channel) {
                throw BadRequest::at('with', 'There is no such position of another lever.');
            }
            $together = [$lever->zone((int) $at)];
        }
        $on = $map->with($action, $channel, $position, $turn, $together);
        $this->staging->stage($craft, [$action->setting() => $on->text()]);

        return Answer::of()->to("/craft/$slug/23");
    }

    /** Begins to set by doing: the lever that is flicked next is the one that is meant. */
    #[Route('/craft/{slug}/switches/choose', name: 'switches_choose', methods: ['POST'])]
    public function choose(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $action = $this->action(Input::of($request)->text('action', 40));
        $mark = $this->moment($craft, $this->map($craft))->mark();
        if ('' === $mark) {
            throw BadRequest::at('action', 'No lever is heard: link the craft and switch the transmitter on, and show the levers first.');
        }

        return Answer::of()->to("/craft/$slug/23?choose=$action->value&from=$mark");
    }

    /** Puts an action's edges midway between the positions that were seen, wherever they stood. */
    #[Route('/craft/{slug}/switches/snap', name: 'switches_snap', methods: ['POST'])]
    public function snap(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $map = $this->map($craft);
        $action = $this->action(Input::of($request)->text('action', 40));
        foreach ($map->onIn($action)->channels() as $channel) {
            $lever = $map->switches[$channel] ?? throw BadRequest::at('action', "On channel $channel no lever was seen.");
            foreach (array_keys($lever->positions) as $position) {
                [$cell, $with] = $map->cell($action, $channel, $position);
                $on = $map->with($action, $channel, $position, Cell::Off !== $cell, $with);
                $map = $map->having($action, $on);
            }
        }
        $this->staging->stage($craft, [$action->setting() => $map->onIn($action)->text()]);

        return Answer::of();
    }

    /** Levers through all their positions: what they are is found from where they stay. */
    #[Route('/craft/{slug}/switches/levers', name: 'switches_levers', methods: ['POST'])]
    public function levers(string $slug, Request $request): Answer
    {
        $craft = $this->crafts->named($slug);
        $input = Input::of($request);
        match (LeverWork::tryFrom($input->text('do', 20))) {
            LeverWork::Begin => $this->listening->begin($craft, CaptureKind::Levers),
            LeverWork::Finish => $this->listening->finish($craft),
            LeverWork::Drop => $this->listening->stop($craft),
            LeverWork::Forget => $this->listening->keep(
                $craft,
                $this->listening->evidence($craft)->withoutLever($input->whole('channel', 1, 16)),
            ),
            LeverWork::Cut => $this->cut($craft, $input->whole('channel', 1, 16), $input->whole('positions', 2, self::MOST_CUTS)),
            null => throw BadRequest::at('do', 'Levers are shown, kept, left, forgotten, or cut.'),
        };

        return Answer::of();
    }

    private function cut(Craft $craft, int $channel, int $positions): void
    {
        $evidence = $this->listening->evidence($craft);
        $jitter = $evidence->levers[$channel]->jitterUs ?? 0.0;
        $this->listening->keep($craft, $evidence->withLevers([$channel => FoundSwitch::knob($channel, $positions, $jitter)]));
    }

    private function map(Craft $craft): SwitchMap
    {
        return SwitchMap::of($this->staging->preview($craft), array_values($this->listening->evidence($craft)->levers));
    }

    private function moment(Craft $craft, SwitchMap $map): Moment
    {
        return Moment::of($this->listening->now($craft), $map->switches);
    }

    private function action(string $name): Action
    {
        return Action::tryFrom($name) ?? throw BadRequest::at('action', "There is no action “{$name}”.");
    }

    /** @return array{Action, int, int} of a cell, written action.channel.position */
    private function place(SwitchMap $map, string $cell): array
    {
        [$name, $channel, $position] = [...explode('.', $cell), '', ''];
        $action = $this->action($name);
        if (!isset($map->switches[(int) $channel]->positions[(int) $position])) {
            throw BadRequest::at('cell', 'There is no such position of a lever.');
        }

        return [$action, (int) $channel, (int) $position];
    }

    /** @return list<Setting> */
    private function fields(Craft $craft): array
    {
        $zones = array_map(static fn (Action $a): string => $a->setting(), Action::cases());

        return $this->fields->of($craft, [...self::FIELDS, ...$zones]);
    }
}
