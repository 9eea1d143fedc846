<?php

declare(strict_types=1);

namespace Ortholex\App\Work;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Ortholex\App\Book\Craft;

/** Long work: a row that says how far it is, and a process of its own that does it. */
#[ORM\Entity]
#[ORM\Table(name: 'job')]
class Job
{
    /** Kinds that have the link to themselves. */
    public const HOLD_LINK = ['flash', 'flash-escs'];

    /** Kinds that wait for their turn behind one another, as a pilot comes home with several logs. */
    public const IN_TURN = ['import', 'fetch', 'fly', 'analyse'];

    /** Kinds that bring logs in, or look at them. */
    public const READS_LOGS = [...self::IN_TURN, 'series'];

    #[ORM\Id, ORM\GeneratedValue, ORM\Column]
    public ?int $id = null;

    #[ORM\Column(enumType: JobState::class)]
    public JobState $state = JobState::Waiting;

    /** 0 to 1 */
    #[ORM\Column]
    public float $progress = 0.0;

    #[ORM\Column]
    public string $doing = 'waiting to start';

    /** @var array<string, mixed> the same in figures; see JobStep */
    #[ORM\Column(type: Types::JSON)]
    public array $step = [];

    #[ORM\Column]
    public bool $cancelAsked = false;

    #[ORM\Column(nullable: true)]
    public ?int $pid = null;

    #[ORM\Column(type: Types::FLOAT, nullable: true)]
    public ?float $startedAt = null;

    #[ORM\Column(type: Types::FLOAT, nullable: true)]
    public ?float $heartbeatAt = null;

    #[ORM\Column(type: Types::FLOAT, nullable: true)]
    public ?float $endedAt = null;

    #[ORM\Column(type: Types::TEXT)]
    public string $message = '';

    /** @var array<string, mixed> */
    #[ORM\Column(type: Types::JSON)]
    public array $result = [];

    /** Whether the user has seen how it ended. */
    #[ORM\Column]
    public bool $seen = false;

    /** @param array<string, mixed> $parameters what to do, in the handler's terms */
    public function __construct(
        #[ORM\ManyToOne, ORM\JoinColumn(nullable: false)] public readonly Craft $craft,
        #[ORM\Column] public readonly string $kind,
        #[ORM\Column] public readonly string $title,
        #[ORM\Column(name: 'work_order', type: Types::JSON)] public array $parameters,
        #[ORM\Column(type: Types::FLOAT)] public float $askedAt,
    ) {
    }

    /** A figure of what it was told to do; 0 where it was told none. */
    public function number(string $name): float
    {
        return is_numeric($this->parameters[$name] ?? null) ? (float) $this->parameters[$name] : 0.0;
    }

    /** What holds the link is begun again on its sheet, where it can be seen what the board needs. */
    public function mayBeStartedAgain(): bool
    {
        return !\in_array($this->kind, self::HOLD_LINK, true);
    }

    public function isOpen(): bool
    {
        return $this->state->isOpen();
    }
}
