<?php

declare(strict_types=1);

namespace Ortholex\App\FlightLog;

use Doctrine\ORM\Mapping as ORM;

/** A marked part of a log's time, kept under a name; analyses can be asked of it alone. */
#[ORM\Entity]
#[ORM\Table(name: 'passage')]
class Passage
{
    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public ?int $id = null;

    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Log $log,
        #[ORM\Column(length: 80)] public string $name,
        #[ORM\Column] public readonly float $fromS,
        #[ORM\Column] public readonly float $toS,
    ) {
    }

    public function lengthS(): float
    {
        return $this->toS - $this->fromS;
    }
}
