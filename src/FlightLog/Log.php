<?php

declare(strict_types=1);

namespace Ortholex\App\FlightLog;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Ortholex\App\Book\Craft;
use Ortholex\App\Storage\SettingSetType;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\Fact\Stored;
use Ortholex\Core\FlightLog\BadRows;
use Ortholex\Core\FlightLog\SampleClock;
use Ortholex\Core\FlightLog\Segment;
use Ortholex\Core\FlightLog\TimeFault;
use Ortholex\Core\FlightLog\TimeFaultKind;

/** A stored flight log: what is known of it; the samples are in log_chunk. */
#[ORM\Entity]
#[ORM\Table(name: 'log')]
class Log
{
    /** What can be replaced on a craft between flights. */
    public const PARTS = ['prop', 'motor', 'ESC', 'arm', 'frame', 'board', 'mount of the board', 'pack', 'receiver', 'wiring', 'other'];

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public ?int $id = null;

    #[ORM\Column]
    public string $note = '';

    #[ORM\Column(length: 200)]
    public string $tags = '';

    /** @var list<array{part: string, place: string, with: string}> what was replaced before this flight */
    #[ORM\Column(type: Types::JSON)]
    public array $parts = [];

    /** @var array<string, list<float>> beginnings of windows struck out of the step, s, by axis */
    #[ORM\Column(type: Types::JSON)]
    public array $struck = [];

    /** @var list<string> traces whose sign was turned about since it came in */
    #[ORM\Column(type: Types::JSON)]
    public array $turned = [];

    /** Which it was on the recorder of its craft: number and bytes; '' for a log from disk. */
    #[ORM\Column(length: 30)]
    public string $recording = '';

    /** When it was put away; it can be brought back. */
    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $putAwayAt = null;

    /**
     * @param list<string>                                                                       $traces
     * @param list<array{first: int, count: int, start_s: float}>                                $segments
     * @param list<array{kind: string, at_s: float, length_s: float, row: int}>                  $faults
     * @param array<string, mixed> $badRows as BadRows keeps them
     * @param SettingSet $settings flown with, as the log's head says
     * @param list<string> $leftOut columns that are no trace of ours
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Craft $craft,
        #[ORM\Column] public readonly string $code,
        #[ORM\Column] public string $title,
        #[ORM\Column] public readonly string $sha256,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)] public readonly \DateTimeImmutable $flownAt,
        #[ORM\Column] public readonly float $durationS,
        #[ORM\Column] public readonly float $rateHz,
        #[ORM\Column] public readonly int $samples,
        #[ORM\Column(type: Types::JSON)] public readonly array $traces,
        #[ORM\Column(type: Types::JSON)] public readonly array $segments,
        #[ORM\Column(type: Types::JSON)] public readonly array $faults,
        #[ORM\Column(type: Types::JSON)] public readonly array $badRows,
        #[ORM\Column(type: Types::TEXT)] public readonly string $head,
        #[ORM\Column(type: SettingSetType::NAME)] public SettingSet $settings,
        #[ORM\Column(type: Types::JSON)] public readonly array $leftOut = [],
    ) {
    }

    /** Sample at a time of the log's own clock, s; the end where it is beyond. */
    public function sampleAt(float $atS): int
    {
        foreach ($this->segments as $segment) {
            $i = (int) round(($atS - $segment['start_s']) * $this->rateHz);
            if ($i < $segment['count']) {
                return $segment['first'] + max(0, $i);
            }
        }

        return $this->samples;
    }

    public function badRows(): BadRows
    {
        return BadRows::fromArray(Stored::of($this->badRows));
    }

    public function clock(): SampleClock
    {
        return SampleClock::known(
            $this->rateHz,
            array_map(static fn (array $s): Segment => new Segment($s['first'], $s['count'], (float) $s['start_s']), $this->segments),
            array_map(
                static fn (array $f): TimeFault => new TimeFault(
                    TimeFaultKind::tryFrom($f['kind']) ?? TimeFaultKind::Gap,
                    (float) $f['at_s'],
                    (float) $f['length_s'],
                    $f['row'],
                ),
                $this->faults,
            ),
        );
    }
}
