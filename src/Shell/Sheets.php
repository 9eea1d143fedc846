<?php

declare(strict_types=1);

namespace Ortholex\App\Shell;

/** The table of contents: seven parts, their sheets, in the order of the work. */
final readonly class Sheets
{
    public const PARTS = [
        '1' => 'Build',
        '2' => 'Command',
        '3' => 'Guard',
        '4' => 'Aids',
        '5' => 'Flights',
        '6' => 'Tune',
        '7' => 'Record',
    ];
    private const ROWS = [
        ['11', 'Identity', true, 'Who the board is, what it runs, and how it lies.'],
        ['12', 'Firmware', true, 'Which images fit this board, and writing one safely.'],
        [
            '13',
            'Wiring',
            true,
            'The board with its pads, rails and UARTs; wires drawn from pad to pad, checked as they are drawn; UART settings follow.',
        ],
        [
            '14',
            'Frame',
            true,
            'The craft by its real geometry; the mounting found by showing it level and nose up; the mixer as thrust arrows.',
        ],
        [
            '15',
            'Motors',
            true,
            'The spin check: one motor turned alone, gently; you say which moved and which way, and the pad map and reversals follow.',
        ],
        ['16', 'ESCs', true, 'The settings of all ESCs side by side, with the odd one out named.'],
        ['21', 'Receiver', false, 'The channels as they move, their order, and spans captured from the sticks.'],
        ['22', 'Feel', false, 'Rotation rate against stick, per axis, drawn and dragged.'],
        ['23', 'Switch map', false, 'For every position of every switch, what is on.'],
        ['31', 'Interlocks', false, 'What forbids arming now, why, and the step that mends it.'],
        ['32', 'Link loss', false, 'Hold, then cut, descend or return; and the rehearsal with the radio off.'],
        ['33', 'Pack', false, 'Voltage calibrated against a meter, levels per cell, and minutes left.'],
        ['41', 'Location', false, 'Satellites, the fix, and how much a still craft seems to wander.'],
        ['42', 'Overlay', false, 'What is drawn over the video picture, on its grid.'],
        ['43', 'Camera and video', false, 'Tilt per degree; channel and power within the law of the place.'],
        ['51', 'Logs', true, 'Flights flown, logs brought in, and what each can tell.'],
        ['52', 'Traces', true, 'Every signal on one time base, from the whole flight to ten milliseconds.'],
        ['53', 'Noise', true, 'What the gyro shakes with, before and after the filters.'],
        ['54', 'Response', true, 'What the craft does to a unit step of the stick, and how far to believe it.'],
        ['55', 'Incidents', true, 'The moment it went wrong: cause, effect, and which motor stopped pushing.'],
        ['61', 'Gains', true, 'P, I, D and feed-forward, with the step they would give.'],
        ['62', 'Filters', true, 'What the filters cost in delay and buy in quiet.'],
        ['63', 'Series', false, 'Flights that vary one setting in steps, compared.'],
        ['71', 'All settings', true, 'Every setting of the craft, against its defaults, as YAML too.'],
        ['72', 'Snapshots', true, 'Full copies of the settings, and the way back to each.'],
        ['73', 'Changes', true, 'Every change: when, why, from, to, and the way back.'],
    ];

    /** @return array<int, Sheet> by number */
    public static function all(): array
    {
        $sheets = [];
        foreach (self::ROWS as [$number, $name, $built, $will]) {
            $sheets[$number] = new Sheet($number, $name, $number[0], $built, $will);
        }

        return $sheets;
    }

    /** @return array<int, Sheet> */
    public static function ofPart(string $part): array
    {
        return array_filter(self::all(), static fn (Sheet $s): bool => $s->part === $part);
    }
}
