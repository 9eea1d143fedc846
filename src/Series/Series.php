<?php

declare(strict_types=1);

namespace Ortholex\App\Series;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Ortholex\App\Book\Craft;
use Ortholex\App\Storage\SettingSetType;
use Ortholex\Core\Craft\SettingSet;
use Ortholex\Core\LogCheck\Card;
use Ortholex\Core\Series\SeriesPlan;

/** A series as it was planned: which of its flights are flown, the logs tell by their own settings. */
#[ORM\Entity]
#[ORM\Table(name: 'series')]
class Series
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public ?int $id = null;

    #[ORM\Column(type: Types::DATETIME_IMMUTABLE, nullable: true)]
    public ?\DateTimeImmutable $endedAt = null;

    /** @var list<int> logs after whose flight the motors were felt hot */
    #[ORM\Column(type: Types::JSON)]
    public array $hot = [];

    /** What is replaced from flight to flight; '' where settings are varied. */
    #[ORM\Column(length: 40)]
    public string $part = '';

    /** @var list<string> what it is replaced with, by step */
    #[ORM\Column(type: Types::JSON)]
    public array $variants = [];

    /**
     * @param list<string> $settings varied; the first names a step
     * @param list<float>  $steps    its values; a flight of another that is to count adds to them
     * @param SettingSet   $base     of the craft when it began
     */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Craft $craft,
        #[ORM\Column(type: Types::JSON)] public readonly array $settings,
        #[ORM\Column(type: Types::JSON)] public array $steps,
        #[ORM\Column] public readonly float $baseline,
        #[ORM\Column(enumType: Card::class)] public readonly Card $card,
        #[ORM\Column(type: SettingSetType::NAME)] public readonly SettingSet $base,
        #[ORM\Column(type: Types::DATETIME_IMMUTABLE)] public readonly \DateTimeImmutable $beganAt,
    ) {
    }

    /** A step in words. */
    public function step(float $value): string
    {
        return $this->variants[(int) round($value) - 1] ?? (string) $value;
    }

    public function plan(): SeriesPlan
    {
        return SeriesPlan::kept($this->settings, array_map('floatval', $this->steps), $this->baseline, $this->card);
    }
}
