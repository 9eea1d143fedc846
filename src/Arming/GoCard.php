<?php

declare(strict_types=1);

namespace Ortholex\App\Arming;

use Doctrine\ORM\EntityManagerInterface;
use Ortholex\App\Book\Craft;
use Ortholex\App\FlightLog\LogBook;
use Ortholex\App\Shell\BadRequest;
use Ortholex\Core\Arming\Chain;
use Ortholex\Core\Arming\Open;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LinkLoss\LossPlan;
use Ortholex\Core\LinkLoss\Then;
use Psr\Clock\ClockInterface;

/** The list before a flight, made from the craft's own state: what it says itself is ticked by itself, the rest by its builder. */
final readonly class GoCard
{
    public function __construct(
        private LogBook $logs,
        private EntityManagerInterface $entities,
        private ClockInterface $clock,
    ) {
    }

    /** @return list<CardItem> */
    public function of(Craft $craft, Chain $chain, SettingSet $set): array
    {
        $plan = LossPlan::in($set);
        $then = match ($plan->then) {
            Then::Cut => 'the motors stop',
            Then::Descend => \sprintf('it descends at %.0f %% for %.0f s', $plan->descendPct, $plan->descendS),
            Then::Return => 'it comes back',
        };
        $cells = $set->whole('pack.cells', 1);
        $rows = [
            [
                'interlocks',
                'Nothing of ours is open on this sheet',
                false,
                [] === array_filter($chain->open, static fn (Open $o): bool => $o->isOurs()),
            ],
            [
                'props',
                'Props whole and tight, each the right way up: '.str_replace('_', ' ', $set->text('props.direction', 'props_in')),
                false,
                null,
            ],
            ['screws', 'Nothing loose: motors, arms, board, antennas clear of the props', false, null],
            [
                'pack',
                \sprintf(
                    'Pack strapped down; over %.1f V at rest, and down by %.1f V',
                    4.0 * $cells,
                    $set->number('pack.flight_end_cell_v', 3.4) * $cells,
                ),
                false,
                null,
            ],
            ['loss', \sprintf('Link lost: held for %.1f s, then %s', $plan->holdS, $then), false, null],
            ['place', 'Nobody within reach; the wind, and where to land, looked at', false, null],
        ];
        if ($set->flag('location.enabled')) {
            $rows[] = ['fix', 'Position fix stands: home is here', false, null];
        }
        if (0 === $this->logs->countAll($craft)) {
            $rows = [
                ...$rows,
                ['m_hover', 'Lift to a hand\'s height, hover 5 s, land', true, null],
                ['m_motors', 'Motors touched: none hotter than the others, none hot', true, null],
                ['m_moves', 'Hover again; small moves of roll, pitch and yaw go the right way', true, null],
                ['m_listen', 'No grinding, no twitch, no drift that the sticks cannot hold', true, null],
                ['m_motors_again', 'Land; motors touched again', true, null],
            ];
        }

        return array_map(function (array $row) use ($craft): CardItem {
            [$key, $text, $maiden, $byItself] = $row;
            $tick = $craft->ticks[$key] ?? null;

            return new CardItem(
                $key,
                $text,
                $maiden,
                $byItself,
                $tick['at'] ?? null,
                $tick['revision'] ?? 0,
                null !== $tick && $tick['revision'] !== $craft->revision,
            );
        }, $rows);
    }

    public function tick(Craft $craft, string $key, bool $done): void
    {
        if (1 !== preg_match('~^[a-z_]{2,20}$~', $key)) {
            throw BadRequest::at('item', 'There is no such line on the card.');
        }
        $ticks = $craft->ticks;
        unset($ticks[$key]);
        if ($done) {
            $ticks[$key] = ['at' => (float) $this->clock->now()->format('U'), 'revision' => $craft->revision];
        }
        $craft->ticks = $ticks;
        $this->entities->flush();
    }

    public function anew(Craft $craft): void
    {
        $craft->ticks = [];
        $this->entities->flush();
    }
}
