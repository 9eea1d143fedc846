<?php

declare(strict_types=1);

namespace Ortholex\Bench\Link;

use Ortholex\Bench\State\WorldState;
use Ortholex\Bench\Time\Pace;
use Ortholex\Bench\World\World;
use Ortholex\Core\Link\ByteLink;
use Ortholex\Core\Link\LinkError;

/** The USB cable of the bench. Bytes written reach the board only while the cable is in. */
final class WorldLink implements ByteLink
{
    private string $arrived = '';
    private ?int $cableMoves = null;

    public function __construct(private readonly World $world, private readonly Pace $pace)
    {
    }

    public function write(string $bytes): void
    {
        [$answer, $took] = $this->world->store->change(function (WorldState $s) use ($bytes): array {
            $this->demandCable($s);

            return $this->world->board($s)->receive($bytes);
        });
        // The board works while others may touch the world, so that a cable can be pulled in the middle.
        $this->pace->wait($took);
        $this->arrived .= $answer;
    }

    public function read(int $most, int $timeoutMs): string
    {
        $this->demandCable($this->world->store->peek());
        if ('' === $this->arrived) {
            $this->pace->wait(min($timeoutMs, 20) / 1000);

            return '';
        }
        $bytes = substr($this->arrived, 0, $most);
        $this->arrived = substr($this->arrived, $most);

        return $bytes;
    }

    public function nowMs(): int
    {
        return (int) ($this->pace->now() * 1000);
    }

    private function demandCable(WorldState $s): void
    {
        if (!$s->cable || (null !== $this->cableMoves && $s->cableMoves !== $this->cableMoves)) {
            throw LinkError::cableOut();
        }
        $this->cableMoves = $s->cableMoves;
    }
}
