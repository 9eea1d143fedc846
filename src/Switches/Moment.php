<?php

declare(strict_types=1);

namespace Ortholex\App\Switches;

use Ortholex\App\Words\Words;
use Ortholex\Core\Arming\Bar;
use Ortholex\Core\Link\RadioReading;
use Ortholex\Core\Radio\Heard;
use Ortholex\Core\Switches\Action;
use Ortholex\Core\Switches\FoundSwitch;

/** Where the levers stand at this moment, and what is on by it, to the board as it is set. */
final readonly class Moment
{
    /**
     * @param array<int, int> $at       position of each lever, by channel
     * @param list<Action>    $on
     * @param list<Bar>       $bars     what forbids arming
     * @param list<float>     $channels µs
     */
    private function __construct(
        public ?Heard $heard,
        public array $at,
        public array $on,
        public bool $armed,
        public array $bars,
        public array $channels,
    ) {
    }

    /** @param array<int, FoundSwitch> $levers by channel */
    public static function of(?RadioReading $reading, array $levers): self
    {
        $channels = null === $reading ? [] : $reading->channels();
        $at = [];
        foreach ($levers as $channel => $lever) {
            if (isset($channels[$channel - 1])) {
                $at[$channel] = $lever->position($channels[$channel - 1]);
            }
        }

        return new self(
            $reading?->heard,
            $at,
            Action::ofBits($reading->actions ?? 0),
            $reading->guard->armed ?? false,
            Bar::in($reading->guard->bars ?? 0),
            $channels,
        );
    }

    /** What is on now, and what arming would meet; on the desk the cable forbids it anyway, so that is said apart. */
    public function says(Words $words): string
    {
        if (null === $this->heard) {
            return '';
        }
        if (Heard::Frames !== $this->heard) {
            return $words->capital($this->heard).'.';
        }
        $on = array_map(static fn (Action $a): string => $words->name($a->value), $this->on);
        $bars = array_values(array_filter($this->bars, static fn (Bar $b): bool => Bar::Cable !== $b));
        $why = array_map(static fn (Bar $b): string => $words->of($b), $bars);

        return 'Now: '.([] === $on ? 'nothing on' : implode(', ', $on)).'; '.
            match (true) {
                $this->armed => 'armed.',
                [] !== $why => 'arm would be refused: '.implode('; ', $why).'.',
                \in_array(Bar::Cable, $this->bars, true) => 'without the cable, arm would be taken.',
                default => 'arm would be taken.',
            };
    }

    /** @return array<string, mixed> */
    public function toArray(Words $words): array
    {
        return [
            'at' => (object) $this->at,
            'on' => array_map(static fn (Action $a): string => $a->value, $this->on),
            'says' => $this->says($words),
        ];
    }

    /** Where all levers stand, to be compared with later: channel.position, joined by dashes. */
    public function mark(): string
    {
        return implode('-', array_map(static fn (int $c, int $p): string => "$c.$p", array_keys($this->at), $this->at));
    }

    /**
     * The lever that stands elsewhere than when it was marked.
     *
     * @return array{int, int}|null channel and position; null where none moved, or two did
     */
    public function moved(string $mark): ?array
    {
        $before = [];
        foreach (array_filter(explode('-', $mark)) as $one) {
            [$channel, $position] = [...explode('.', $one, 2), ''];
            $before[(int) $channel] = (int) $position;
        }
        $moved = array_diff_assoc(array_intersect_key($this->at, $before), $before);

        return 1 === \count($moved) ? [array_key_first($moved), $moved[array_key_first($moved)]] : null;
    }
}
