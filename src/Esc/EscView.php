<?php

declare(strict_types=1);

namespace Ortholex\App\Esc;

use Ortholex\App\Craft\Craft;
use Ortholex\App\Words\Words;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Esc\EscIdentity;
use Ortholex\Core\Fact\Fact;
use Ortholex\Core\Settings\EscTable;
use Ortholex\Core\Settings\Inability;

/** What sheet 16 shows: a column for each ESC, a row for each setting. */
final readonly class EscView
{
    /** As they sit: from the nose back, left before right. */
    private const ORDER = ['front_left', 'front', 'front_right', 'left', 'right', 'rear_left', 'rear', 'rear_right'];

    /**
     * @param array<string, EscIdentity|null>      $escs   by place; null where it stayed silent
     * @param array<string, list<EscRow>>          $groups rows by group label
     * @param array<string, list<string>>          $odd    labels of the settings in which a place differs, by place
     * @param array<string, array{ok: bool, tries: int}> $acks how the last write was acknowledged, by place
     * @param array<string, int>                   $pads   by place
     */
    private function __construct(
        public array $escs,
        public array $groups,
        public array $odd,
        public array $acks,
        public array $pads,
        public bool $linked,
        public bool $read,
        public bool $pack,
        public string $problem,
        public ?EscRow $chosen,
    ) {
    }

    /**
     * @param SettingSet $base as the settings are
     */
    public static function of(
        Craft $craft,
        SettingSet $base,
        SettingSet $staged,
        bool $linked,
        bool $read,
        bool $pack,
        string $chosen,
        Words $words,
    ): self {
        $escs = Escs::identities($craft);
        uksort($escs, static fn (string $a, string $b): int => array_search($a, self::ORDER, true) <=> array_search($b, self::ORDER, true));
        $odd = [];
        $groups = [];
        $found = null;
        $facts = [
            new EscRow(
                'firmware',
                'Firmware',
                '',
                'What it runs. Sheet 12 writes another.',
                null,
                array_map(static fn (?EscIdentity $e): string => $e?->firmwareInWords() ?? '', $escs),
                [],
                [],
            ),
            new EscRow(
                'switching_khz',
                'Switching frequency',
                'kHz',
                'How often the windings are switched, a second. It is built into the firmware; sheet 12 shows what each costs and buys.',
                null,
                array_map(static fn (?EscIdentity $e): float => (float) ($e->switchingKhz ?? 0), $escs),
                [],
                [],
            ),
            new EscRow(
                'hardware',
                'Hardware',
                '',
                'Layout, processor clock and dead time: what an image must be made for.',
                null,
                array_map(static fn (?EscIdentity $e): string => $e?->hardwareInWords() ?? '', $escs),
                [],
                [],
            ),
        ];
        $groups['What they are'] = $facts;
        foreach (EscTable::rows() as $key => $setting) {
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
        foreach ($groups as $rows) {
            foreach ($rows as $row) {
                // Direction is meant to differ; the spin check judges it.
                foreach ($row->differs()->odd as $place) {
                    $odd[$place][] = $row->label;
                }
                if ($row->key === $chosen) {
                    $found = $row;
                }
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

        return new self($escs, $groups, $odd, $acks, $pads, $linked, $read, $pack, $craft->escsProblem, $found);
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
