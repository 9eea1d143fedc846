<?php

declare(strict_types=1);

namespace Ortholex\App\Arming;

use Ortholex\App\Words\Words;
use Ortholex\Core\Arming\Bar;
use Ortholex\Core\Arming\Chain;
use Ortholex\Core\Arming\ChainPlace;
use Ortholex\Core\Arming\Open;
use Ortholex\Core\Arming\Stopped;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Proof\Proof;
use Ortholex\Core\Proof\Proved;
use Ortholex\Core\Proof\ReplacedPart;
use Ortholex\Core\Settings\Setting;

/** What sheet 31 shows. */
final readonly class ArmingView
{
    private const NUMBERS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'];

    /**
     * @param list<Setting>        $fields
     * @param list<CardItem>       $card
     * @param array<string, Proof> $proofs
     * @param bool                 $ready   whether it may be armed here
     * @param string               $notYet  what stands against that
     * @param array<string, string> $righting what self-righting needs, and whether it is there
     */
    public function __construct(
        public bool $known,
        public bool $linked,
        public Chain $chain,
        public ?Stopped $stopped,
        private Words $words,
        public SettingSet $staged,
        public SettingSet $preview,
        public array $fields,
        public array $card,
        public array $proofs,
        public bool $ready,
        public string $notYet,
        public array $righting,
    ) {
    }

    public function answer(): string
    {
        $open = \count($this->counted());
        $count = (self::NUMBERS[$open] ?? $open).(1 === $open ? ' thing' : ' things');

        return match (true) {
            !$this->known => 'Link the craft once, so that what it waits for is known.',
            !$this->linked && 0 === $open => 'Nothing that Ortholex checks is open; link it to see the board\'s own.',
            !$this->linked => "Not linked. Ours wait for $count.",
            $this->chain->armed => 'Armed.',
            !$this->chain->wouldArm() => "Will not arm: $count.",
            0 === $open => 'It would arm, and nothing stands against flying.',
            default => "It would arm; $count should be done first.",
        };
    }

    /** @return list<array{place: ChainPlace, name: string, open: list<OpenView>, forbids: bool}> the chain, link by link */
    public function links(): array
    {
        return array_map(fn (ChainPlace $place): array => [
            'place' => $place,
            'name' => $this->words->of($place),
            'open' => array_map(fn (Open $o): OpenView => OpenView::of($o, $this->words), $this->chain->at($place)),
            'forbids' => [] !== array_filter($this->chain->at($place), static fn (Open $o): bool => $o->forbids),
        ], ChainPlace::cases());
    }

    /** What the state of all this is, to be compared with later. */
    public function mark(): string
    {
        $all = array_map(
            static fn (Open $o): string => $o->place->value.($o->bar->value ?? serialize($o->own)).($o->forbids ? '!' : ''),
            $this->chain->open,
        );

        return hash(
            'xxh32',
            implode(
                '|',
                [
                    ...$all,
                    $this->chain->armed ? 'armed' : '',
                    $this->linked ? 'linked' : '',
                    $this->ready ? 'r' : '',
                    $this->stopped->value ?? '',
                ],
            ),
        );
    }

    /** @return list<array{part: ReplacedPart, name: string, opens: string}> */
    public function parts(): array
    {
        return array_map(fn (ReplacedPart $p): array => [
            'part' => $p,
            'name' => $this->words->name($p->called()),
            'opens' => implode(', ', array_map(fn (Proved $w): string => $this->words->name($w->called()), $p->opens())),
        ], ReplacedPart::cases());
    }

    public function stoppedBy(): string
    {
        return null === $this->stopped ? '' : $this->words->capital($this->stopped);
    }

    /** @return list<Open> all that is counted: the cable belongs to the desk, not to the craft */
    private function counted(): array
    {
        return array_values(array_filter($this->chain->open, static fn (Open $o): bool => Bar::Cable !== $o->bar));
    }
}
