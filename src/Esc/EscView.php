<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Ortholex\App\Book\Craft;
use Ortholex\App\Link\Escs;
use Ortholex\App\Page\DrawnMotor;
use Ortholex\App\Page\FrameDrawing;
use Ortholex\App\Words\Words;
use Ortholex\Core\Airframe\Airframe;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Drive\MotorSignal;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Inability;
use Ortholex\Core\Settings\SettingGroup;

/** What sheet 16 shows: what the ESCs have in common, and at each place what departs from it. */
final readonly class EscView
{
    /** As they sit: from the nose back, left before right. */
    private const ORDER = ['front_left', 'front', 'front_right', 'left', 'right', 'rear_left', 'rear', 'rear_right'];

    /** What an ESC is made of: it can differ, and not be written over. */
    public const HARDWARE = 'hardware';

    public const HALF_HEIGHT = 250.0;
    private const REACH = 86.0;
    private const GAP = 10.0;

    /** What is said of what an ESC is. */
    private const FACTS = [
        'firmware' => 'What it runs. Sheet 12 writes another.',
        'switching_khz' => 'How often the windings are switched. Built into the firmware; sheet 12 shows what each costs and buys.',
        'hardware' => 'Dead time, pin layout and processor clock: what an image must be made for.',
    ];

    /**
     * @param array<string, EscIdentity|null>      $escs   by place; null where it stayed silent
     * @param array<string, list<EscRow>>          $groups rows by group label
     * @param list<EscPlace>                       $places on the drawing
     * @param array<string, list<string>>          $odd    labels of the settings in which a place differs, by place
     * @param array<string, array{ok: bool, tries: int}> $acks how the last write was acknowledged, by place
     * @param array<string, int>                   $pads   by place
     * @param array<string, EscOrder>              $orders what is left of writing their firmware, by place
     */
    private function __construct(
        public array $escs,
        public array $groups,
        public array $places,
        public array $odd,
        public array $acks,
        public array $pads,
        public bool $linked,
        public bool $read,
        public bool $pack,
        public string $problem,
        public ?EscRow $chosen,
        public array $orders,
    ) {
    }

    /**
     * @param SettingSet              $base   as the settings are
     * @param array<string, EscOrder> $orders what is left of writing their firmware, by place
     */
    public static function of(
        Craft $craft,
        Airframe $frame,
        SettingSet $base,
        SettingSet $staged,
        bool $linked,
        bool $read,
        bool $pack,
        string $chosen,
        Words $words,
        array $orders = [],
    ): self {
        $escs = Escs::identities($craft);
        uksort($escs, static fn (string $a, string $b): int => array_search($a, self::ORDER, true) <=> array_search($b, self::ORDER, true));
        $groups = self::groups($escs, $base, $staged, $words);
        $rows = array_merge(...array_values($groups));
        $odd = [];
        $found = null;
        $accepted = self::isAccepted($craft, $words);
        foreach ($rows as $row) {
            $counts = !$row->differs()->isSplit() && !($accepted && self::HARDWARE === $row->key);
            foreach ($counts ? $row->differs()->odd : [] as $place) {
                $odd[$place][] = $row->label;
            }
            if ($row->key === $chosen) {
                $found = $row;
            }
        }
        $acks = [];
        $pads = array_flip(EscTable::pads($craft->settings));
        foreach ($pads as $place => $pad) {
            $ack = $craft->escs[$pad]['ack'] ?? null;
            if (\is_array($ack) && \is_bool($ack['ok'] ?? null) && \is_int($ack['tries'] ?? null)) {
                $acks[$place] = ['ok' => $ack['ok'], 'tries' => $ack['tries']];
            }
        }

        $was = [];
        foreach ($pads as $place => $pad) {
            $from = $craft->escs[$pad]['was'] ?? '';
            $was[$place] = \is_string($from) && $from !== $place ? $from : '';
        }
        $places = self::places($frame, $escs, $pads, $acks, $rows, $was);

        return new self($escs, $groups, $places, $odd, $acks, $pads, $linked, $read, $pack, $craft->escsProblem, $found, $orders);
    }

    /**
     * @param array<string, EscIdentity|null> $escs by place
     *
     * @return array<string, list<EscRow>> by group label
     */
    private static function groups(array $escs, SettingSet $base, SettingSet $staged, Words $words): array
    {
        $facts = [
            'firmware' => ['Firmware', '', static fn (EscIdentity $e): string => $e->firmwareInWords()],
            'switching_khz' => ['Switching frequency', 'kHz', static fn (EscIdentity $e): float => (float) $e->switchingKhz],
            'hardware' => ['Hardware', '', static fn (EscIdentity $e): string => $words->of($e->hardware())],
        ];
        $groups = [];
        foreach ($facts as $key => [$label, $unit, $of]) {
            $values = array_map($of, array_filter($escs));
            $groups['What they are'][] = new EscRow($key, $label, $unit, self::FACTS[$key], null, $values, [], []);
        }
        $digital = MotorSignal::in($base->with($staged))->isDigital();
        foreach (EscTable::rows() as $key => $setting) {
            // A number has no length: with a digital signal end points mean nothing.
            if ($digital && SettingGroup::EndPoints === $setting->group) {
                continue;
            }
            $values = $changes = $unable = [];
            foreach ($escs as $place => $esc) {
                $name = "esc.$place.$key";
                $why = null === $esc ? Fact::of(Inability::Silent) : EscTable::unable($key, $esc);
                if (null !== $why) {
                    $unable[$place] = $words->of($why);
                } elseif (isset($base[$name])) {
                    $values[$place] = $base[$name];
                    if (isset($staged[$name])) {
                        $changes[$place] = $staged[$name];
                    }
                }
            }
            $groups[$words->group($setting->group)][] = new EscRow(
                $key,
                $words->label($setting),
                $setting->unit,
                $words->help($setting),
                $setting,
                $values,
                $changes,
                $unable,
            );
        }

        return $groups;
    }

    /**
     * Each ESC at its motor, its words in a column on its side.
     *
     * @param array<string, EscIdentity|null>            $escs by place
     * @param array<string, int>                         $pads by place
     * @param array<string, array{ok: bool, tries: int}> $acks by place
     * @param list<EscRow>                               $rows
     * @param array<string, string>                      $was  place of before, by place
     *
     * @return list<EscPlace>
     */
    private static function places(Airframe $frame, array $escs, array $pads, array $acks, array $rows, array $was): array
    {
        $sides = [-1 => [], 1 => []];
        foreach (FrameDrawing::of($frame, self::REACH)->motors as $m) {
            // Of two in the middle, the one at the nose goes to the right.
            $sides[$m->x < -1 || ($m->x < 1 && $m->y > 0) ? -1 : 1][] = $m;
        }
        $at = [];
        foreach ($sides as $side => $motors) {
            usort($motors, static fn (DrawnMotor $a, DrawnMotor $b): int => $a->y <=> $b->y);
            $height = (2 * self::HALF_HEIGHT) / max(1, \count($motors));
            foreach ($motors as $i => $m) {
                $told = $lacks = $alone = [];
                $direction = null;
                foreach ($rows as $row) {
                    if ($row->isOwn()) {
                        $direction = isset($row->values[$m->place]) ? $row : null;
                    } elseif (isset($row->unable[$m->place])) {
                        // What none of them has, the list says once.
                        $lacks = [] === $row->values ? $lacks : [...$lacks, $row];
                    } elseif ($row->isToldAt($m->place)) {
                        $told[] = $row;
                    } elseif (null !== $row->setting && isset($row->values[$m->place])) {
                        $alone[] = $row;
                    }
                }
                $at[] = new EscPlace(
                    $m,
                    $escs[$m->place] ?? null,
                    $pads[$m->place] ?? 0,
                    $acks[$m->place] ?? null,
                    $told,
                    $lacks,
                    $alone,
                    $direction,
                    $side,
                    $i * $height - self::HALF_HEIGHT,
                    $height - self::GAP,
                    $was[$m->place] ?? '',
                );
            }
        }

        return $at;
    }

    /** @return list<EscRow> rows in which no value has a majority */
    public function split(): array
    {
        $rows = array_merge(...array_values($this->groups));

        return array_values(array_filter($rows, static fn (EscRow $r): bool => $r->differs()->isSplit()));
    }

    /** @return array<string, string> hardware in words, by serial number; by place where an ESC tells none */
    public static function hardware(Craft $craft, Words $words): array
    {
        $hardware = [];
        foreach (Escs::identities($craft) as $place => $esc) {
            $known = null === $esc || '' === $esc->serial ? $place : $esc->serial;
            $hardware[$known] = null === $esc ? '' : $words->of($esc->hardware());
        }

        return $hardware;
    }

    private static function isAccepted(Craft $craft, Words $words): bool
    {
        $of = $craft->accepted[self::HARDWARE]['of'] ?? null;

        return null !== $of && $of == self::hardware($craft, $words);
    }

    public function directionsDiffer(): bool
    {
        foreach (array_merge(...array_values($this->groups)) as $row) {
            if ($row->isOwn()) {
                return \count(array_unique($row->all())) > 1;
            }
        }

        return false;
    }

    /** Which differ in what, in one line. */
    public function differences(): string
    {
        $said = [];
        foreach ($this->odd as $place => $labels) {
            $said[] = str_replace('_', ' ', $place).': '.implode(', ', array_map(mb_strtolower(...), $labels));
        }

        return implode(' · ', $said);
    }

    /** @return list<string> places that differ from the others */
    public function oddPlaces(): array
    {
        return array_map(strval(...), array_keys($this->odd));
    }

    /** @return list<string> places that stayed silent */
    public function silent(): array
    {
        return array_keys(array_filter($this->escs, static fn (?EscIdentity $e): bool => null === $e));
    }

    /** @return list<string> */
    public function failed(): array
    {
        return array_keys(array_filter($this->acks, static fn (array $a): bool => !$a['ok']));
    }
}
