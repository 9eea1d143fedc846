<?php

declare(strict_types=1);

namespace Ortholex\App\Noise\Desk;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Ortholex\App\Book\Craft;
use Ortholex\Core\Craft\Axis;
use Ortholex\Core\DeskNoise\DeskStep;

/** What was measured on the desk: the samples, from which all that is said of it is computed. */
#[ORM\Entity]
#[ORM\Table(name: 'desk_noise')]
class DeskMeasurement
{
    /** Steps per deg/s, as the board sends them. */
    public const STEPS_PER_DPS = 16.4;

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public ?int $id = null;

    /** @var list<array{pct: float, rpm: float|null, bursts: array<string, list<string>>}> bursts as int16 under zlib and base64 */
    #[ORM\Column(type: Types::JSON)]
    public array $steps = [];

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Craft $craft,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)] public readonly \DateTimeImmutable $takenAt,
        #[ORM\Column] public readonly float $rateHz,
    ) {
    }

    public function add(DeskStep $step): void
    {
        $bursts = [];
        foreach ($step->bursts as $axis => $runs) {
            $bursts[$axis] = array_map(self::packed(...), $runs);
        }
        $this->steps[] = ['pct' => $step->pct, 'rpm' => $step->rpm, 'bursts' => $bursts];
    }

    /** @param list<float> $run deg/s */
    private static function packed(array $run): string
    {
        $raw = array_map(static fn (float $v): int => (int) round($v * self::STEPS_PER_DPS) & 0xFFFF, $run);

        return base64_encode((string) gzcompress(pack('v*', ...$raw)));
    }

    /** @return list<DeskStep> */
    public function steps(): array
    {
        $steps = [];
        foreach ($this->steps as $step) {
            $bursts = [];
            foreach (array_column(Axis::cases(), 'value') as $axis) {
                $bursts[$axis] = array_map(self::run(...), $step['bursts'][$axis] ?? []);
            }
            $steps[] = new DeskStep((float) $step['pct'], null === $step['rpm'] ? null : (float) $step['rpm'], $bursts);
        }

        return $steps;
    }

    /** @return list<float> deg/s */
    private static function run(string $packed): array
    {
        /** @var array<int, int>|false $raw */
        $raw = unpack('v*', (string) gzuncompress((string) base64_decode($packed, true)));

        return array_map(
            static fn (int $v): float => ($v > 32_767 ? $v - 65_536 : $v) / self::STEPS_PER_DPS,
            array_values(false === $raw ? [] : $raw),
        );
    }
}
