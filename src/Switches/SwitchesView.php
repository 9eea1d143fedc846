<?php

declare(strict_types=1);

namespace Ortholex\App\Switches;

use Ortholex\App\Sticks\CaptureKind;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Settings\Setting;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\Switches\Cell;
use Ortholex\Core\Switches\FoundSwitch;
use Ortholex\Core\Switches\MapRemark;
use Ortholex\Core\Switches\SwitchCode;
use Ortholex\Core\Switches\SwitchMap;
use Ortholex\Core\Switches\Zone;

/** What sheet 23 shows. */
final readonly class SwitchesView
{
    /** @var array<string, list<CellView>> by action */
    private array $cells;

    /** The cell that the flicked lever means; '' for none. */
    private string $proposed;

    /**
     * @param SwitchMap       $map     as staged
     * @param SwitchMap       $was     as it stands on the craft
     * @param list<MapRemark> $remarks
     * @param string          $from    where the levers stood when an action was chosen
     * @param string          $cell    the one that is looked at
     * @param list<Setting>   $fields
     * @param list<int>       $sticks  channels that sticks move
     */
    public function __construct(
        public bool $known,
        public SwitchMap $map,
        private SwitchMap $was,
        public array $remarks,
        public Moment $now,
        private Words $words,
        public SettingSet $staged,
        public SettingSet $preview,
        public ?CaptureKind $capture,
        public ?Action $choose,
        private string $from,
        private string $cell,
        public array $fields,
        public array $sticks,
    ) {
        $this->proposed = $this->proposal()->cell ?? '';
        $cells = [];
        foreach (Action::cases() as $action) {
            $cells[$action->value] = [];
            foreach ($this->map->switches as $lever) {
                foreach (array_keys($lever->positions) as $position) {
                    $cells[$action->value][] = $this->at($action, $lever, $position);
                }
            }
        }
        $this->cells = $cells;
    }

    public function answer(): string
    {
        return match (true) {
            !$this->known => 'Link the craft once, so that its switch map is known.',
            [] === $this->map->switches => 'Shows what is on in every position of every switch. No lever has been shown yet.',
            '' !== $this->now->says($this->words) => $this->now->says($this->words),
            [] === $this->remarks => 'Every position does what it should.',
            default => $this->words->of($this->remarks[0]->what),
        };
    }

    /** @return list<Action> */
    public function actions(): array
    {
        return Action::cases();
    }

    public function name(Action $action): string
    {
        return $this->words->name($action->value);
    }

    /** What a position of a lever is called. */
    public function position(FoundSwitch $lever, int $at): string
    {
        $last = \count($lever->positions) - 1;

        return match (true) {
            0 === $at => 'low',
            $at === $last => 'high',
            2 === $last => 'middle',
            default => (string) ($at + 1),
        };
    }

    /** @return list<CellView> the row of an action, through all positions of all levers */
    public function cells(Action $action): array
    {
        return $this->cells[$action->value];
    }

    /** What a position turns on, in words. */
    public function onIn(FoundSwitch $lever, int $position): string
    {
        $on = [];
        foreach (Action::cases() as $action) {
            foreach ($this->cells[$action->value] as $cell) {
                if ($cell->column === "$lever->channel.$position" && $cell->isOn()) {
                    $on[] = $this->name($action).('' === $cell->with ? '' : " (with $cell->with)");
                }
            }
        }

        return [] === $on ? '–' : implode(', ', $on);
    }

    /** How a cell stands: its state, what it needs with it in words, and whether that differs from the craft. */
    private function at(Action $action, FoundSwitch $lever, int $position): CellView
    {
        [$cell, $with] = $this->map->cell($action, $lever->channel, $position);
        [$before, $beforeWith] = isset($this->was->switches[$lever->channel])
            ? $this->was->cell($action, $lever->channel, $position)
            : [Cell::Off, []];

        return new CellView(
            "$action->value.$lever->channel.$position",
            $cell,
            implode(', ', array_map($this->zone(...), $with)),
            $cell !== $before || self::texts($with) !== self::texts($beforeWith),
            ($this->now->at[$lever->channel] ?? null) === $position,
            $this->proposed === "$action->value.$lever->channel.$position",
            Cell::Off === $cell ? 0 : $this->mark($action, $lever->channel),
            $this->called("$action->value.$lever->channel.$position"),
        );
    }

    /**
     * @param list<Zone> $zones
     *
     * @return list<string>
     */
    private static function texts(array $zones): array
    {
        return array_map(static fn (Zone $z): string => $z->text(), $zones);
    }

    /** The cell that the flicked lever means; null while none was flicked. */
    public function proposal(): ?CellView
    {
        $moved = null === $this->choose ? null : $this->now->moved($this->from);
        if (null === $this->choose || null === $moved) {
            return null;
        }
        [$channel, $position] = $moved;
        $words = "channel $channel, ".$this->position($this->map->switches[$channel], $position);

        return new CellView("{$this->choose->value}.$channel.$position", Cell::Off, $words, false, true, true, 0, '');
    }

    /** The cell that is looked at; null for none. */
    public function looked(): ?CellView
    {
        [$name, $channel, $position] = [...explode('.', $this->cell), '', ''];
        $action = Action::tryFrom($name);
        $lever = $this->map->switches[(int) $channel] ?? null;

        return null === $action || null === $lever || !isset($lever->positions[(int) $position])
            ? null
            : $this->at($action, $lever, (int) $position);
    }

    /** What a cell is called. */
    public function called(string $cell): string
    {
        [$name, $channel, $position] = [...explode('.', $cell), '', ''];
        $lever = $this->map->switches[(int) $channel] ?? null;

        return null === $lever ? $cell : $this->words->name($name).' on channel '.$channel.' '.$this->position($lever, (int) $position);
    }

    /** @return array<string, string> positions of other levers that a cell can need with it */
    public function others(string $cell): array
    {
        $channel = (int) (explode('.', $cell)[1] ?? 0);
        $others = [];
        foreach ($this->map->switches as $lever) {
            foreach (array_keys($lever->channel === $channel ? [] : $lever->positions) as $at) {
                $others["$lever->channel.$at"] = "channel $lever->channel ".$this->position($lever, $at);
            }
        }

        return $others;
    }

    /** A zone as a position of its lever, where it is one. */
    public function zone(Zone $zone): string
    {
        $lever = $this->map->switches[$zone->channel] ?? null;
        $held = [];
        foreach ($lever->positions ?? [] as $at => $us) {
            if ($zone->holds($us)) {
                $held[] = $at;
            }
        }

        return null === $lever || [] === $held
            ? $zone->text()
            : "channel $zone->channel ".implode(' or ', array_map(fn (int $at): string => $this->position($lever, $at), $held));
    }

    /** @return list<array{n: int, text: string, remark: MapRemark, mend: MendView|null}> */
    public function minded(): array
    {
        $out = [];
        foreach ($this->remarks as $i => $remark) {
            $out[] = ['n' => $i + 1, 'text' => $this->words->capital($remark->what), 'remark' => $remark, 'mend' => $this->mend($remark)];
        }

        return $out;
    }

    private function mend(MapRemark $remark): ?MendView
    {
        $action = $remark->action;
        if (null === $action) {
            return null;
        }
        $name = $this->name($action);

        return match (true) {
            null !== $remark->need => MendView::sheet($remark->need),
            $remark->is(SwitchCode::EdgeNear), $remark->is(SwitchCode::NeverReached) => MendView::snap(
                $action,
                "Put the edges of $name midway",
            ),
            $remark->is(SwitchCode::NoArm), $remark->is(SwitchCode::NoBeeper), $remark->is(SwitchCode::NoLevelling) => MendView::choose(
                $action,
                "Set $name by flicking a lever",
            ),
            $remark->is(SwitchCode::ArmInOneFlick) => $this->confirm($remark->channel ?? 0),
            $remark->is(SwitchCode::NoSuchSwitch) => MendView::levers(),
            $remark->is(SwitchCode::Contradict),
            $remark->is(SwitchCode::ArmedAtRest),
            $remark->is(SwitchCode::BeeperNeverDisarmed) => MendView::choose(
                $action,
                "Set $name elsewhere",
            ),
            $remark->is(SwitchCode::MotorsStill) => MendView::turning(),
            $remark->is(SwitchCode::OnStickChannel) => MendView::clear($action, "Take $name off it"),
            default => null,
        };
    }

    /** The beeper on the position before the one that arms, or a second lever where there is none before it. */
    private function confirm(int $channel): ?MendView
    {
        $lever = $this->map->switches[$channel] ?? null;
        foreach ($lever->positions ?? [] as $at => $us) {
            if ($at > 1 && Cell::Off !== $this->map->cell(Action::Arm, $channel, $at)[0]) {
                return MendView::cell('beeper.'.$channel.'.'.($at - 1), 'Put the beeper on the position before it');
            }
            if (1 === $at && Cell::Off !== $this->map->cell(Action::Arm, $channel, $at)[0]) {
                return MendView::look("arm.$channel.$at", 'Let it need a second lever');
            }
        }

        return null;
    }

    /** Number of the remark that stands at a row, at this lever; 0 for none. */
    private function mark(Action $action, int $channel): int
    {
        foreach ($this->remarks as $i => $remark) {
            if ($remark->action === $action && $remark->channel === $channel) {
                return $i + 1;
            }
        }

        return 0;
    }

    /** Number of the remark that concerns a whole row; 0 for none. */
    public function rowMark(Action $action): int
    {
        foreach ($this->remarks as $i => $remark) {
            if ($remark->action === $action && (null === $remark->channel || !isset($this->map->switches[$remark->channel]))) {
                return $i + 1;
            }
        }

        return 0;
    }

    public function isStaged(Action $action): bool
    {
        return $this->staged->has($action->setting());
    }

    /** @return list<Setting> fields of arming and levelling */
    public function manners(): array
    {
        return array_values(array_filter($this->fields, static fn (Setting $s): bool => !str_starts_with($s->name, 'action.')));
    }

    /** @return list<Setting> zones, for who must type them */
    public function zones(): array
    {
        return array_values(array_filter($this->fields, static fn (Setting $s): bool => str_starts_with($s->name, 'action.')));
    }
}
